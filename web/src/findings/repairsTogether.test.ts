import { describe, expect, it } from 'vitest';
import type { Edit, Rule } from '../api/types';
import { allTogether, rulesTouched, touchedBy } from './repairsTogether';

const remove = (...ids: string[]): Edit => ({ kind: 'deleteRules', ids });
const move = (id: string, above: string): Edit => ({
  kind: 'moveRules',
  ids: [id],
  place: { above },
});

describe('repairs at once', () => {
  it('touch the rules that they change, move or stand beside', () => {
    expect(rulesTouched(remove('a', 'b'))).toEqual(['a', 'b']);
    expect(rulesTouched(move('a', 'c'))).toEqual(['a', 'c']);
    expect(
      rulesTouched({
        kind: 'batch',
        edits: [
          { kind: 'replaceRules', rules: [{ id: 'd' } as Rule] },
          { kind: 'insertRules', rules: [{ id: 'e' } as Rule], place: { startOf: 's' } },
        ],
      }),
    ).toEqual(['d', 'e']);
  });

  it('are applied together where they do not touch each other', () => {
    const marked = new Map([
      ['one', { summary: 'Delete a', edit: remove('a') }],
      ['two', { summary: 'Move b', edit: move('b', 'c') }],
    ]);
    expect(touchedBy(remove('d'), marked, 'three')).toBeNull();
    expect(touchedBy(move('d', 'a'), marked, 'three')).toBe('Delete a');
    expect(touchedBy(remove('a'), marked, 'one')).toBeNull();
    expect(allTogether(marked)).toEqual({ kind: 'batch', edits: [remove('a'), move('b', 'c')] });
    expect(allTogether(new Map([...marked].slice(0, 1)))).toEqual(remove('a'));
  });
});
