import type { Draft, Edit, Section } from '../api/types';
import { originOf, sectionsOf } from '../draft/applyEdit';

/** The id by which a section's heading is dragged. */
export const SECTION_DRAG = 'move-section:';

/** The sections that can change places with one: own ones, head or tail as it is. */
function movable(draft: Draft, id: string): Section[] {
  const sections = sectionsOf(draft);
  const moved = sections.find((section) => section.id === id);
  return sections.filter(
    (section) => !originOf(draft, section) && (section.tail ?? false) === (moved?.tail ?? false),
  );
}

/** The edit that puts a section where another stands; null if that changes nothing. */
export function moveSectionTo(draft: Draft, id: string, other: string): Edit | null {
  const sections = movable(draft, id);
  const from = sections.findIndex((section) => section.id === id);
  const to = sections.findIndex((section) => section.id === other);
  if (from < 0 || to < 0 || from === to) return null;
  const before = to > from ? sections[to + 1]?.id : other;
  return { kind: 'moveSection', id, before };
}

/** The edit that moves a section by one; null at the edge. */
export function stepSection(draft: Draft, id: string, direction: 1 | -1): Edit | null {
  const sections = movable(draft, id);
  const at = sections.findIndex((section) => section.id === id);
  const other = sections[at + direction];
  return at >= 0 && other ? moveSectionTo(draft, id, other.id) : null;
}

/** The section that a rule stands in. */
export const sectionWith = (draft: Draft, rule: string): string | undefined =>
  sectionsOf(draft).find((section) => section.rules?.some((one) => one.id === rule))?.id;

/** The edit that deletes a section with its rules. */
export const deleteWithRules = (section: Section): Edit => {
  const ids = (section.rules ?? []).map((rule) => rule.id);
  const alone: Edit = { kind: 'deleteSection', id: section.id };
  return ids.length === 0 ? alone : { kind: 'batch', edits: [{ kind: 'deleteRules', ids }, alone] };
};
