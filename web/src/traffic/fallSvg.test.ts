import { describe, expect, it } from 'vitest';
import type { Rule } from '../api/types';
import { fallOf } from './fall';
import { fallSvg } from './fallSvg';

const rules = Array.from(
  { length: 20 },
  (_, i) => ({ id: `r${i}`, name: `Rule <${i}>`, verdict: i % 2 ? 'drop' : 'allow' }) as Rule,
);
const counts = new Map(rules.map((rule, i) => [rule.id, 100 - i]));

describe('the fall as a picture', () => {
  const svg = fallSvg(fallOf(rules, counts.set('', 50), 40), 'Harbour & pier', 'last 24 hours');

  it('has a title, the rules that decide most in their order, and the default rule', () => {
    expect(svg).toContain('Harbour &amp; pier');
    expect(svg).toContain('1  Rule &lt;0&gt;');
    expect(svg).toContain('16  Rule &lt;15&gt;');
    expect(svg).not.toContain('17  Rule');
    expect(svg).toContain('Default rule');
    expect(svg).toContain('4 more rules decide');
  });

  it('stays inside its frame', () => {
    const ys = [...svg.matchAll(/ y="([\d.]+)"/g)].map((found) => Number(found[1]));
    expect(Math.max(...ys)).toBeLessThanOrEqual(900);
    expect(svg).not.toContain('NaN');
  });
});
