import { describe, expect, it } from 'vitest';
import type { CheckState, SavedCheck } from '../api/types';
import { outcomeOf } from './outcome';

const check: SavedCheck = { name: 'in', connection: 'tcp/443', verdict: 'allow' };
const numbers = new Map([
  ['a', 3],
  ['b', 7],
]);
const says = (state: Omit<CheckState, 'name'> | undefined, rule?: string) =>
  outcomeOf({ ...check, rule }, state && { name: 'in', ...state }, numbers).says;

describe('outcomeOf', () => {
  it('says what a check gets and by which rule', () => {
    expect(says(undefined)).toBe('must get allow');
    expect(says({ holds: true, verdict: 'allow', rule: 'a' })).toBe('allow, by rule 3');
    expect(says({ holds: false, verdict: 'drop' })).toBe(
      'must get allow, gets drop by the closing rule',
    );
    expect(says({ holds: false, verdict: 'allow', rule: 'a' }, 'b')).toBe(
      'allow, but by rule 3 and not by rule 7',
    );
    expect(says({ holds: false, verdict: 'allow', rule: 'a' }, 'gone')).toBe(
      'allow, but by rule 3 and not by a rule that is gone',
    );
    expect(says({ holds: false, refused: 'at character 4' })).toBe(
      'Cannot be tried: at character 4.',
    );
  });
});
