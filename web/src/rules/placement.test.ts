import { describe, expect, it } from 'vitest';
import type { Draft, Placement } from '../api/types';
import { isQuiet, numberOf, ownPlaces, passed, placeOf, quietPlaces } from './placement';

const rules = (ids: string) => [...ids].map((id) => ({ id, name: id, verdict: 'drop' }));
const draft = {
  sections: [
    { id: 's', name: 'S', rules: rules('abc') },
    { id: 'e', name: 'E', rules: [] },
    { id: 't', name: 'T', rules: rules('de') },
  ],
} as unknown as Draft;

const blocking = (position: number) => ({
  position,
  rule: `r${position}`,
  verdict: 'drop' as const,
  witness: '',
});
const placement: Placement = {
  version: 1,
  place: 3,
  places: 6,
  decidesAll: 1,
  complete: true,
  blocking: [blocking(0), blocking(1), blocking(4)],
};

describe('placement', () => {
  it('tells which rules a move passes', () => {
    expect(passed(placement, 3)).toEqual([]);
    expect(passed(placement, 2)).toEqual([]);
    expect(passed(placement, 1).map((one) => one.position)).toEqual([1]);
    expect(passed(placement, 0)).toHaveLength(2);
    expect(passed(placement, 5).map((one) => one.position)).toEqual([4]);
  });

  it('calls a place quiet only if that is proved', () => {
    expect(isQuiet(placement, 2)).toBe(true);
    expect(isQuiet(placement, 1)).toBe(false);
    const open = { ...placement, complete: false };
    expect(isQuiet(open, 2)).toBeUndefined();
    expect(isQuiet(open, 3)).toBe(true); // where it stands
    expect(isQuiet(open, 1)).toBe(false);
  });

  it('is quiet between the next two rules that cannot be passed', () => {
    expect(quietPlaces(placement)).toEqual({ highest: 2, lowest: 4 });
    expect(quietPlaces({ ...placement, blocking: [] })).toEqual({ highest: 0, lowest: 5 });
    const { highest, lowest } = quietPlaces(placement);
    expect(passed(placement, highest)).toEqual([]);
    expect(passed(placement, lowest)).toEqual([]);
    expect(passed(placement, highest - 1)).not.toEqual([]);
    expect(passed(placement, lowest + 1)).not.toEqual([]);
  });
});

describe('a place', () => {
  it('is counted among the other rules', () => {
    expect(numberOf(draft, 'b', { above: 'a' })).toBe(0);
    expect(numberOf(draft, 'b', { below: 'c' })).toBe(2);
    expect(numberOf(draft, 'b', { startOf: 't' })).toBe(2);
    expect(numberOf(draft, 'b', { endOf: 't' })).toBe(4);
  });

  it('of a number stays in the own section at a border', () => {
    expect(placeOf(draft, 'b', 0)).toEqual({ above: 'a' });
    expect(placeOf(draft, 'b', 2)).toEqual({ below: 'c' });
    expect(placeOf(draft, 'e', 3)).toEqual({ above: 'd' });
    expect(placeOf(draft, 'b', 4)).toEqual({ below: 'e' });
    for (let number = 0; number < 5; number++) {
      expect(numberOf(draft, 'b', placeOf(draft, 'b', number))).toBe(number);
    }
  });

  it('is never among common rules', () => {
    const below = {
      ...draft,
      common: { rulebase: 'All', revision: 1, sections: { s: 'All' }, objects: {} },
    } as unknown as Draft;
    expect(ownPlaces(draft, 'b')).toEqual({ first: 0, last: 4 });
    expect(ownPlaces(below, 'd')).toEqual({ first: 3, last: 4 });
  });
});
