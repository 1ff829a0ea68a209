import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Rule } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { checksFor, mistakeWords, type Missed } from './missed';
import { percent } from '../ui/numbers';
import { Working } from '../ui/QuestionProgress';

/** Which small mistakes in the rules no check would notice, each with the check that would. */
export function Coverage({
  handle,
  numbers,
  byId,
  mayEdit,
  onRule,
  onProbe,
}: {
  handle: DraftHandle;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  const draft = handle.draft!;
  const [problem, setProblem] = useState<unknown>(null);
  const { data, error } = useQuery({
    queryKey: ['coverage', draft.id, draft.version],
    queryFn: ({ signal }) => api.coverage(draft.id, signal),
    staleTime: Infinity,
  });
  const add = async (missed: Missed[]) =>
    setProblem(
      await handle.edit({ kind: 'batch', edits: checksFor(missed, draft.checks, numbers, byId) }),
    );
  const lines = new Map<string, Missed>();
  data?.examples.forEach((missed) => {
    if (!lines.has(missed.line)) lines.set(missed.line, missed);
  });
  const all = data ? data.noticed + data.missed : 0;
  return (
    <section aria-labelledby="coverage" className="border-b border-line bg-panel px-6 py-3">
      <h2 id="coverage" className="font-semibold">
        Coverage
      </h2>
      <Faults error={error ?? problem} />
      {!data && !error && <Working on="Which mistakes the checks notice" />}
      {data && (
        <>
          <p className="text-[12px] text-dim">
            Of {all} single mistakes that would change a verdict (a rule with another verdict,
            disabled, swapped with the next, or without one of its criteria) the checks that pass
            notice {data.noticed}, {percent(all === 0 ? 1 : data.noticed / all)}.
            {data.harmless > 0 && ` ${data.harmless} more would change nothing.`}
            {data.undecided > 0 && ` For ${data.undecided} more the analysis limit was reached.`}
          </p>
          {data.missed > 0 && mayEdit && (
            <p className="mt-2">
              <Button small onClick={() => void add([...lines.values()])}>
                Add all {lines.size} checks
              </Button>
            </p>
          )}
          <ul
            tabIndex={0}
            aria-label="Mistakes that no check notices"
            className="mt-2 max-h-[230px] divide-y divide-line overflow-auto border-y border-line empty:hidden"
          >
            {data.examples.map((missed, i) => (
              <li key={i} className="flex items-baseline gap-3 py-1 text-[12px]">
                <span className="w-[230px] shrink-0">
                  <button
                    type="button"
                    onClick={() => onRule(missed.rule)}
                    className="min-h-[24px] cursor-pointer text-left text-accent underline underline-offset-2"
                  >
                    {numbers.get(missed.rule)} {byId.get(missed.rule)?.name}
                  </button>
                  <span className="block">{mistakeWords(missed, numbers)}</span>
                </span>
                <button
                  type="button"
                  title="Show it in the probe"
                  onClick={() => onProbe(missed.line)}
                  className="min-w-0 flex-1 cursor-pointer text-left font-mono break-words hover:underline"
                >
                  {missed.line}
                </button>
                <span className="w-[60px] shrink-0">{missed.verdict}</span>
                {mayEdit && (
                  <Button
                    small
                    aria-label={`Add a check for ${byId.get(missed.rule)?.name}: ${mistakeWords(missed, numbers)}`}
                    onClick={() => void add([missed])}
                  >
                    Add
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
