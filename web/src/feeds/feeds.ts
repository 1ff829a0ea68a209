import type { FeedSummary, PinnedFeed } from '../api/types';

/** The names of a feed's sets, singular and plural. */
export const SETS: Record<FeedSummary['kind'], [string, string]> = {
  addresses: ['list', 'lists'],
  countries: ['country', 'countries'],
  categories: ['category', 'categories'],
};

export const KINDS: Record<FeedSummary['kind'], string> = {
  addresses: 'list of addresses',
  countries: 'countries by address',
  categories: 'categories by host',
};

/** The state of a feed in a few words, and whether it needs attention. */
export function stateOf(feed: FeedSummary, pinned: PinnedFeed | undefined): [string, boolean] {
  const newest = feed.editions[0];
  if (feed.fault) return ['fetch failed', true];
  if (!newest) return ['never fetched', true];
  if (newest.state === 'held') return ['awaiting approval', true];
  const offered = feed.editions.find((edition) => edition.state === 'offered');
  if (!pinned) return ['not in this draft', false];
  if (offered && offered.name !== pinned.edition) return ['newer edition available', true];
  return ['in this draft', false];
}

/** After how many days without a reading a feed is old: three of its intervals, a day at least. */
export const oldAfter = (feed: FeedSummary) =>
  Math.max(1, (3 * feed.settings.everyMinutes) / (24 * 60));

/** An interval in words. */
export function every(minutes: number): string {
  if (minutes % (24 * 60) === 0) {
    return minutes === 24 * 60 ? 'every day' : `every ${minutes / 24 / 60} days`;
  }
  if (minutes % 60 === 0) {
    return minutes === 60 ? 'every hour' : `every ${minutes / 60} hours`;
  }
  return `every ${minutes} minutes`;
}
