import {
  OBJECT_LISTS,
  type Draft,
  type Edit,
  type NamedObject,
  type PutObject,
  type ObjectKind,
  type Place,
  type Rule,
  type SavedCheck,
  type Section,
} from '../api/types';
import { asked, asking, type CriterionName } from './criteria';

/**
 * The draft after an edit that the server accepted. The server decides what is valid; this only
 * follows, so that a view need not fetch the whole draft again. Parts that the edit does not touch
 * stay the same objects.
 */
export function applyEdit(draft: Draft, edit: Edit): Draft {
  switch (edit.kind) {
    case 'insertRules': {
      // A view may show a rule before it is stored.
      const ids = new Set(edit.rules.map((rule) => rule.id));
      const others = without(sectionsOf(draft), ids);
      return { ...draft, sections: insert(others, edit.rules, edit.place) };
    }
    case 'replaceRules': {
      const next = new Map(edit.rules.map((rule) => [rule.id, rule]));
      return mapRules(draft, (rule) => next.get(rule.id) ?? rule);
    }
    case 'deleteRules':
      return { ...draft, sections: without(sectionsOf(draft), new Set(edit.ids)) };
    case 'moveRules': {
      const { ids } = edit;
      const byId = new Map(allRules(draft).map((rule) => [rule.id, rule]));
      const moved = ids.flatMap((id) => byId.get(id) ?? []);
      const rest = without(sectionsOf(draft), new Set(ids));
      return { ...draft, sections: insert(rest, moved, edit.place) };
    }
    case 'insertSection': {
      const sections = [...sectionsOf(draft)];
      const at = sections.findIndex((section) => section.id === edit.before);
      const section: Section = { id: edit.id, name: edit.name, rules: [] };
      if (edit.tail) section.tail = true;
      sections.splice(at < 0 ? endOf(draft, edit.tail ?? false) : at, 0, section);
      return { ...draft, sections };
    }
    case 'renameSection':
      return {
        ...draft,
        sections: sectionsOf(draft).map((section) =>
          section.id === edit.id ? { ...section, name: edit.name } : section,
        ),
      };
    case 'moveSection': {
      const moved = sectionsOf(draft).find((section) => section.id === edit.id);
      if (!moved) return draft;
      const sections = sectionsOf(draft).filter((section) => section !== moved);
      const at = sections.findIndex((section) => section.id === edit.before);
      const end = endOf({ ...draft, sections }, moved.tail ?? false);
      sections.splice(at < 0 ? end : at, 0, moved);
      return { ...draft, sections };
    }
    case 'deleteSection':
      return { ...draft, sections: sectionsOf(draft).filter((section) => section.id !== edit.id) };
    case 'putZone':
      return inChecks(draft, edit, putObject(draft, 'zones', edit, ['fromZones', 'toZones']));
    case 'putAddress':
      return putObject(draft, 'addresses', edit, ['fromAddresses', 'toAddresses']);
    case 'putService':
      return putObject(draft, 'services', edit, ['services']);
    case 'putHostList':
      return putObject(draft, 'hostLists', edit, ['site']);
    case 'putSchedule':
      return putObject(draft, 'schedules', edit, ['time']);
    case 'putDeviceState':
      return putObject(draft, 'deviceStates', edit, ['device']);
    case 'putRatePlan': {
      const ratePlans = put(draft.ratePlans, edit.ratePlan, edit.replaces);
      return renamed({ ...draft, ratePlans }, 'ratePlan', edit.replaces, edit.ratePlan.name);
    }
    case 'putNotice': {
      const notices = put(draft.notices, edit.notice, edit.replaces);
      return renamed({ ...draft, notices }, 'notice', edit.replaces, edit.notice.name);
    }
    case 'setLineCapacity':
      return { ...draft, lineCapacity: edit.capacity };
    case 'setTimeZone':
      return { ...draft, timeZone: edit.name };
    case 'setBreadth':
      return { ...draft, tooBroad: edit.tooBroad };
    case 'putCheck': {
      const checks = put(draft.checks, edit.check, edit.replaces);
      return { ...draft, checks: edit.replaces ? checks : placedAbove(checks, edit.before) };
    }
    case 'deleteCheck':
      return { ...draft, checks: draft.checks.filter((c) => !sameName(c.name, edit.name)) };
    case 'deleteObject': {
      if (edit.objectKind === 'rate plan') {
        const ratePlans = draft.ratePlans.filter((plan) => !sameName(plan.name, edit.name));
        return { ...draft, ratePlans };
      }
      if (edit.objectKind === 'notice') {
        const notices = draft.notices.filter((notice) => !sameName(notice.name, edit.name));
        return { ...draft, notices };
      }
      const list = OBJECT_LISTS[edit.objectKind];
      return { ...draft, [list]: draft[list].filter((o) => !sameName(o.name, edit.name)) };
    }
    case 'putVocabulary':
      return {
        ...draft,
        editions: { ...draft.editions, [edit.vocabulary.coordinate]: edit.vocabulary.edition },
      };
    case 'deleteVocabulary': {
      const editions = { ...draft.editions };
      delete editions[edit.name];
      return { ...draft, editions };
    }
    case 'putFeed': {
      const { pinned } = edit;
      const others = draft.feeds.filter((feed) => !sameName(feed.name, pinned.name));
      const feeds = [...others, pinned].sort((a, b) =>
        a.name.toLowerCase() < b.name.toLowerCase() ? -1 : 1,
      );
      return { ...draft, feeds };
    }
    case 'deleteFeed':
      return { ...draft, feeds: draft.feeds.filter((feed) => !sameName(feed.name, edit.name)) };
    case 'putCommon':
    case 'restore':
      return draft; // the whole draft is another, and is fetched
    case 'batch':
      return edit.edits.reduce(applyEdit, draft);
  }
}

const sameName = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** The place behind the last section of the same kind that is not from a common rulebase. */
function endOf(draft: Draft, tail: boolean): number {
  const sections = sectionsOf(draft);
  let at = sections.length;
  while (at > 0 && (originOf(draft, sections[at - 1]!) || (sections[at - 1]!.tail && !tail))) at--;
  return at;
}

/** Name of the common rulebase that a section is from, where it is not the draft's own. */
export const originOf = (draft: Draft, section: Section): string | undefined =>
  draft.common?.sections[section.id];

/** Names of the common rulebases that rules are from, by the ids of the rules. */
export function originsOf(draft: Draft): Map<string, string> {
  const out = new Map<string, string>();
  for (const section of draft.common ? sectionsOf(draft) : []) {
    const origin = originOf(draft, section);
    if (origin) (section.rules ?? []).forEach((rule) => out.set(rule.id, origin));
  }
  return out;
}

export const sectionsOf = (draft: Draft) => draft.sections;

export const allRules = (draft: Draft): Rule[] =>
  sectionsOf(draft).flatMap((section) => section.rules ?? []);

function insert(sections: Section[], rules: Rule[], place: Place): Section[] {
  const anchor = place.above ?? place.below;
  return sections.map((section) => {
    const inside = section.rules ?? [];
    let at = -1;
    if (anchor !== undefined) {
      const found = inside.findIndex((rule) => rule.id === anchor);
      at = found < 0 ? -1 : found + (place.below === undefined ? 0 : 1);
    } else if (place.startOf === section.id) {
      at = 0;
    } else if (place.endOf === section.id) {
      at = inside.length;
    }
    return at < 0
      ? section
      : { ...section, rules: [...inside.slice(0, at), ...rules, ...inside.slice(at)] };
  });
}

function without(sections: Section[], ids: Set<string>): Section[] {
  return sections.map((section) => {
    const inside = section.rules ?? [];
    return inside.some((rule) => ids.has(rule.id))
      ? { ...section, rules: inside.filter((rule) => !ids.has(rule.id)) }
      : section;
  });
}

function mapRules(draft: Draft, change: (rule: Rule) => Rule): Draft {
  return {
    ...draft,
    sections: sectionsOf(draft).map((section) => {
      const before = section.rules ?? [];
      const after = before.map(change);
      return after.every((rule, i) => rule === before[i]) ? section : { ...section, rules: after };
    }),
  };
}

function put<T extends { name: string }>(all: T[], next: T, replaces: string | undefined): T[] {
  return replaces === undefined
    ? [...all, next]
    : all.map((one) => (sameName(one.name, replaces) ? next : one));
}

/** The rules saying the new name of a rate plan or notice. */
function renamed(
  draft: Draft,
  what: 'ratePlan' | 'notice',
  from: string | undefined,
  to: string,
): Draft {
  if (from === undefined || from === to) return draft;
  return mapRules(draft, (rule) => {
    const said = rule[what];
    return said && sameName(said, from) ? { ...rule, [what]: to } : rule;
  });
}

/** The last check moved above the one of that name; left where it is if there is none. */
function placedAbove(checks: SavedCheck[], name: string | undefined): SavedCheck[] {
  const others = checks.slice(0, -1);
  const at = others.findIndex((check) => name && sameName(check.name, name));
  return at < 0 ? checks : [...others.slice(0, at), checks.at(-1)!, ...others.slice(at)];
}

/** The checks saying the new name of a zone, as the server writes it into their lines. */
function inChecks(before: Draft, edit: PutObject, after: Draft): Draft {
  const old = edit.replaces?.toLowerCase();
  const { name } = edit.object;
  if (old === undefined || old === name.toLowerCase()) return after;
  const names = before.zones.map((zone) => zone.name);
  const renamed = (line: string) => {
    let out = '';
    let rest = line;
    for (let at = rest.indexOf(' in '); at >= 0; at = rest.indexOf(' in ')) {
      out += rest.slice(0, at + 4);
      rest = rest.slice(at + 4);
      // The longest name of a zone that stands here.
      const zone = names
        .filter((one) => `${rest} `.toLowerCase().startsWith(`${one.toLowerCase()} `))
        .sort((a, b) => b.length - a.length)[0];
      if (zone?.toLowerCase() === old) {
        out += name;
        rest = rest.slice(zone.length);
      }
    }
    return out + rest;
  };
  const checks = after.checks.map((check) => ({
    ...check,
    connection: renamed(check.connection),
  }));
  return { ...after, checks };
}

function putObject(
  draft: Draft,
  list: (typeof OBJECT_LISTS)[ObjectKind],
  edit: PutObject,
  criteria: CriterionName[],
): Draft {
  const { object } = edit;
  const old = edit.replaces?.toLowerCase();
  const objects = draft[list];
  if (old === undefined) {
    return { ...draft, [list]: [...objects, object] };
  }
  const rename = (text: string) => (text.toLowerCase() === old ? object.name : text);
  const members = (o: NamedObject): NamedObject =>
    (list !== 'addresses' && list !== 'services') || !o.members?.some((m) => rename(m) !== m)
      ? o
      : { ...o, members: o.members.map(rename) };
  const put = {
    ...draft,
    [list]: objects.map((o) => members(o.name.toLowerCase() === old ? object : o)),
  };
  if (edit.replaces === object.name) {
    return put;
  }
  return mapRules(put, (rule) => {
    let next = rule;
    for (const name of criteria) {
      const criterion = asked(rule, name);
      const mentioned = [...(criterion?.items ?? []), ...(criterion?.except ?? [])];
      if (mentioned.some((text) => rename(text) !== text)) {
        next = asking(next, name, {
          items: criterion?.items?.map(rename),
          except: criterion?.except?.map(rename),
        });
      }
    }
    return next;
  });
}
