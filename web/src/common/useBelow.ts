import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../api/client';
import type { BelowDocument, CommonEffect, Draft } from '../api/types';

/** The rulebases below a common one, and what its draft does in them. */
export interface Below {
  rulebases: BelowDocument[];
  /** By the ids of the rulebases; those that are not answered yet are missing. */
  effects: Map<number, CommonEffect>;
}

const NONE: BelowDocument[] = [];

/** The rulebases below a common draft; none for a draft of another kind. */
export function useRulebasesBelow(draft: Draft): BelowDocument[] {
  const { data } = useQuery({
    queryKey: ['below', draft.id],
    queryFn: () => api.below(draft.id),
    enabled: draft.kind === 'common',
  });
  return data ?? NONE;
}

/** What a common draft does in each rulebase below it, asked one after the other. */
export function useBelow(draft: Draft): Below {
  const rulebases = useRulebasesBelow(draft);
  const answers = useQueries({
    queries: rulebases.map((one) => ({
      queryKey: ['effect below', draft.id, draft.version, one.id],
      queryFn: ({ signal }: { signal: AbortSignal }) => api.effectBelow(draft.id, one.id, signal),
      placeholderData: keepPreviousData,
      retry: false,
    })),
    combine: (all) => all.map((one) => one.data),
  });
  return useMemo(() => {
    const effects = new Map<number, CommonEffect>();
    rulebases.forEach((one, i) => answers[i] && effects.set(one.id, answers[i]));
    return { rulebases, effects };
  }, [rulebases, answers]);
}
