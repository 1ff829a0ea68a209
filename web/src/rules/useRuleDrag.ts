import {
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
  type DragStartEvent,
} from '@dnd-kit/core';
import { useState } from 'react';
import type { Draft } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import type { RuleActions } from './actions';
import { moveSectionTo, SECTION_DRAG, sectionWith } from './sectionMove';

/** The id by which a section's heading takes what is dropped on it. */
export const SECTION_DROP = 'section:';

/** The section that something of the list belongs to, by the id that it is dragged over. */
function sectionAt(draft: Draft, id: string): string | undefined {
  return id.startsWith(SECTION_DROP) ? id.slice(SECTION_DROP.length) : sectionWith(draft, id);
}

/** Dragging of rules and of whole sections. */
export function useRuleDrag(
  handle: DraftHandle,
  selected: Set<string>,
  actions: RuleActions,
  say: (text: string) => void,
  onStart: (id: string) => void,
) {
  const [dragged, setDragged] = useState<string | null>(null);
  const [over, setOver] = useState<{ id: string; side: 'above' | 'below' } | null>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const end = () => {
    setDragged(null);
    setOver(null);
  };
  const dropSection = (id: string, target: string) => {
    const to = sectionAt(handle.draft!, target);
    const edit = to ? moveSectionTo(handle.draft!, id, to) : null;
    if (!edit) return;
    void handle.edit(edit).then((problem) => say(problem ? problem.message : 'Section moved.'));
  };
  const section = dragged?.startsWith(SECTION_DRAG) ? dragged.slice(SECTION_DRAG.length) : null;
  return {
    sensors,
    /** Id of the rule that is dragged. */
    rule: section === null ? dragged : null,
    /** Id of the section that is dragged. */
    section,
    /** What is dragged over: a rule, or the heading of a section. */
    over: over && section !== null ? overSection(handle.draft!, section, over.id) : over,
    onDragStart(e: DragStartEvent) {
      const id = String(e.active.id);
      setDragged(id);
      if (!id.startsWith(SECTION_DRAG)) onStart(id);
    },
    onDragMove(e: DragMoveEvent) {
      if (!e.over || e.over.id === e.active.id) {
        setOver(null);
        return;
      }
      const start = (e.activatorEvent as PointerEvent).clientY + e.delta.y;
      const middle = e.over.rect.top + e.over.rect.height / 2;
      setOver({ id: String(e.over.id), side: start < middle ? 'above' : 'below' });
    },
    onDragEnd(e: DragEndEvent) {
      const target = over;
      const id = String(e.active.id);
      end();
      if (!target) return;
      if (id.startsWith(SECTION_DRAG)) {
        dropSection(id.slice(SECTION_DRAG.length), target.id);
      } else if (target.id.startsWith(SECTION_DROP)) {
        actions.moveTo(id, { startOf: target.id.slice(SECTION_DROP.length) });
      } else if (!selected.has(target.id) || selected.size === 1) {
        actions.moveTo(id, { [target.side]: target.id });
      }
    },
    onDragCancel: end,
  };
}

/** The heading that a dragged section would take the place of; null if it cannot go there. */
function overSection(draft: Draft, section: string, id: string) {
  const to = sectionAt(draft, id);
  return to && moveSectionTo(draft, section, to)
    ? { id: `${SECTION_DROP}${to}`, side: 'above' as const }
    : null;
}
