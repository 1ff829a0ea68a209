import { describe, expect, it } from 'vitest';
import type { Rule } from '../api/types';
import { asksForNothing, searchText, withChip, withoutChip } from '../draft/criteria';
import { keptOf, withField } from './kept';
import { shownPlace } from './movingActions';

const rule: Rule = { id: 'r', name: 'R', verdict: 'drop', tags: ['kiosk'], end: '2026-12-24' };

describe('what people keep about a rule', () => {
  it('is text in fields, and goes back as it came', () => {
    expect(keptOf(rule).tags).toBe('kiosk');
    expect(withField(rule, 'tags', ' kiosk , pier,, ').tags).toEqual(['kiosk', 'pier']);
    expect(withField(rule, 'tags', '').tags).toBeUndefined();
    expect(withField(rule, 'owner', ' Ruth ')).toMatchObject({ owner: 'Ruth', end: '2026-12-24' });
    expect(withField(rule, 'end', '').end).toBeUndefined();
  });

  it('is found by the filter', () => {
    expect(searchText({ ...rule, owner: 'Ruth Okell', ticket: 'NET-12' })).toContain('ruth okell');
    expect(searchText(rule)).toContain('kiosk');
    expect(searchText({ ...rule, unfinished: true })).toContain('unfinished');
  });
});

describe('an unfinished rule', () => {
  const chip = { criterion: 'services', text: 'tcp/443', except: false } as const;

  it('is finished by its first chip, and unfinished again without its last', () => {
    const asks = withChip({ ...rule, unfinished: true }, chip);
    expect(asks.unfinished).toBeUndefined();
    const left = withoutChip(asks, chip);
    expect(asksForNothing(left)).toBe(true);
    expect(left.unfinished).toBe(true);
  });
});

describe('a step among the rules that a filter shows', () => {
  it('goes past the next shown rule', () => {
    expect(shownPlace(['a', 'd', 'g'], ['d'], -1)).toEqual({ above: 'a' });
    expect(shownPlace(['a', 'd', 'g'], ['d'], 1)).toEqual({ below: 'g' });
    expect(shownPlace(['a', 'd'], ['a'], -1)).toBeNull();
  });
});
