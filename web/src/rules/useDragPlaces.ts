import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { allRules } from '../draft/applyEdit';
import { listed, numbersOf } from '../draft/findings';
import { isQuiet, numberOf, passed } from './placement';

const MOST_NAMED = 4;

/** What would change at each place while a rule is dragged. */
export function useDragPlaces(
  draft: Draft,
  dragged: string | null,
  over: { id: string; side: 'above' | 'below' } | null,
) {
  const { data: placement } = useQuery({
    queryKey: ['placement', draft.id, draft.version, dragged],
    queryFn: ({ signal }) => api.placement(draft.id, dragged!, signal),
    enabled: dragged !== null,
    staleTime: Infinity,
  });
  const places = useMemo(() => {
    const others = allRules(draft).filter((rule) => rule.id !== dragged);
    return new Map(others.map((rule, i) => [rule.id, i]));
  }, [draft, dragged]);
  const numbers = useMemo(() => numbersOf(draft), [draft]);
  const shown = dragged && placement ? placement : null;

  const markOf = (id: string): string | null => {
    const place = places.get(id);
    if (!shown || place === undefined) return null;
    const count = passed(shown, place).length;
    if (count === 0) return isQuiet(shown, place) ? 'quiet' : 'not settled';
    return `${count} ${count === 1 ? 'rule' : 'rules'}`;
  };

  /** What the place under the pointer would change, in words. */
  const words = (() => {
    if (!shown || !over || !dragged) return null;
    const place = over.id.startsWith('section:')
      ? numberOf(draft, dragged, { startOf: over.id.slice('section:'.length) })
      : numberOf(draft, dragged, { [over.side]: over.id });
    const changes = passed(shown, place);
    if (!changes.length) {
      return isQuiet(shown, place)
        ? 'Quiet: no verdict changes here.'
        : 'Analysis limit reached: whether a verdict changes here is not settled.';
    }
    const named = changes.slice(0, MOST_NAMED).map((one) => numbers.get(one.rule) ?? '?');
    const more = changes.length - named.length;
    const rules = listed(more > 0 ? [...named, `${more} more`] : named);
    return `Changes verdicts of connections of ${changes.length === 1 ? 'rule' : 'rules'} ${rules}: ${changes[0]!.witness}`;
  })();

  return { markOf, words };
}
