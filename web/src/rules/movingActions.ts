import { api } from '../api/client';
import type { Draft, Place } from '../api/types';
import { allRules, originOf, sectionsOf } from '../draft/applyEdit';
import { manyRules, type ActionBench } from './actionBench';
import type { RuleActions } from './actions';
import { sectionWith, stepSection } from './sectionMove';
import { ownPlaces, passed, placeOf, quietPlaces } from './placement';

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

/** The actions that move rules. */
export function movingActions(
  bench: ActionBench,
): Pick<RuleActions, 'step' | 'stepSection' | 'moveTo' | 'moveToEdge' | 'moveQuietly'> {
  const place = async (ids: string[], to: Place) => {
    const before = allRules(bench.draft()).findIndex((r) => r.id === ids[0]) + 1;
    const refused = await bench.send({ kind: 'moveRules', ids, place: to });
    if (!refused) {
      const number = allRules(bench.draft()).findIndex((r) => r.id === ids[0]) + 1;
      const hidden = Math.abs(number - before) - 1;
      const past = hidden > 0 ? ` past ${hidden + 1} rules` : '';
      bench.say(`${manyRules(ids)} moved to ${number}${past}.`);
      bench.scrollTo(ids[0]!);
    }
  };
  /** A step begins where the one before it ended, however quickly the key was pressed again. */
  let steps: Promise<unknown> = Promise.resolve();
  const inTurn = (step: () => Promise<unknown>) => {
    steps = steps.then(step, step);
  };
  return {
    stepSection(id, direction) {
      inTurn(async () => {
        const section = sectionWith(bench.draft(), id);
        const edit = section ? stepSection(bench.draft(), section, direction) : null;
        if (!edit) {
          bench.say(`The section cannot go further ${direction < 0 ? 'up' : 'down'}.`);
          return;
        }
        if (await bench.send(edit)) return;
        bench.say('Section moved.');
        bench.scrollTo(id);
      });
    },
    step(id, direction) {
      const ids = bench.group(id);
      const visible = new Set(bench.shown());
      inTurn(async () => {
        const all = allRules(bench.draft()).map((rule) => rule.id);
        const shown = all.filter((one) => visible.has(one)); // in the order of now
        const to =
          shown.length < all.length
            ? shownPlace(shown, ids, direction)
            : stepPlace(bench.draft(), ids, direction);
        if (to) await place(ids, to);
      });
    },
    moveTo: (id, to) => void place(bench.group(id), to),
    moveToEdge(id, edge) {
      const sections = sectionsOf(bench.draft()).filter((one) => !originOf(bench.draft(), one));
      const section = edge === 'top' ? sections[0] : sections[sections.length - 1];
      if (section) {
        void place(
          bench.group(id),
          edge === 'top' ? { startOf: section.id } : { endOf: section.id },
        );
      }
    },
    moveQuietly(id, direction) {
      void api
        .placement(bench.draft().id, id)
        .then(async (found) => {
          const now = bench.draft();
          if (found.version !== now.version || !allRules(now).some((one) => one.id === id)) return;
          if (!found.complete) {
            bench.say('Analysis limit reached: how far it can move quietly is not settled.');
            return;
          }
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
          bench.say(
            next
              ? `It cannot pass rule ${blocked} quietly: the verdict of ${next.witness} would change.`
              : 'There is no place beyond.',
          );
        })
        .catch((e: Error) => bench.say(e.message));
    },
  };
}
