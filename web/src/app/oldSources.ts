import type { DirectoryState, Draft, EditionSummary, FeedSummary } from '../api/types';
import type { Place } from '../shell/places';
import { oldAfter } from '../feeds/feeds';
import { isOld, OLD_CATALOGUE, OLD_SNAPSHOT } from '../ui/age';

/** A source of rules that is out of date. */
export interface OldSource {
  source: string;
  /** The place to update it. */
  place: Place;
}

/** The sources of a draft that are out of date; sources of unknown age are left out. */
export function oldSources(
  draft: Draft,
  editions: EditionSummary[],
  directory: DirectoryState | undefined,
  feeds: FeedSummary[],
  now: Date,
): OldSource[] {
  const out: OldSource[] = [];
  const old = (at: string | undefined, days: number) => !!at && isOld(new Date(at), now, days);
  const edition = editions.find((one) => one.name === draft.editions.application);
  if (old(edition?.importedAt, OLD_CATALOGUE)) {
    out.push({ source: `the catalogue, edition ${edition!.name}`, place: 'applications' });
  }
  const snapshot = directory?.snapshots.find((one) => one.name === draft.editions.person);
  const newest = directory?.snapshots[0]?.name === snapshot?.name;
  if (snapshot && old(newest ? directory!.readAt : snapshot.readAt, OLD_SNAPSHOT)) {
    out.push({ source: `the directory's people, read ${snapshot.name}`, place: 'people' });
  }
  for (const pinned of draft.feeds) {
    const feed = feeds.find((one) => one.name.toLowerCase() === pinned.name.toLowerCase());
    if (feed && old(feed.readAt, oldAfter(feed))) {
      out.push({ source: `the feed ${feed.name}`, place: 'feeds' });
    }
  }
  return out;
}
