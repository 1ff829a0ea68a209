import { useLayoutEffect, useMemo, useState } from 'react';
import type { Draft, Edit, Place, Rule } from '../api/types';
import { allRules, originsOf } from '../draft/applyEdit';
import type { DraftHandle, EditOf } from '../draft/useDraft';
import type { EditedPart, Kept, RuleActions } from './actions';
import { gravest } from '../draft/findings';
import { manyRules, type ActionBench } from './actionBench';
import { clipboardActions } from './clipboardActions';
import { movingActions } from './movingActions';
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

/** How things were when they were drawn last, which the actions ask for when they run. */
class Latest<T> {
  #value: T;

  constructor(value: T) {
    this.#value = value;
  }

  get current(): T {
    return this.#value;
  }

  set(value: T) {
    this.#value = value;
  }
}

/** The changed parts of a rule, in words. */
function saidOf(before: Rule, after: Rule): string {
  const changed = (Object.keys(after) as (keyof Rule)[]).filter(
    (key) => JSON.stringify(after[key]) !== JSON.stringify(before[key]),
  );
  return changed.map((key) => `${key} ${JSON.stringify(after[key])}`).join(', ');
}

/** The edit that changes all of some rules. */
const ofAll = (now: Draft, ids: string[], next: (rule: Rule) => Rule): Edit => ({
  kind: 'replaceRules',
  rules: allRules(now)
    .filter((rule) => ids.includes(rule.id))
    .map(next),
});

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
    addChecks(rules: string[]): void;
    createMissing: ActionBench['createMissing'];
    sideBySide(rule: string, other: string): void;
    scrollTo(id: string): void;
    focusGrid(): void;
    /** A rule that is new is shown whatever the filter says. */
    show(id: string): void;
  },
) {
  const [selection, setSelection] = useState<Selection>({ focus: null, ids: new Set() });
  const [editing, setEditing] = useState<Editing | null>(null);
  const [live] = useState(() => new Latest({ handle, order, selection, editing, hooks }));
  useLayoutEffect(() => live.set({ handle, order, selection, editing, hooks }));

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
      const refused = await send((now) => ofAll(now, ids, next));
      if (!refused) live.current.hooks.announce(`${ids.length} rules changed.`);
      return refused;
    };
    const bench: ActionBench = {
      draft,
      shown: () => live.current.order,
      send,
      selected,
      group,
      createMissing: (missing, rules, below) =>
        live.current.hooks.createMissing(missing, rules, below),
      say: (text) => live.current.hooks.announce(text),
      scrollTo: (id) => live.current.hooks.scrollTo(id),
      show: (id) => live.current.hooks.show(id),
      selectAlone: (ids) => setSelection({ focus: ids[0] ?? null, ids: new Set(ids) }),
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
            live.current.hooks.announce(`${manyRules(ids)} cloned.`);
          }
        });
      },
      toggle(id) {
        const ids = group(id);
        // From what the rule is when its turn comes, so that two quick presses are two changes.
        let enabled = false;
        void send((now) => {
          enabled = allRules(now).find((r) => r.id === id)?.enabled === false;
          return ofAll(now, ids, (r) => ({ ...r, enabled }));
        }).then((refused) => {
          if (!refused) {
            live.current.hooks.announce(`${manyRules(ids)} ${enabled ? 'enabled' : 'disabled'}.`);
          }
        });
      },
      observe(id) {
        const ids = group(id);
        let observes = false;
        void send((now) => {
          observes = !allRules(now).find((r) => r.id === id)?.observeOnly;
          return ofAll(now, ids, (r) => ({ ...r, observeOnly: observes || undefined }));
        }).then((refused) => {
          if (!refused) {
            live.current.hooks.announce(
              `${manyRules(ids)} ${observes ? 'only observing' : 'deciding'}.`,
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
            live.current.hooks.announce(`${manyRules(ids)} deleted. Ctrl+Z brings it back.`);
          }
        });
      },
      ...movingActions(bench),
      ...clipboardActions(bench),
      placeIt: (r) => live.current.hooks.placeIt(r),
      replaceChip(r) {
        const ids = new Set(group(r.id));
        live.current.hooks.replaceChip(allRules(draft()).filter((one) => ids.has(one.id)));
      },
      addChecks: (r) => live.current.hooks.addChecks(group(r.id)),
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
      probe: (line) => live.current.hooks.probe(line),
    };
  }, [live]);

  return { actions, selection, setSelection, editing, setEditing };
}

function reason(body: { detail: string; faults?: { expected: string; found: string }[] }): string {
  const fault = body.faults?.[0];
  return fault ? `Expected ${fault.expected}; found ${fault.found}.` : body.detail;
}
