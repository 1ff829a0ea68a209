import { describe, expect, it } from 'vitest';
import type { Rule, RuleHits } from '../api/types';
import { alike, fallOf as ofCounts, recorded } from './fall';

const rule = (id: string) => ({ id, name: id, verdict: 'allow' }) as Rule;
const hits = (rule: string | undefined, count: number): RuleHits => ({
  rule,
  connections: 10 * count,
  open: 0,
  observed: 0,
  differing: 0,
  packets: 0,
  bytes: 0,
  firstAt: '',
  lastAt: '',
  hours: [...Array<number>(23).fill(0), count],
});
const fallOf = (rules: Rule[], all: Map<string, RuleHits>, most: number) =>
  ofCounts(rules, recorded(all), most);
const by = (...all: RuleHits[]) => new Map(all.map((one) => [one.rule ?? '', one]));

describe('the fall', () => {
  it('thins as rules decide, down to the default rule', () => {
    const fall = fallOf(
      [rule('a'), rule('b'), rule('c')],
      by(hits('a', 50), hits('c', 30), hits(undefined, 20)),
      10,
    );
    expect(fall.total).toBe(100);
    expect(fall.steps.map((step) => [step.number, step.share, step.before])).toEqual([
      [1, 0.5, 1],
      [3, 0.3, 0.5],
      [4, 0.2, 0.2],
    ]);
    expect(fall.more).toBe(0);
  });

  it('shows the rules with most, and what is left out', () => {
    const fall = fallOf(
      [rule('a'), rule('b'), rule('c')],
      by(hits('a', 1), hits('b', 5), hits('c', 4), hits('deleted', 90)),
      2,
    );
    expect(fall.steps.map((step) => step.rule?.id)).toEqual(['b', 'c']);
    expect(fall.steps[0]?.before).toBe(0.9);
    expect(fall.more).toBe(1);
    expect(fall.gone).toBe(90);
  });

  it('is empty without hits', () => {
    expect(fallOf([rule('a')], by(), 10)).toEqual({ total: 0, steps: [], more: 0, gone: 0 });
  });

  it('weighs all kinds of connections alike', () => {
    const counts = alike({ samples: 10, decided: { a: 6, '': 4 } });
    const fall = ofCounts([rule('a')], counts, 10);
    expect(fall.steps.map((step) => [step.number, step.share])).toEqual([
      [1, 0.6],
      [2, 0.4],
    ]);
  });
});
