import { expect, it } from 'vitest';
import { steps } from './steps';

it('the steps of a line are the newest revisions', () => {
  expect(steps(1)).toEqual([1]);
  expect(steps(3)).toEqual([1, 2, 3]);
  expect(steps(42)).toEqual([38, 39, 40, 41, 42]);
});
