import { describe, expect, it } from 'vitest';
import type { Rule, SavedCheck } from '../api/types';
import { checksFor, mistakeWords, type Missed } from './missed';

const numbers = new Map([['b', 2]]);
const byId = new Map([['a', { name: 'Kiosks print' } as Rule]]);
const missed = (change: Partial<Missed>): Missed => ({
  rule: 'a',
  mistake: 'disabled',
  line: 'tcp/9100',
  verdict: 'allow',
  ...change,
});

describe('a mistake that no check notices', () => {
  it('is put in words', () => {
    expect(mistakeWords(missed({}), numbers)).toBe('disabled');
    expect(mistakeWords(missed({ mistake: 'verdict' }), numbers)).toBe('another verdict');
    expect(mistakeWords(missed({ mistake: 'swapped', next: 'b' }), numbers)).toBe(
      'swapped with rule 2',
    );
    expect(mistakeWords(missed({ mistake: 'criterion', criterion: 'from' }), numbers)).toBe(
      'without its source',
    );
    expect(mistakeWords(missed({ mistake: 'criterion', criterion: 'time' }), numbers)).toBe(
      'without its time',
    );
  });

  it('gets a check with an unused name', () => {
    const known = [{ name: 'kiosks print: disabled' } as SavedCheck];
    const edits = checksFor([missed({}), missed({ mistake: 'verdict' })], known, numbers, byId);
    expect(edits).toEqual([
      {
        kind: 'putCheck',
        check: {
          name: 'Kiosks print: disabled (2)',
          connection: 'tcp/9100',
          verdict: 'allow',
          group: 'Kiosks print',
        },
      },
      {
        kind: 'putCheck',
        check: {
          name: 'Kiosks print: another verdict',
          connection: 'tcp/9100',
          verdict: 'allow',
          group: 'Kiosks print',
        },
      },
    ]);
  });
});
