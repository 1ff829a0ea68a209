import { expect, test } from 'vitest';
import type { Change } from '../api/types';
import { nextUndone } from './undoable';

const history = (kinds: string): Change[] =>
  [...kinds]
    .map((letter, i) => ({
      version: i + 1,
      kind: { e: 'edit', u: 'undo', r: 'redo', o: 'edit' }[letter],
      account: letter === 'o' ? 'tomas.wren' : 'ruth.okell',
    }))
    .reverse() as Change[];

test.each([
  ['ee', 2],
  ['eeu', 1],
  ['eeuu', undefined],
  ['eeuur', 1],
  ['eeuurr', 2],
  ['eeue', 4],
  ['eeueu', 1],
  ['eo', 1],
  ['', undefined],
])('after %s the next undo takes back %s', (kinds, version) => {
  expect(nextUndone(history(kinds), 'ruth.okell')?.version).toBe(version);
});
