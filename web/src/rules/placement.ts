import type { Draft, Place, Placement } from '../api/types';
import { allRules, originOf, sectionsOf } from '../draft/applyEdit';

/** A rule that a move would pass, so that verdicts change. */
export type Blocking = Placement['blocking'][number];

/** The rules that stand between a rule's place and another, and that it cannot pass quietly. */
export function passed(placement: Placement, place: number): Blocking[] {
  const from = Math.min(place, placement.place);
  const to = Math.max(place, placement.place);
  return placement.blocking.filter((one) => one.position >= from && one.position < to);
}

/** Whether a place is proved to be quiet; nothing if the analysis limit left it open. */
export function isQuiet(placement: Placement, place: number): boolean | undefined {
  if (passed(placement, place).length > 0) return false;
  return placement.complete || place === placement.place ? true : undefined;
}

/** The highest and the lowest place where no verdict is known to change. */
export function quietPlaces(placement: Placement): { highest: number; lowest: number } {
  const above = placement.blocking.filter((one) => one.position < placement.place);
  const below = placement.blocking.filter((one) => one.position >= placement.place);
  return {
    highest: above.length ? above[above.length - 1]!.position + 1 : 0,
    lowest: below.length ? below[0]!.position : placement.places - 1,
  };
}

/** The places that a draft's own sections have, since those of common rules are locked. */
export function ownPlaces(draft: Draft, moved: string): { first: number; last: number } {
  let first = 0;
  let last = 0;
  let own = false;
  for (const section of sectionsOf(draft)) {
    const size = (section.rules ?? []).filter((rule) => rule.id !== moved).length;
    if (!originOf(draft, section)) {
      own = true;
      last += size;
    } else if (!own) {
      first += size;
      last += size;
    }
  }
  return { first, last };
}

/** The place among the other rules that an edit's place stands for. */
export function numberOf(draft: Draft, moved: string, to: Place): number {
  const others = allRules(draft).filter((rule) => rule.id !== moved);
  if (to.above) return others.findIndex((rule) => rule.id === to.above);
  if (to.below) return others.findIndex((rule) => rule.id === to.below) + 1;
  let number = 0;
  for (const section of sectionsOf(draft)) {
    if (section.id === to.startOf) return number;
    number += (section.rules ?? []).filter((rule) => rule.id !== moved).length;
    if (section.id === to.endOf) return number;
  }
  return number;
}

/**
 * The place for an edit that a number stands for; at the border of two sections in the rule's own
 * section, if it is one of them.
 */
export function placeOf(draft: Draft, moved: string, number: number): Place {
  const sections = sectionsOf(draft);
  const own = sections.find((section) => section.rules?.some((rule) => rule.id === moved));
  let before = 0;
  let found: Place | null = null;
  for (const section of sections) {
    const rules = (section.rules ?? []).filter((rule) => rule.id !== moved);
    const inside = number - before;
    before += rules.length;
    if (inside < 0 || inside > rules.length || originOf(draft, section)) continue;
    const here: Place =
      rules.length === 0
        ? { startOf: section.id }
        : inside < rules.length
          ? { above: rules[inside]!.id }
          : { below: rules[inside - 1]!.id };
    if (section === own) return here;
    found ??= here;
  }
  return found ?? { endOf: own!.id };
}
