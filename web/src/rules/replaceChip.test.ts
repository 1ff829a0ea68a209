import { expect, test } from 'vitest';
import type { Rule } from '../api/types';
import { added, replaced, usedChips } from './replaceChip';

const rule = (id: string, items: string[], except?: string[]): Rule => ({
  id,
  name: id,
  verdict: 'allow',
  fromAddresses: { items, except },
});

const RULES = [rule('a', ['Kiosks', 'Quay']), rule('b', ['kiosks'], ['Pier']), rule('c', ['Pier'])];
const KIOSKS = { criterion: 'fromAddresses' as const, text: 'Kiosks', except: false };

test('chips are listed with the number of their rules', () => {
  expect(usedChips(RULES).map((chip) => [chip.text, chip.except, chip.rules])).toEqual([
    ['Kiosks', false, 2],
    ['Pier', true, 1],
    ['Pier', false, 1],
    ['Quay', false, 1],
  ]);
});

test('a chip is replaced in its place, and only where it is', () => {
  expect(replaced(RULES, KIOSKS, 'Ticket desks')).toEqual([
    rule('a', ['Ticket desks', 'Quay']),
    rule('b', ['Ticket desks'], ['Pier']),
  ]);
});

test('a chip that is there already is not there twice', () => {
  expect(replaced([RULES[0]!], KIOSKS, 'quay')).toEqual([rule('a', ['quay'])]);
});

test('without its last chip a rule is unfinished', () => {
  const [first, second] = replaced([RULES[0]!, rule('d', ['Kiosks'])], KIOSKS, null);
  expect(first).toEqual({ ...RULES[0], fromAddresses: { items: ['Quay'], except: undefined } });
  expect(second!.unfinished).toBe(true);
});

test('a chip is added where it is not', () => {
  expect(added(RULES, KIOSKS).map((one) => one.id)).toEqual(['c']);
});
