import { expect, test } from 'vitest';
import type { FeedSummary, FeedEditionSummary, PinnedFeed } from '../api/types';
import { every, oldAfter, stateOf } from './feeds';

const edition = (name: string, state: FeedEditionSummary['state']): FeedEditionSummary => ({
  name,
  state,
  at: '2026-11-25T10:00:00Z',
  entries: 3,
  bad: 0,
  reasons: [],
});

const feed = (editions: FeedEditionSummary[], fault?: string): FeedSummary => ({
  name: 'Watch',
  kind: 'addresses',
  settings: { everyMinutes: 30, mostBytes: 1, mostPercent: 1 },
  fault,
  editions,
});

const pinned = (name: string): PinnedFeed => ({
  name: 'Watch',
  kind: 'addresses',
  edition: name,
  sets: [],
});

test('the state of a feed is the most urgent fact', () => {
  const first = edition('1', 'offered');
  expect(stateOf(feed([]), undefined)).toEqual(['never fetched', true]);
  expect(stateOf(feed([first], 'no answer'), pinned('1'))).toEqual(['fetch failed', true]);
  expect(stateOf(feed([edition('2', 'held'), first]), pinned('1'))[0]).toBe('awaiting approval');
  expect(stateOf(feed([edition('2', 'offered'), first]), pinned('1'))).toEqual([
    'newer edition available',
    true,
  ]);
  expect(stateOf(feed([edition('2', 'refused'), first]), pinned('1'))).toEqual([
    'in this draft',
    false,
  ]);
  expect(stateOf(feed([first]), undefined)).toEqual(['not in this draft', false]);
});

test('intervals are given in the largest unit that fits', () => {
  expect([45, 60, 120, 1440, 2880].map(every)).toEqual([
    'every 45 minutes',
    'every hour',
    'every 2 hours',
    'every day',
    'every 2 days',
  ]);
});

test('a feed is old after three of its intervals, but not within a day', () => {
  expect(oldAfter(feed([]))).toBe(1);
  const daily = feed([]);
  daily.settings.everyMinutes = 1440;
  expect(oldAfter(daily)).toBe(3);
});
