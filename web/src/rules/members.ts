import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { createContext, useMemo } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { holding } from './completion';
import type { Chip, Coordinate } from '../draft/criteria';

/** What is known of what a chip stands for. */
export interface Members {
  /** How many members it has now; undefined for what is no set. */
  count?: number;
  /** Which these are, as far as a draft says it itself. */
  words?: string;
}

export type MembersOf = (chip: Chip) => Members;

/** Tells what chips stand for; nothing where no draft is on screen. */
export const MembersContext = createContext<MembersOf>(() => ({}));

type Sizes = Record<string, Record<string, number>>;

/** What a draft itself, and the sizes of the named sets of its editions, tell of chips. */
export function membersOf(draft: Draft, sizes: Sizes): MembersOf {
  const known = new Map<string, Members>();
  const put = (criteria: string[], name: string, members: Members) =>
    criteria.forEach((criterion) => known.set(`${criterion}:${name.toLowerCase()}`, members));
  const ends = ['fromAddresses', 'toAddresses'];
  for (const [coordinate, sets] of Object.entries(sizes)) {
    for (const [name, count] of Object.entries(sets)) put([coordinate], name, { count });
  }
  for (const object of draft.addresses) put(ends, object.name!, says(object.members));
  for (const object of draft.services) put(['services'], object.name!, says(object.members));
  for (const object of draft.hostLists) put(['site'], object.name!, says(object.members));
  for (const object of draft.schedules) put(['time'], object.name!, says(object.members));
  for (const object of draft.deviceStates) put(['device'], object.name!, says(object.members));
  for (const zone of draft.zones) {
    put(['fromZones', 'toZones'], zone.name!, says(zone.members ?? ['any address']));
  }
  for (const feed of draft.feeds) {
    for (const set of feed.sets) {
      put(feed.kind === 'categories' ? ['site'] : ends, set.name, {
        count: set.entries,
        words: holding(set.entries, set.some),
      });
    }
  }
  return (chip) => known.get(`${chip.criterion}:${chip.text.toLowerCase()}`) ?? {};
}

const says = (members: string[] | undefined): Members => ({ words: members?.join(', ') });

export function useMembersOf(draft: Draft): MembersOf {
  const { data } = useQuery({
    queryKey: ['sizes', draft.id, draft.editions],
    queryFn: () => api.termSizes(draft.id),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  return useMemo(() => membersOf(draft, data ?? {}), [draft, data]);
}

/** The first members of a named set of an edition, fetched on demand. */
export function useWords(draft: Draft | null, chip: Chip): string | undefined {
  const { data } = useQuery({
    queryKey: ['members', draft?.id, draft?.editions, chip.criterion, chip.text],
    queryFn: () => api.terms(draft!.id, [chip.criterion as Coordinate], chip.text),
    enabled: draft !== null,
    staleTime: Infinity,
  });
  const term = data?.find((one) => one.name.toLowerCase() === chip.text.toLowerCase());
  return term && holding(term.members, term.some);
}
