import { expect, test } from 'vitest';
import type { BelowDocument, CommonEffect, Standing } from '../api/types';
import { gatewaysOf, nothingWords, ruleBelow } from './effects';

const below: BelowDocument[] = [
  { id: 1, name: 'Pier', kind: 'traffic', gateways: ['north', 'east'] },
  { id: 2, name: 'Ships', kind: 'traffic', gateways: ['hub'] },
  { id: 3, name: 'Depot', kind: 'traffic', gateways: [] },
];

const standing = (kind: Standing['kind']): Standing => ({
  kind,
  share: 0,
  uncertainty: 0,
  findings: [],
});

const effect = (kind: Standing['kind']): CommonEffect => ({
  version: 1,
  standings: { a: standing(kind) },
});

test('a rule is summed up over the rulebases that have answered', () => {
  const effects = new Map([
    [1, effect('decides')],
    [2, effect('covered')],
  ]);
  const sum = ruleBelow('a', below, effects);
  expect(sum.nothing.map((one) => one.name)).toEqual(['Ships']);
  expect(nothingWords(sum)).toBe('decides nothing in 1 of 2');
  effects.set(3, { version: 1, problem: 'names clash', standings: {} });
  expect(ruleBelow('a', below, effects).known).toBe(2);
});

test('a rule that decides everywhere needs no words', () => {
  expect(nothingWords(ruleBelow('a', below, new Map([[1, effect('decides')]])))).toBeNull();
});

test('gateways are listed by name', () => {
  expect(gatewaysOf(below)).toEqual(['east', 'hub', 'north']);
});
