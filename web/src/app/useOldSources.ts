import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { oldSources, type OldSource } from './oldSources';

const AGAIN = 10 * 60_000; // ms

/** What of a draft's sources is old, looked at every ten minutes. */
export function useOldSources(draft: Draft): OldSource[] {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), AGAIN);
    return () => clearInterval(timer);
  }, []);
  const often = { refetchInterval: AGAIN };
  const editioned = (of: string) => draft.editions[of] !== undefined;
  const { data: editions } = useQuery({
    queryKey: ['editions'],
    queryFn: api.editions,
    enabled: editioned('application'),
    ...often,
  });
  const { data: directory } = useQuery({
    queryKey: ['directory'],
    queryFn: api.directory,
    enabled: editioned('person'),
    ...often,
  });
  const { data: feeds } = useQuery({
    queryKey: ['feeds'],
    queryFn: api.feeds,
    enabled: draft.feeds.length > 0,
    ...often,
  });
  return oldSources(draft, editions ?? [], directory, feeds ?? [], now);
}
