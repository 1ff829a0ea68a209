import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { Draft, Edit, Place, Rule } from '../api/types';
import { api, Problem } from '../api/client';
import { allRules, originOf, originsOf, sectionsOf } from '../draft/applyEdit';
import type { DraftHandle, EditOf } from '../draft/useDraft';
import type { EditedPart, Kept, RuleActions } from './actions';
import { gravest } from '../draft/findings';
import { ownPlaces, passed, placeOf, quietPlaces } from './placement';
import { PARTS, withChip, withoutChip, type Chip } from '../draft/criteria';

export interface Editing {
  id: string;
  part: EditedPart;
  /** The draft's version that the person saw when starting. */
  seen: number;
}

export interface Selection {
  focus: string | null;
  ids: Set<string>;
  /** Where the last range began; its other end is the rule in focus. */
  anchor?: string;
}

const ORDER: EditedPart[] = ['name', ...PARTS];

const newId = () => crypto.randomUUID().replaceAll('-', '').slice(0, 16);

/** Where one step up or down takes a rule: over its neighbour, or into the neighbouring section. */
export function stepPlace(draft: Draft, ids: string[], direction: 1 | -1): Place | null {
  const sections = sectionsOf(draft);
  const moving = new Set(ids);
  const edge = direction < 0 ? ids[0] : ids[ids.length - 1];
  const at = sections.findIndex((s) => (s.rules ?? []).some((rule) => rule.id === edge));
  const inside = sections[at]?.rules ?? [];
  const index = inside.findIndex((rule) => rule.id === edge);
  const neighbour = inside[index + direction];
  if (neighbour && !moving.has(neighbour.id)) {
    return direction < 0 ? { above: neighbour.id } : { below: neighbour.id };
  }
  const section = sections[at + direction];
  if (!section || originOf(draft, section)) {
    return null;
  }
  return direction < 0 ? { endOf: section.id } : { startOf: section.id };
}

/** Where one step takes a rule among those that a filter shows. */
export function shownPlace(shown: string[], ids: string[], direction: 1 | -1): Place | null {
  const edge = direction < 0 ? ids[0]! : ids[ids.length - 1]!;
  const next = shown[shown.indexOf(edge) + direction];
  if (!next || ids.includes(next)) return null;
  return direction < 0 ? { above: next } : { below: next };
}

/** The changed parts of a rule, in words. */
function saidOf(before: Rule, after: Rule): string {
  const changed = (Object.keys(after) as (keyof Rule)[]).filter(
    (key) => JSON.stringify(after[key]) !== JSON.stringify(before[key]),
  );
  return changed.map((key) => `${key} ${JSON.stringify(after[key])}`).join(', ');
}

/** Everything that can be done to the rules of a draft, and what is being edited and selected. */
export function useRuleActions(
  handle: DraftHandle,
  order: string[],
  hooks: {
    probe(line: string): void;
    announce(text: string): void;
    nameLiteral(rule: Rule, chip: Chip): void;
    placeIt(rule: Rule): void;
    replaceChip(rules: Rule[]): void;
    sideBySide(rule: string, other: string): void;
    scrollTo(id: string): void;
    focusGrid(): void;
    /** A rule that is new is shown whatever the filter says. */
    show(id: string): void;
  },
) {
  const [selection, setSelection] = useState<Selection>({ focus: null, ids: new Set() });
  const [editing, setEditing] = useState<Editing | null>(null);
  const live = useRef({ handle, order, selection, editing, hooks });
  useLayoutEffect(() => {
    live.current = { handle, order, selection, editing, hooks };
  });

  const actions = useMemo<RuleActions>(() => {
    const draft = () => live.current.handle.latest();
    const rule = (id: string) => allRules(draft()).find((r) => r.id === id);
    const send = async (edit: EditOf, seen?: number): Promise<string | null> => {
      const problem = await live.current.handle.edit(edit, seen);
      if (problem && !problem.body.conflict) live.current.hooks.announce(problem.message);
      return problem ? reason(problem.body) : null;
    };
    /** Changes a rule from what it is when its turn comes, so that quick edits build on each other. */
    const change = async (of: Rule, next: (rule: Rule) => Rule, seen?: number) => {
      if (!rule(of.id)) return lost(of, next(of));
      return send(
        (now) => ({
          kind: 'replaceRules',
          rules: [next(allRules(now).find((r) => r.id === of.id) ?? of)],
        }),
        seen,
      );
    };
    /** Another person deleted the rule meanwhile: the message contains the typed text. */
    const lost = (of: Rule, wanted: Rule) => {
      const text = `"${of.name}" was deleted meanwhile. Your change was not saved: ${saidOf(of, wanted)}`;
      live.current.hooks.announce(text);
      return text;
    };
    const editingSince = () => live.current.editing?.seen;
    /** The selection in order, if `id` is part of it; else `id` alone. */
    const selected = (id: string): string[] => {
      const { ids } = live.current.selection;
      return ids.has(id) && ids.size > 1
        ? allRules(draft())
            .map((r) => r.id)
            .filter((r) => ids.has(r))
        : [id];
    };
    /** The same without common rules, which are locked. */
    const group = (id: string): string[] => {
      const origins = originsOf(draft());
      return selected(id).filter((one) => one === id || !origins.has(one));
    };
    const select = (id: string) => setSelection({ focus: id, ids: new Set([id]) });
    /** Changes a rule, or every selected one if it is selected, in one step. */
    const changeAll = async (of: Rule, next: (rule: Rule) => Rule) => {
      const ids = group(of.id);
      if (ids.length === 1) return change(of, next);
      const refused = await send((now) => ({
        kind: 'replaceRules',
        rules: allRules(now)
          .filter((r) => ids.includes(r.id))
          .map(next),
      }));
      if (!refused) live.current.hooks.announce(`${ids.length} rules changed.`);
      return refused;
    };
    const many = (ids: string[]) => (ids.length > 1 ? `${ids.length} rules` : 'Rule');

    const place = async (ids: string[], to: Place) => {
      const before = allRules(draft()).findIndex((r) => r.id === ids[0]) + 1;
      const refused = await send({ kind: 'moveRules', ids, place: to });
      if (!refused) {
        const number = allRules(draft()).findIndex((r) => r.id === ids[0]) + 1;
        const hidden = Math.abs(number - before) - 1;
        const past = hidden > 0 ? ` past ${hidden + 1} rules` : '';
        live.current.hooks.announce(`${many(ids)} moved to ${number}${past}.`);
        live.current.hooks.scrollTo(ids[0]!);
      }
    };
    const insertAt = async (to: Place) => {
      const fresh: Rule = {
        id: newId(),
        name: 'New rule',
        verdict: 'drop',
        enabled: true,
        unfinished: true,
      };
      const edit: Edit = { kind: 'insertRules', rules: [fresh], place: to };
      // Shown at once, so that what is typed next is its name; edits go one after the other.
      const seen = draft().version;
      live.current.hooks.show(fresh.id);
      live.current.handle.preview(edit);
      select(fresh.id);
      live.current.hooks.scrollTo(fresh.id);
      setEditing({ id: fresh.id, part: 'name', seen });
      const refused = await send(edit);
      if (refused) {
        setEditing(null);
        live.current.handle.refresh();
        live.current.hooks.focusGrid();
      }
    };

    return {
      focus(id, how = 'alone') {
        const { order: shown, selection: now } = live.current;
        if (how === 'alone') {
          select(id);
        } else if (how === 'toggle') {
          const ids = new Set(now.ids);
          if (!ids.delete(id)) ids.add(id);
          setSelection({ focus: id, ids });
        } else {
          const anchor = now.anchor ?? now.focus ?? id;
          const from = shown.indexOf(anchor);
          const to = shown.indexOf(id);
          const ids = new Set(shown.slice(Math.min(from, to), Math.max(from, to) + 1));
          setSelection({ focus: id, ids, anchor });
        }
      },
      startEdit: (id, part) => setEditing({ id, part, seen: draft().version }),
      endEdit(go) {
        const now = live.current.editing;
        const next = now && go ? ORDER[ORDER.indexOf(now.part) + go] : undefined;
        if (now && next) {
          setEditing({ id: now.id, part: next, seen: draft().version });
        } else {
          setEditing(null);
          live.current.hooks.focusGrid();
        }
      },
      rename: (r, name) => change(r, (now) => ({ ...now, name }), editingSince()),
      addChip: (r, chip) => {
        return withChip(r, chip) === r
          ? Promise.resolve(null)
          : change(r, (now) => withChip(now, chip), editingSince());
      },
      removeChip: (r, chip) => change(r, (now) => withoutChip(now, chip), editingSince()),
      nameLiteral: (r, chip) => live.current.hooks.nameLiteral(r, chip),
      setVerdict: (r, verdict) => void changeAll(r, (now) => ({ ...now, verdict })),
      setLogging: (r, log) => void changeAll(r, (now) => ({ ...now, log })),
      setOpening: (r, opening) => void changeAll(r, (now) => ({ ...now, opening })),
      setRatePlan: (r, name) =>
        void changeAll(r, (now) => ({ ...now, ratePlan: name || undefined })),
      setNotice: (r, name) => void changeAll(r, (now) => ({ ...now, notice: name || undefined })),
      setHold: (r, minutes) => void changeAll(r, (now) => ({ ...now, hold: minutes || undefined })),
      setKept(r, kept) {
        const differs = (key: keyof Kept) => JSON.stringify(kept[key]) !== JSON.stringify(r[key]);
        const changed = (Object.keys(kept) as (keyof Kept)[]).filter(differs);
        const only = Object.fromEntries(changed.map((key) => [key, kept[key]])) as Kept;
        return changeAll(r, (now) => ({ ...now, ...only }));
      },
      forAny: (r) => void change(r, (now) => ({ ...now, unfinished: undefined })),
      setNote: (r, note) => change(r, (now) => ({ ...now, note })),
      insert: (where, id) => void insertAt({ [where]: id }),
      insertInto: (sectionId) => void insertAt({ endOf: sectionId }),
      clone(id) {
        const ids = group(id);
        const copies = ids.map((one) => ({ ...rule(one)!, id: newId() }));
        const below = ids[ids.length - 1]!;
        void send({ kind: 'insertRules', rules: copies, place: { below } }).then((refused) => {
          if (!refused) {
            setSelection({ focus: copies[0]!.id, ids: new Set(copies.map((r) => r.id)) });
            live.current.hooks.scrollTo(copies[0]!.id);
            live.current.hooks.announce(`${many(ids)} cloned.`);
          }
        });
      },
      toggle(id) {
        const rules = group(id).map((one) => rule(one)!);
        const enabled = rule(id)?.enabled === false;
        void send({
          kind: 'replaceRules',
          rules: rules.map((r) => ({ ...r, enabled })),
        }).then((refused) => {
          if (!refused) {
            live.current.hooks.announce(
              `${many(rules.map((r) => r.id))} ${enabled ? 'enabled' : 'disabled'}.`,
            );
          }
        });
      },
      observe(id) {
        const rules = group(id).map((one) => rule(one)!);
        const observes = !rule(id)?.observeOnly;
        void send({
          kind: 'replaceRules',
          rules: rules.map((r) => ({ ...r, observeOnly: observes || undefined })),
        }).then((refused) => {
          if (!refused) {
            live.current.hooks.announce(
              `${many(rules.map((r) => r.id))} ${observes ? 'only observing' : 'deciding'}.`,
            );
          }
        });
      },
      remove(id) {
        const ids = group(id);
        const shown = live.current.order;
        const next = shown
          .slice(shown.indexOf(ids[ids.length - 1]!) + 1)
          .find((r) => !ids.includes(r));
        const before = shown.slice(0, shown.indexOf(ids[0]!)).pop();
        void send({ kind: 'deleteRules', ids }).then((refused) => {
          if (!refused) {
            const now = next ?? before;
            setSelection({ focus: now ?? null, ids: new Set(now ? [now] : []) });
            live.current.hooks.focusGrid();
            live.current.hooks.announce(`${many(ids)} deleted. Ctrl+Z brings it back.`);
          }
        });
      },
      step(id, direction) {
        const ids = group(id);
        const { order: shown } = live.current;
        const to =
          shown.length < allRules(draft()).length
            ? shownPlace(shown, ids, direction)
            : stepPlace(draft(), ids, direction);
        if (to) void place(ids, to);
      },
      moveTo: (id, to) => void place(group(id), to),
      moveToEdge(id, edge) {
        const sections = sectionsOf(draft()).filter((one) => !originOf(draft(), one));
        const section = edge === 'top' ? sections[0] : sections[sections.length - 1];
        if (section) {
          void place(group(id), edge === 'top' ? { startOf: section.id } : { endOf: section.id });
        }
      },
      moveQuietly(id, direction) {
        const say = (text: string) => live.current.hooks.announce(text);
        void api
          .placement(draft().id, id)
          .then(async (found) => {
            const now = draft();
            if (found.version !== now.version || !rule(id)) return;
            const { first, last } = ownPlaces(now, id);
            const { highest, lowest } = quietPlaces(found);
            const to =
              direction < 0 ? Math.max(first, highest) : Math.min(last, Math.max(first, lowest));
            if (to !== found.place) {
              await place([id], placeOf(now, id, to));
              return;
            }
            const next = passed(found, found.place + direction).at(-1);
            const blocked = allRules(now).findIndex((r) => r.id === next?.rule) + 1;
            say(
              next
                ? `It cannot pass rule ${blocked} quietly: the verdict of ${next.witness} would change.`
                : 'There is no place beyond.',
            );
          })
          .catch((e: Error) => say(e.message));
      },
      placeIt: (r) => live.current.hooks.placeIt(r),
      replaceChip(r) {
        const ids = new Set(group(r.id));
        live.current.hooks.replaceChip(allRules(draft()).filter((one) => ids.has(one.id)));
      },
      sideBySide(r) {
        const ids = selected(r.id);
        const { hooks } = live.current;
        if (ids.length === 2) {
          hooks.sideBySide(ids[0]!, ids[1]!);
          return;
        }
        // A rule alone is compared with the first that takes from it.
        const finding = draft().standings[r.id]?.findings.find((one) => one.causes.length > 0);
        if (finding) hooks.sideBySide(finding.causes[0]!, r.id);
        else hooks.announce('Select two rules first: Shift and an arrow key, or Ctrl and a click.');
      },
      goToFinding(id, direction) {
        const { order: shown, handle: now, hooks } = live.current;
        const standings = now.draft?.standings ?? {};
        const at = shown.indexOf(id);
        const ahead =
          direction > 0
            ? [...shown.slice(at + 1), ...shown.slice(0, at)]
            : [...shown.slice(0, Math.max(0, at)).reverse(), ...shown.slice(at + 1).reverse()];
        const next = ahead.find((one) => gravest(standings[one]));
        if (!next) {
          hooks.announce('No rule that is shown has a finding.');
          return;
        }
        select(next);
        hooks.scrollTo(next);
      },
      selectAll() {
        const { order: shown, selection: now } = live.current;
        setSelection({ focus: now.focus ?? shown[0] ?? null, ids: new Set(shown) });
        live.current.hooks.announce(`${shown.length} rules selected.`);
      },
      copy(id) {
        const ids = selected(id);
        const say = (text: string) => live.current.hooks.announce(text);
        if (!navigator.clipboard) {
          say('The browser lets pages copy over HTTPS and on this machine only.');
          return;
        }
        void api
          .rulesText(draft().id, ids)
          .then((text) => navigator.clipboard.writeText(text))
          .then(() => say(`${many(ids)} copied as text.`))
          .catch((e: Error) => say(e.message));
      },
      paste(id, text) {
        const say = (said: string) => live.current.hooks.announce(said);
        void api
          .readRules(draft().id, text)
          .then(async ({ rules }) => {
            const refused = await send({ kind: 'insertRules', rules, place: { below: id } });
            if (refused) return;
            rules.forEach((rule) => live.current.hooks.show(rule.id));
            setSelection({ focus: rules[0]!.id, ids: new Set(rules.map((rule) => rule.id)) });
            live.current.hooks.scrollTo(rules[0]!.id);
            say(`${many(rules.map((rule) => rule.id))} pasted.`);
          })
          .catch((e: Error) => {
            const fault = e instanceof Problem ? e.body.faults?.[0] : undefined;
            say(
              fault
                ? `Not pasted: ${fault.path}: expected ${fault.expected}, found ${fault.found}.`
                : e.message,
            );
          });
      },
      probe: (line) => live.current.hooks.probe(line),
    };
  }, []);

  return { actions, selection, setSelection, editing, setEditing };
}

function reason(body: { detail: string; faults?: { expected: string; found: string }[] }): string {
  const fault = body.faults?.[0];
  return fault ? `Expected ${fault.expected}; found ${fault.found}.` : body.detail;
}
