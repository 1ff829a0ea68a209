import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, Cancelled, Problem } from '../api/client';
import type { ProbeAnswer } from '../api/types';
import { faultWords } from '../ui/faultWords';

const TYPING_MS = 50;

/** The answer for a line on the draft as it is, asked again with every keystroke and every edit. */
export function useProbe(
  id: number,
  version: number | undefined,
  line: string,
): { answer: ProbeAnswer | undefined; error: string | null } {
  const [settled, setSettled] = useState(line);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(line.trim()), TYPING_MS);
    return () => clearTimeout(timer);
  }, [line]);
  const query = useQuery({
    queryKey: ['probe', id, version, settled],
    queryFn: ({ signal }) => api.probe(id, settled, signal),
    enabled: settled !== '' && version !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    // What the server refuses it refuses again; what it cannot answer now it may answer soon.
    retry: (count, error) =>
      !(error instanceof Problem || error instanceof Cancelled) && count < 60,
    retryDelay: 1500,
  });
  if (settled === '' || line.trim() === '') {
    return { answer: undefined, error: null };
  }
  if (query.error) {
    return { answer: undefined, error: faultWords(query.error) };
  }
  return { answer: query.data, error: null };
}
