import { describe, expect, it } from 'vitest';
import type { CheckState, SavedCheck } from '../api/types';
import { outcomeOf } from './outcome';

const check: SavedCheck = { name: 'in', connection: 'tcp/443', verdict: 'allow' };
const numbers = new Map([
  ['a', 3],
  ['b', 7],
]);
const text = (state: Omit<CheckState, 'name'> | undefined, rule?: string) =>
  outcomeOf({ ...check, rule }, state && { name: 'in', ...state }, numbers).text;

describe('outcomeOf', () => {
  it('describes the verdict of a check and its rule', () => {
    expect(text(undefined)).toBe('expected allow');
    expect(text({ certain: true, holds: true, verdict: 'allow', rule: 'a' })).toBe(
      'allow, by rule 3',
    );
    expect(text({ certain: true, holds: false, verdict: 'drop' })).toBe(
      'expected allow, got drop by the default rule',
    );
    expect(text({ certain: true, holds: false, verdict: 'allow', rule: 'a' }, 'b')).toBe(
      'allow, but by rule 3 and not by rule 7',
    );
    expect(text({ certain: true, holds: false, verdict: 'allow', rule: 'a' }, 'gone')).toBe(
      'allow, but by rule 3 and not by a rule that is gone',
    );
    const lockedOut = { verdict: 'drop' };
    expect(text({ certain: true, holds: false, verdict: 'allow', rule: 'a', lockedOut })).toBe(
      'lock-out: while the directory is away it gets drop by the default rule',
    );
    expect(
      text({ certain: false, holds: false, verdict: 'drop', rule: 'a', counterexample: 'tcp/1' }),
    ).toBe('expected allow, not certain: some get drop by rule 3; for example tcp/1');
    expect(text({ certain: false, holds: false, verdict: 'allow', rule: 'a' })).toBe(
      'Analysis limit reached; add more to the line.',
    );
    expect(text({ certain: true, holds: false, refused: 'at character 4' })).toBe(
      'Cannot run: at character 4.',
    );
  });
});
