import { expect, test } from 'vitest';
import type { RulebaseSummary } from '../api/types';
import { treeOf } from './tree';

const one = (
  id: number,
  name: string,
  kind: RulebaseSummary['kind'],
  common?: string,
): RulebaseSummary => ({ id, name, kind, common, revision: 1 });

test('common rulebases stand before those below them', () => {
  const tree = treeOf([
    one(1, 'Pier', 'traffic', 'Sites'),
    one(2, 'Office', 'traffic'),
    one(3, 'Sites', 'common', 'All'),
    one(4, 'All', 'common'),
    one(5, 'Ship', 'traffic', 'Gone'),
  ]);
  expect(tree.map(({ rulebase, depth }) => `${depth} ${rulebase.name}`)).toEqual([
    '0 Office',
    '0 All',
    '1 Sites',
    '2 Pier',
    '0 Ship',
  ]);
});
