import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, TermOption } from '../api/types';
import { COORDINATES, type Part } from '../draft/criteria';

const NONE: TermOption[] = [];

/** Names of people, applications and the like that fit what is typed into a part of a rule. */
export function useTerms(draft: Draft, part: Part, query: string): TermOption[] {
  const of = COORDINATES[part].filter(
    (coordinate) => draft.editions[coordinate] || coordinate === 'file kind', // which is built in
  );
  const text = query.trim();
  const { data } = useQuery({
    queryKey: ['terms', draft.id, draft.editions, part, text],
    queryFn: () => api.terms(draft.id, of, text),
    enabled: of.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  return data ?? NONE;
}
