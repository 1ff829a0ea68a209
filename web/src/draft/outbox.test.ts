import { expect, test } from 'vitest';
import type { Edit } from '../api/types';
import { Outbox } from './outbox';

function memory(): Storage {
  const kept = new Map<string, string>();
  return {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => void kept.set(name, value),
    removeItem: (name: string) => void kept.delete(name),
    get length() {
      return kept.size;
    },
  } as unknown as Storage;
}

const edit = (name: string): Edit => ({ kind: 'deleteCheck', name });

test('edits wait in their order until they are dropped, for each person and draft', () => {
  const store = memory();
  const outbox = new Outbox(store, 'ruth.okell', 1);
  outbox.put({ key: 'a', version: 1, edit: edit('A') });
  outbox.put({ key: 'b', version: 1, edit: edit('B') });
  outbox.put({ key: 'a', version: 2, edit: edit('A2') });
  expect(new Outbox(store, 'ruth.okell', 1).all()).toEqual([
    { key: 'a', version: 2, edit: edit('A2') },
    { key: 'b', version: 1, edit: edit('B') },
  ]);
  expect(new Outbox(store, 'ruth.okell', 2).all()).toEqual([]);
  expect(new Outbox(store, 'tomas.wren', 1).all()).toEqual([]);
  outbox.drop('a');
  outbox.drop('gone');
  expect(outbox.all().map((one) => one.key)).toEqual(['b']);
  outbox.drop('b');
  expect(store.length).toBe(0);
});

test('a browser that keeps nothing, or something else, is no fault', () => {
  const broken = {
    getItem: () => '{"not": "a list"}',
    setItem: () => {
      throw new Error('full');
    },
    removeItem: () => {
      throw new Error('no');
    },
  };
  const outbox = new Outbox(broken, 'ruth.okell', 1);
  outbox.put({ key: 'a', version: 1, edit: edit('A') });
  outbox.drop('a');
  expect(outbox.all()).toEqual([]);
});
