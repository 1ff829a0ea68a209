import type { Edit, Place } from '../api/types';

const anchorOf = (place: Place): string[] =>
  'above' in place && place.above
    ? [place.above]
    : 'below' in place && place.below
      ? [place.below]
      : [];

/** The ids of the rules that an edit changes, moves or stands beside. */
export function rulesTouched(edit: Edit): string[] {
  switch (edit.kind) {
    case 'insertRules':
      return [...edit.rules.map((rule) => rule.id), ...anchorOf(edit.place)];
    case 'replaceRules':
      return edit.rules.map((rule) => rule.id);
    case 'deleteRules':
      return edit.ids;
    case 'moveRules':
      return [...edit.ids, ...anchorOf(edit.place)];
    case 'batch':
      return edit.edits.flatMap(rulesTouched);
    default:
      return [];
  }
}

/** A repair that is marked to be applied with others, by the key of its cause. */
export type MarkedRepairs = ReadonlyMap<string, { summary: string; edit: Edit }>;

/** The marked repair that one touches; none may be applied with it. */
export function touchedBy(edit: Edit, marked: MarkedRepairs, except: string): string | null {
  const own = new Set(rulesTouched(edit));
  for (const [key, other] of marked) {
    if (key !== except && rulesTouched(other.edit).some((id) => own.has(id))) return other.summary;
  }
  return null;
}

/** The edit that applies all marked repairs in one step. */
export const allTogether = (marked: MarkedRepairs): Edit => {
  const edits = [...marked.values()].map((one) => one.edit);
  return edits.length === 1 ? edits[0]! : { kind: 'batch', edits };
};
