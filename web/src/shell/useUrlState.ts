import { useCallback, useEffect, useEffectEvent, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Place } from './places';

export type UrlState<K extends string> = {
  values: Record<K, string>;
  /** Changes values in place, as for text that is being typed. */
  set(change: Partial<Record<K, string>>): void;
  /** Changes values as a step that Back undoes. */
  step(change: Partial<Record<K, string>>): void;
};

/** The values of some parameters in a query; empty where it has none. */
export function valuesIn<K extends string>(keys: readonly K[], query: string): Record<K, string> {
  const search = new URLSearchParams(query);
  return Object.fromEntries(keys.map((key) => [key, search.get(key) ?? ''])) as Record<K, string>;
}

/** The query with the values that are not empty. */
export function queryOf(values: Record<string, string>): string {
  const search = new URLSearchParams();
  for (const [key, value] of Object.entries(values))
    if (value.trim()) search.set(key, value.trim());
  return search.size > 0 ? `?${search.toString()}` : '';
}

/**
 * What a view shows, held by its URL, so that it can be sent to a colleague, and Back and Forward
 * work. The values are also kept here, since a text field cannot wait for the router.
 *
 * @param place only while the URL is that of this view it is read and written
 * @param keys a constant list of parameters
 * @param onReturn called with the values that Back, Forward or a link brought
 */
export function useUrlState<K extends string>(
  place: Place,
  keys: readonly K[],
  onReturn?: (values: Record<K, string>) => void,
): UrlState<K> {
  const navigate = useNavigate();
  const isHere = () => window.location.pathname.endsWith(`/${place}`);
  const [values, setValues] = useState(() =>
    valuesIn(keys, isHere() ? window.location.search : ''),
  );
  const latest = useRef(values);

  const adopt = useEffectEvent(() => {
    if (!isHere()) return;
    const there = valuesIn(keys, window.location.search);
    if (queryOf(there) === queryOf(latest.current)) return;
    latest.current = there;
    setValues(there);
    onReturn?.(there);
  });
  useEffect(() => {
    const onPop = () => adopt();
    window.addEventListener('popstate', onPop);
    return () => window.removeEventListener('popstate', onPop);
  }, []);

  const change = useCallback(
    (next: Partial<Record<K, string>>, replace: boolean) => {
      const all = { ...latest.current, ...next };
      if (queryOf(all) === queryOf(latest.current)) {
        latest.current = all; // blanks at the end of a text that is being typed
        setValues(all);
        return;
      }
      latest.current = all;
      setValues(all);
      // Another view shows only when it is loaded; until then this one must not come back.
      if (window.location.pathname.endsWith(`/${place}`)) {
        void navigate({ search: queryOf(all) }, { replace });
      }
    },
    [navigate, place],
  );
  const set = useCallback((next: Partial<Record<K, string>>) => change(next, true), [change]);
  const step = useCallback((next: Partial<Record<K, string>>) => change(next, false), [change]);
  return { values, set, step };
}
