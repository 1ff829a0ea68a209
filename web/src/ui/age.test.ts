import { describe, expect, it } from 'vitest';
import { ago, isOld } from './age';

const now = new Date('2026-11-23T12:00:00Z');

describe('the age of an edition', () => {
  it.each([
    ['2026-11-23T11:59:30Z', 'just now'],
    ['2026-11-23T12:00:30Z', 'just now'],
    ['2026-11-23T11:59:00Z', '1 minute ago'],
    ['2026-11-23T09:01:00Z', '2 hours ago'],
    ['2026-11-21T11:00:00Z', '2 days ago'],
    ['2026-08-23T12:00:00Z', '92 days ago'],
  ])('%s is %s', (at, words) => {
    expect(ago(new Date(at), now)).toBe(words);
  });

  it('is old from the day on that it is so many days old', () => {
    expect(isOld(new Date('2026-11-16T12:00:00Z'), now, 7)).toBe(true);
    expect(isOld(new Date('2026-11-16T12:00:01Z'), now, 7)).toBe(false);
  });
});
