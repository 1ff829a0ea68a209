import { expect, test } from 'vitest';
import type { Draft, Finding, Rule } from '../api/types';
import { allRules } from '../draft/applyEdit';
import { FINDING_KINDS, numbersOf } from '../draft/findings';
import { causesOf, countKinds } from './causes';

const finding = (kind: Finding['kind'], severity: Finding['severity'], ...causes: string[]) => ({
  kind,
  severity,
  causes,
});
const rules = (ids: string): Rule[] => [...ids].map((id) => ({ id, name: id, verdict: 'drop' }));

const draft = {
  sections: [
    { id: 's', name: 'Web', rules: rules('abcd') },
    { id: 't', name: 'Mail', rules: rules('ef') },
  ],
  standings: {
    b: { findings: [finding('redundant-above', 'warning', 'a')] },
    c: {
      findings: [finding('shadowed', 'error', 'a'), finding('correlated', 'note', 'b')],
    },
    d: { findings: [finding('shadowed', 'error', 'b', 'c')] },
    e: { findings: [finding('mergeable', 'warning', 'f')] },
    f: { findings: [finding('empty', 'error')] },
  },
} as unknown as Draft;

const numbers = numbersOf(draft);
const byId = new Map(allRules(draft).map((rule) => [rule.id, rule]));
const all = causesOf(draft, numbers, byId, new Set(FINDING_KINDS));

test('what one rule takes is one cause, the gravest first', () => {
  expect(all.map((cause) => [cause.title, cause.subtitle, cause.section.name])).toEqual([
    ['Rule 1 stands too high', 'shadows 1 rule, makes 1 rule redundant', 'Web'],
    ['Rules 2 and 3 together take rule 4', 'shadow 1 rule', 'Web'],
    ['Rule 6: empty', '', 'Mail'],
    ['Rules 5 and 6 can be one rule', 'they differ in one criterion only', 'Mail'],
    ['Rule 2 takes a part of 1 rule', 'with another verdict', 'Web'],
  ]);
  expect(all[0]!.found.map((one) => one.rule.id)).toEqual(['b', 'c']);
  expect(all[0]!.causes.map((one) => one.id)).toEqual(['a']);
});

test('only the chosen kinds are listed', () => {
  const some = causesOf(draft, numbers, byId, new Set(['empty' as const]));
  expect(some.map((cause) => cause.title)).toEqual(['Rule 6: empty']);
});

test('kinds are counted, the gravest first', () => {
  expect(countKinds(draft)).toEqual([
    ['shadowed', 2],
    ['empty', 1],
    ['redundant-above', 1],
    ['mergeable', 1],
    ['correlated', 1],
  ]);
});
