import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { AcceptedFinding, Draft } from '../api/types';

const NONE: AcceptedFinding[] = [];

/** The findings of a draft that are accepted as they are. */
export function useAccepted(draft: Draft | undefined): AcceptedFinding[] {
  const { data } = useQuery({
    queryKey: ['accepted', draft?.id, draft?.version],
    queryFn: () => api.accepted(draft!.id),
    enabled: draft !== undefined,
    placeholderData: (before, query) => (query?.queryKey[1] === draft?.id ? before : undefined),
    staleTime: Infinity,
  });
  return data ?? NONE;
}

/** The draft without the findings that are accepted. */
export function withoutAccepted(draft: Draft, accepted: AcceptedFinding[]): Draft {
  if (accepted.length === 0) return draft;
  const standings = { ...draft.standings };
  for (const { rule, kind } of accepted) {
    const standing = standings[rule];
    if (standing) {
      const findings = standing.findings.filter((finding) => finding.kind !== kind);
      standings[rule] = { ...standing, findings };
    }
  }
  return { ...draft, standings };
}
