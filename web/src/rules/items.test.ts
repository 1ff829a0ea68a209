import { expect, test } from 'vitest';
import type { Draft, Rule } from '../api/types';
import { itemsOf, type Item } from './items';

const rule = (id: string, name = id): Rule => ({ id, name, verdict: 'allow' });

const draft = {
  kind: 'traffic',
  standings: {},
  sections: [
    { id: 'h', name: 'Head', rules: [rule('first')] },
    { id: 's', name: 'Own', rules: [rule('web', 'Web for all'), rule('mail')] },
    { id: 't', name: 'Tail', rules: [rule('last')], tail: true },
  ],
  common: { rulebase: 'All', revision: 1, sections: { h: 'All', t: 'All' }, objects: {} },
} as unknown as Draft;

const NONE = new Set<string>();
const says = (item: Item) =>
  item.type === 'rule'
    ? `${item.number} ${item.rule.id}${item.origin ? ' locked' : ''}`
    : item.type === 'section'
      ? `# ${item.section.name}${item.origin ? ' locked' : ''}`
      : item.type;

test('the whole order is listed, and says where rules are from', () => {
  expect(itemsOf(draft, null, NONE, NONE).items.map(says)).toEqual([
    '# Head locked',
    '1 first locked',
    '# Own',
    '2 web',
    '3 mail',
    '# Tail locked',
    '4 last locked',
    'default',
  ]);
});

test('a common rulebase shows where the rules below stand', () => {
  const common = { ...draft, kind: 'common', common: undefined } as unknown as Draft;
  const kinds = itemsOf(common, null, new Set(['h', 's', 't']), NONE).items.map(says);
  expect(kinds).toEqual(['# Head', '# Own', 'below', '# Tail', 'default']);
  const heads = { ...common, sections: common.sections.slice(0, 1) };
  expect(itemsOf(heads, null, NONE, NONE).items.map(says).slice(-2)).toEqual(['below', 'default']);
});

test('a filter keeps numbers, and new rules stay', () => {
  const { items, order } = itemsOf(
    draft,
    (one) => one.id === 'web',
    new Set(['s']),
    new Set(['last']),
  );
  expect(items.map(says)).toEqual(['# Own', '2 web', '# Tail locked', '4 last locked', 'default']);
  expect(order).toEqual(['web', 'last']);
});
