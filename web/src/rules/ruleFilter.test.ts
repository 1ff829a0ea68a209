import { describe, expect, test } from 'vitest';
import type { Rule, RuleHits, Standing } from '../api/types';
import { askedOf, fits, parseFilter, sameText, type FilterContext } from './ruleFilter';

const rule = (change: Partial<Rule>): Rule => ({
  id: 'r',
  name: 'Kiosk update service',
  verdict: 'drop',
  ...change,
});

const NOW = new Date('2026-12-01T12:00:00Z');
const context: FilterContext = {
  standings: {
    r: { kind: 'decides', findings: [{ kind: 'redundant-above', severity: 'warning' }] },
  } as unknown as Record<string, Standing>,
  hits: new Map([['r', { connections: 12, lastAt: '2026-11-20T00:00:00Z' } as RuleHits]]),
  now: NOW,
  asked: new Map([['touches 10.4.2.9', new Set(['r'])]]),
  revisions: new Map([[3, new Map([['r', sameText(rule({}))]])]]),
};

const holds = (text: string, of: Rule = rule({}), number = 41) =>
  fits(parseFilter(text), of, number, context);

describe('a filter', () => {
  test.each([
    ['kiosk UPDATE', true],
    ['kiosk mail', false],
    ['"update service"', true],
    ['redundant', true],
    ['41', true],
    ['4', false],
    ['verdict drop', true],
    ['verdict allow', false],
    ['not verdict allow', true],
    ['finding redundant', true],
    ['finding warning', true],
    ['finding shadowed', false],
    ['touches 10.4.2.9', true],
    ['not touches 10.4.2.9', false],
    ['touches 10.9.9.9', true], // waited for
    ['not touches 10.9.9.9', true],
    ['log off', true],
    ['plan none', true],
    ['hits 0', false],
    ['hits 0 since 5d', true],
    ['hits 10 since 30d', true],
    ['hits 13', false],
    ['changed since rev 3', false],
    ['not changed since rev 3', true],
    ['disabled', false],
    ['not disabled', true],
    ['verdict', true], // still being typed
    ['verdict al', true],
    ['kiosk not', true],
  ])('%s', (text, expected) => {
    expect(parseFilter(text).fault).toBeNull();
    expect(holds(text)).toBe(expected);
  });

  test('looks at what a rule has', () => {
    const full = rule({
      tags: ['Kiosk'],
      owner: 'Maya Lind',
      ratePlan: 'Guests',
      log: 'both',
      opening: 'opened',
      enabled: false,
    });
    const text = 'tag kiosk owner "maya lind" plan guests log both opened disabled';
    expect(holds(text, full)).toBe(true);
    for (const one of ['tag pier', 'owner ruth', 'plan none', 'log start', 'observing']) {
      expect(holds(one, full)).toBe(false);
    }
    expect(holds('changed since rev 3', full)).toBe(true);
  });

  test('asks the server for connections, each question once', () => {
    const filter = parseFilter('tcp/443 not person ruth.okell service tcp/443 mail');
    expect(askedOf(filter)).toEqual([
      { field: 'service', value: 'tcp/443' },
      { field: 'person', value: 'ruth.okell' },
    ]);
    expect(filter.terms.map((term) => term.text)).toEqual([
      'tcp/443',
      'not person ruth.okell',
      'service tcp/443',
      'mail',
    ]);
  });

  test.each([
    ['verdict dr x', 'Expected allow, drop, reject, caution behind "verdict", found "dr".'],
    ['verdict open', 'Expected allow, drop, reject, caution behind "verdict", found "open".'],
    ['finding odd', 'Expected a kind of finding, such as shadowed, found "odd".'],
    ['hits many', 'Expected a number of hits, found "many".'],
    ['hits 0 since ever', 'Expected days such as 90d, found "ever".'],
    [
      'changed since rev x',
      'Expected the number of a revision behind "changed since rev", found "x".',
    ],
  ])('reports the wrong part of the filter: %s', (text, fault) => {
    expect(parseFilter(text).fault).toBe(fault);
  });

  test('rules are the same whatever the order of their parts', () => {
    expect(sameText({ id: 'a', name: 'A', verdict: 'allow' })).toBe(
      sameText({ verdict: 'allow', name: 'A', id: 'a' }),
    );
  });
});
