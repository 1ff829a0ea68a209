import { describe, expect, it } from 'vitest';
import type { Draft, Section } from '../api/types';
import { applyEdit } from '../draft/applyEdit';
import { deleteWithRules, moveSectionTo, sectionWith, stepSection } from './sectionMove';

const section = (id: string, rules: string[] = [], tail?: boolean) =>
  ({ id, name: id, rules: rules.map((rule) => ({ id: rule })), tail }) as Section;
const draft = {
  sections: [section('a', ['1', '2']), section('b', ['3']), section('c'), section('t', [], true)],
} as Draft;
const after = (edit: ReturnType<typeof moveSectionTo>) =>
  edit &&
  applyEdit(draft, edit)
    .sections.map((one) => one.id)
    .join('');

describe('moving a section', () => {
  it('puts it where another stands', () => {
    expect(after(moveSectionTo(draft, 'a', 'c'))).toBe('bcat');
    expect(after(moveSectionTo(draft, 'c', 'a'))).toBe('cabt');
    expect(after(moveSectionTo(draft, 'a', 'b'))).toBe('bact');
    expect(moveSectionTo(draft, 'a', 'a')).toBeNull();
    expect(moveSectionTo(draft, 'a', 't')).toBeNull();
  });

  it('goes by one, up to the edge', () => {
    expect(after(stepSection(draft, 'b', -1))).toBe('bact');
    expect(after(stepSection(draft, 'b', 1))).toBe('acbt');
    expect(stepSection(draft, 'a', -1)).toBeNull();
    expect(stepSection(draft, 'c', 1)).toBeNull();
  });
});

describe('a section', () => {
  it('is found by its rules and deleted with them', () => {
    expect(sectionWith(draft, '3')).toBe('b');
    expect(sectionWith(draft, '9')).toBeUndefined();
    expect(applyEdit(draft, deleteWithRules(draft.sections[0]!)).sections).toHaveLength(3);
    expect(deleteWithRules(section('c'))).toEqual({ kind: 'deleteSection', id: 'c' });
  });
});
