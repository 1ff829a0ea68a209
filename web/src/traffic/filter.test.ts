import { describe, expect, it } from 'vitest';
import { filterLine, readFilter, sinceTime } from './filter';

describe('the filter line of the log', () => {
  it('reads words with their values, in any order', () => {
    expect(readFilter('')).toEqual({});
    expect(readFilter('rule 29 verdict drop since 24h')).toEqual({
      rule: '29',
      verdict: 'drop',
      since: '24h',
    });
    expect(readFilter(' application  Lanternreel: view person Maya Lind ')).toEqual({
      application: 'Lanternreel: view',
      person: 'Maya Lind',
    });
  });

  it('reports the fault in a sentence', () => {
    expect(readFilter('drop')).toBe(
      'Start with rule, verdict, person, address, application, since; found "drop".',
    );
    expect(readFilter('rule')).toBe('"rule" has no value.');
    expect(readFilter('rule verdict drop')).toBe('"rule" has no value.');
    expect(readFilter('rule 1 rule 2')).toBe('"rule" occurs twice.');
    expect(readFilter('verdict deny')).toContain('found "deny"');
    expect(readFilter('since monday')).toContain('15m, 24h or 7d');
  });

  it('writes what it reads', () => {
    const line = 'rule 29 verdict drop person Maya Lind address 10.4.0.0/16 since 7d';
    expect(filterLine(readFilter(line) as object)).toBe(line);
  });

  it('counts back', () => {
    const now = new Date('2026-12-01T10:00:00Z');
    expect(sinceTime('90m', now)).toBe('2026-12-01T08:30:00.000Z');
    expect(sinceTime('2d', now)).toBe('2026-11-29T10:00:00.000Z');
  });
});
