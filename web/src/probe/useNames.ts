import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, TermOption } from '../api/types';
import type { lastName } from './lineCompletion';

const NONE: TermOption[] = [];

/** What the server knows that fits a name which is being typed into the probe. */
export function useNames(draft: Draft, name: ReturnType<typeof lastName>): TermOption[] {
  const { data } = useQuery({
    queryKey: ['names', draft.id, draft.editions, name?.of, name?.text],
    queryFn: () => api.terms(draft.id, [name!.of], name!.text),
    enabled: name !== null && name.text.trim() !== '',
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  return (name?.text.trim() && data) || NONE;
}
