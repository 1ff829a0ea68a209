import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { CheckState, Draft } from '../api/types';

/** What becomes of a draft's checks, tried again after every change. */
export function useChecks(draft: Draft | undefined): CheckState[] | undefined {
  const { data } = useQuery({
    queryKey: ['checks', draft?.id, draft?.version],
    queryFn: ({ signal }) => api.checks(draft!.id, signal),
    enabled: draft !== undefined && draft.checks.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  return draft?.checks.length === 0 ? [] : data;
}
