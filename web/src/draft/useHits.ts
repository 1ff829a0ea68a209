import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { RuleHits } from '../api/types';

const LOOK_AGAIN = 5000;

/** The key of the default rule among hits. */
export const DEFAULT_RULE = '';

const byRule = (all: RuleHits[]) => new Map(all.map((hits) => [hits.rule ?? DEFAULT_RULE, hits]));

/** The hits of each rule that has any, by id; those of the default rule by an empty one. */
export function useHits(id: number): Map<string, RuleHits> | undefined {
  // Rules without new hits keep their object, so their strips are not drawn anew.
  const { data } = useQuery({
    queryKey: ['hits', id],
    queryFn: () => api.hits(id),
    select: byRule,
    structuralSharing: true,
    refetchInterval: LOOK_AGAIN,
  });
  return data;
}
