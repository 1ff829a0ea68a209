import type { DirectoryState, Draft, EditionSummary, FeedSummary } from '../api/types';
import type { Place } from '../app/places';
import { oldAfter } from '../feeds/feeds';
import { isOld } from '../ui/age';

/** After how many days an edition of the catalogue in a draft is old. */
export const OLD_CATALOGUE = 90;
/** The same for a snapshot of the directory. */
export const OLD_SNAPSHOT = 7;

/** Something that rules rest on and that was not brought up to date for long. */
export interface OldSource {
  source: string;
  /** Where something can be done about it. */
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
