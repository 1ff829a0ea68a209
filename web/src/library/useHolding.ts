import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { useSettled } from '../ui/useSettled';

const LITERAL = /^(\d[\d.]*[\d/-]|[0-9a-f]*:[0-9a-f:]*|(tcp|udp|sctp|icmp|icmpv6)\/\d)/i;
const NONE: ReadonlySet<string> = new Set();

/** The key of an object in what {@link useHolding} finds. */
export const holdingKey = (kind: string, name: string) => `${kind} ${name.toLowerCase()}`;

/** The objects that hold the address or the service that a search names, if it names one. */
export function useHolding(draft: Draft, search: string): ReadonlySet<string> {
  const value = useSettled(search.trim());
  const { data } = useQuery({
    queryKey: ['holding', draft.id, draft.version, value],
    queryFn: ({ signal }) => api.holdingObjects(draft.id, value, signal),
    select: (found) => new Set(found.map((one) => holdingKey(one.kind, one.name))),
    enabled: LITERAL.test(value),
    staleTime: Infinity,
    retry: false,
  });
  return data ?? NONE;
}
