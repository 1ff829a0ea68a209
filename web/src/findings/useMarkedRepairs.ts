import { useMemo, useState } from 'react';
import type { Cause } from './causes';
import { touchedBy, type MarkedRepairs } from './repairsTogether';
import type { Way } from './useRepairs';

/**
 * The repairs that are marked to be applied at once.
 *
 * @param wayOf the repair of a cause that is looked at, else its first
 */
export function useMarkedRepairs(causes: Cause[], wayOf: (cause: Cause) => Way | undefined) {
  const [all, setAll] = useState<MarkedRepairs>(new Map());
  const [said, setSaid] = useState('');
  // What is repaired meanwhile is no longer marked.
  const marked = useMemo(() => {
    const known = new Set(causes.map((cause) => cause.key));
    return new Map([...all].filter(([key]) => known.has(key)));
  }, [all, causes]);
  /** Marks a repair of a cause, or takes the mark away. */
  const mark = (cause: Cause) => {
    const next = new Map(marked);
    if (!next.delete(cause.key)) {
      const way = wayOf(cause);
      if (!way) {
        setSaid('This cause has no repair to mark.');
        return;
      }
      const other = touchedBy(way.edit, marked, cause.key);
      if (other) {
        setSaid(`Not marked: it touches a rule of “${other}”.`);
        return;
      }
      next.set(cause.key, { summary: way.summary, edit: way.edit });
    }
    setSaid('');
    setAll(next);
  };
  return { marked, mark, said, unmark: () => setAll(new Map()) };
}
