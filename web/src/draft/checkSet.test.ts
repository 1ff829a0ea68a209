import { describe, expect, it } from 'vitest';
import type { Edit, SavedCheck } from '../api/types';
import { isSet, mayRename, questionOf, setOf } from './checkSet';

const check = (connection: string): SavedCheck => ({ name: 'a', connection, verdict: 'drop' });
const put = (replaces?: string): Edit => ({
  kind: 'putAddress',
  object: { name: 'Kiosks', members: [] },
  replaces,
});

describe('a check about a set of connections', () => {
  it('begins with a word', () => {
    expect(isSet(check('all from in quay'))).toBe(true);
    expect(isSet(check('all'))).toBe(true);
    expect(isSet(check('allied tcp/443'))).toBe(false);
    expect(questionOf(check('all from in quay'))).toBe('from in quay');
    expect(setOf('from in quay')).toBe('all from in quay');
    expect(setOf('')).toBe('all');
  });

  it('may name what an edit renames', () => {
    expect(mayRename(put('Desks'))).toBe(true);
    expect(mayRename(put('Kiosks'))).toBe(false);
    expect(mayRename(put())).toBe(false);
    expect(mayRename({ kind: 'batch', edits: [put(), put('Desks')] })).toBe(true);
    expect(mayRename({ kind: 'deleteRules', ids: ['a'] })).toBe(false);
  });
});
