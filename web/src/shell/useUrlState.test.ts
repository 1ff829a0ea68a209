import { describe, expect, it } from 'vitest';
import { queryOf, valuesIn } from './useUrlState';

const KEYS = ['rule', 'q'] as const;

describe('the query of a view', () => {
  it('contains what is not empty, without blanks at the ends', () => {
    expect(queryOf({ rule: 'r 1', q: ' tcp/443 ', probe: '' })).toBe('?rule=r+1&q=tcp%2F443');
    expect(queryOf({ rule: '', q: '  ' })).toBe('');
  });

  it('is read back, and anything else in it is left alone', () => {
    expect(valuesIn(KEYS, '?rule=r+1&other=2')).toEqual({ rule: 'r 1', q: '' });
    expect(valuesIn(KEYS, queryOf({ rule: 'ü & =', q: '?' }))).toEqual({ rule: 'ü & =', q: '?' });
  });
});
