import { describe, expect, it } from 'vitest';
import type { Draft } from '../api/types';
import { stepPlace } from './movingActions';

const rules = (ids: string) => [...ids].map((id) => ({ id, name: id, verdict: 'drop' }));
const draft = {
  sections: [
    { id: 's', name: 'S', rules: rules('abc') },
    { id: 't', name: 'T', rules: rules('d') },
  ],
} as Draft;

describe('stepPlace', () => {
  it('goes over the neighbour', () => {
    expect(stepPlace(draft, ['b'], -1)).toEqual({ above: 'a' });
    expect(stepPlace(draft, ['b'], 1)).toEqual({ below: 'c' });
    expect(stepPlace(draft, ['a', 'b'], 1)).toEqual({ below: 'c' });
  });

  it('goes into the neighbouring section at the edge, and nowhere at the ends', () => {
    expect(stepPlace(draft, ['c'], 1)).toEqual({ startOf: 't' });
    expect(stepPlace(draft, ['d'], -1)).toEqual({ endOf: 's' });
    expect(stepPlace(draft, ['a'], -1)).toBeNull();
    expect(stepPlace(draft, ['d'], 1)).toBeNull();
  });
});
