import { describe, expect, it } from 'vitest';
import type { DirectoryState, Draft, EditionSummary, FeedSummary } from '../api/types';
import { oldSources } from './oldSources';

const draft = {
  editions: { application: '2026-11', person: 'monday' },
  feeds: [{ name: 'Watched' }],
} as unknown as Draft;
const editions = [{ name: '2026-11', importedAt: '2026-11-01T00:00:00Z' }] as EditionSummary[];
const directory = {
  readAt: '2026-11-20T00:00:00Z',
  snapshots: [{ name: 'monday', readAt: '2026-11-02T00:00:00Z' }],
} as DirectoryState;
const feeds = [
  { name: 'watched', readAt: '2026-11-20T00:00:00Z', settings: { everyMinutes: 60 } },
] as FeedSummary[];
const at = (now: string, state: DirectoryState | undefined = directory) =>
  oldSources(draft, editions, state, feeds, new Date(now)).map((one) => one.place);

describe('oldSources', () => {
  it('lists the sources that are out of date', () => {
    expect(at('2026-11-20T12:00:00Z')).toEqual([]);
    expect(at('2026-11-21T00:00:00Z')).toEqual(['feeds']);
    expect(at('2026-11-27T00:00:00Z')).toEqual(['people', 'feeds']);
    expect(at('2027-01-30T00:00:00Z')).toEqual(['applications', 'people', 'feeds']);
  });

  it('goes by when the same people were read last, and by its own time for an older snapshot', () => {
    const later = {
      readAt: '2026-11-20T00:00:00Z',
      snapshots: [{ name: 'friday', readAt: '2026-11-20T00:00:00Z' }, directory.snapshots[0]],
    } as DirectoryState;
    expect(at('2026-11-20T12:00:00Z', later)).toEqual(['people']);
  });

  it('says nothing of what is not known', () => {
    expect(oldSources(draft, [], undefined, [], new Date('2030-01-01'))).toEqual([]);
  });
});
