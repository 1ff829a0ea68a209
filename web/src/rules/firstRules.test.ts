import { describe, expect, it } from 'vitest';
import type { Draft } from '../api/types';
import { allRules, applyEdit } from '../draft/applyEdit';
import { firstRules, offeredRules, takeRule } from './firstRules';

const empty = {
  kind: 'traffic',
  editions: { application: '2026-11', person: '2026-11-20' },
  zones: [],
  addresses: [],
  services: [],
  checks: [],
  sections: [{ id: 'first', name: 'Rules', rules: [] }],
} as unknown as Draft;
const names = (draft: Draft) => offeredRules(draft).map((one) => one.id);

describe('the first rules of an empty rulebase', () => {
  it('are offered until somebody writes another rule', () => {
    expect(names(empty)).toHaveLength(6);
    const taken = applyEdit(empty, takeRule(empty, firstRules(empty)[0]!));
    expect(names(taken)).not.toContain('first-observe');
    expect(names(taken)).toHaveLength(5);
    const other = { ...empty, sections: [{ id: 's', name: 's', rules: [{ id: 'x' }] }] } as Draft;
    expect(names(other)).toEqual([]);
    expect(names({ ...empty, kind: 'common' } as Draft)).toEqual([]);
  });

  it('stand in their order, however they are taken, with what they name', () => {
    let draft = empty;
    for (const at of [5, 0, 2, 4])
      draft = applyEdit(draft, takeRule(draft, firstRules(draft)[at]!));
    expect(allRules(draft).map((rule) => rule.id)).toEqual([
      'first-observe',
      'first-guests',
      'first-people',
      'first-rest',
    ]);
    expect(draft.zones.map((zone) => zone.name)).toEqual(['guests']);
    expect(draft.addresses.map((one) => one.name)).toEqual(['Inside networks']);
  });

  it('say what they need, and do without a directory', () => {
    const bare = { ...empty, editions: {} } as Draft;
    const offers = firstRules(bare);
    expect(offers.filter((one) => one.needs).map((one) => one.id)).toEqual([
      'first-refuse',
      'first-sealed',
    ]);
    expect(offers[4]!.rule.terms).toBeUndefined();
  });
});
