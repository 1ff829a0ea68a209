import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { api } from '../api/client';
import type { CheckState, Rule } from '../api/types';
import { isSet, questionOf } from '../draft/checkSet';
import type { DraftHandle } from '../draft/useDraft';
import { useUrlState } from '../shell/useUrlState';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { faultWords } from '../ui/faultWords';
import { Menu, MenuItem } from '../ui/Menu';
import { Working } from '../ui/QuestionProgress';
import { saveFile } from '../ui/saveFile';
import { useSettled } from '../ui/useSettled';
import { answerCsv, nameInQuestion } from './answer';
import { AnswerTable } from './AnswerTable';
import { KeepAsCheck } from './KeepAsCheck';
import { MatrixPicture } from './MatrixPicture';
import { QuestionLine } from './QuestionLine';

/** Who can reach what: the zone matrix, and exact answers to questions. */
export default function ReachPage({
  handle,
  checks,
  numbers,
  byId,
  mayEdit,
  onRule,
  onProbe,
}: {
  handle: DraftHandle;
  checks: CheckState[] | undefined;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  const draft = handle.draft!;
  const { values, set, step } = useUrlState('reach', ['q']);
  const [at, setAt] = useState<[number, number]>([0, 0]);
  const [keeping, setKeeping] = useState(false);
  const question = useSettled(values.q.trim());
  const matrix = useQuery({
    queryKey: ['zone matrix', draft.id, draft.version],
    queryFn: ({ signal }) => api.zoneMatrix(draft.id, signal),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const reach = useQuery({
    queryKey: ['reach', draft.id, draft.version, question],
    queryFn: ({ signal }) => api.reach(draft.id, question, signal),
    enabled: question !== '',
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
  const asked = values.q.trim() !== '';
  const answer = asked && !reach.error ? reach.data : undefined;
  const deciding = new Set(answer?.lines.map((line) => line.rule)).size;
  const kept = draft.checks.filter(isSet);
  const ask = (from: string, to: string) =>
    step({ q: `what decides between ${nameInQuestion(from)} and ${nameInQuestion(to)}` });
  const zones = matrix.data?.zones ?? [];
  const toMatrix = () => document.querySelector<HTMLElement>('[data-cell][tabindex="0"]')?.focus();
  return (
    <div className="flex min-h-0 flex-1" data-print>
      <section data-print aria-labelledby="matrix" className="min-w-0 flex-[3] overflow-auto p-4">
        <h1 id="matrix" className="text-[17px] font-semibold">
          Who reaches what
        </h1>
        <p className="mb-2 text-[12px] text-dim">
          from each zone ↓ to each zone →: a hole is a tenth of the services that the rules tell
          apart, green if it is open to some source. Exact, within the analysis limit.
        </p>
        <Faults error={matrix.error} />
        {!matrix.data && !matrix.error && <Working on="What is open between zones" />}
        {matrix.data && zones.length === 0 && (
          <p className="text-dim">
            There are no zones yet. Create them in the library, or ask a question at the right.
          </p>
        )}
        {matrix.data && zones.length > 0 && (
          <MatrixPicture
            matrix={matrix.data}
            numbers={numbers}
            byId={byId}
            at={[Math.min(at[0], zones.length - 1), Math.min(at[1], zones.length - 1)]}
            onMove={setAt}
            onAsk={ask}
          />
        )}
        {matrix.data && matrix.data.of > zones.length && (
          <p className="mt-2 text-[12px] text-dim">
            The first {zones.length} of {matrix.data.of} zones; ask about the others at the right.
          </p>
        )}
      </section>
      <section
        data-print
        aria-label="Question and answer"
        className="min-w-[400px] flex-[2] overflow-y-auto border-l border-line bg-panel p-4"
      >
        <QuestionLine
          draft={draft}
          line={values.q}
          error={asked && reach.error ? faultWords(reach.error) : null}
          onLine={(q) => set({ q })}
          onLeave={toMatrix}
        />
        {!asked && (
          <div className="mt-3 text-[12px] text-dim">
            <p>Choose a cell, or ask:</p>
            <ul className="mt-1 font-mono">
              {[
                'who can reach datacentre',
                'what can guest-wifi reach',
                'who but finance can reach Ledger',
                'which features of Saltbox from guest-wifi',
              ].map((example) => (
                <li key={example}>{example}</li>
              ))}
            </ul>
          </div>
        )}
        {asked && !answer && !reach.error && <Working on="The answer" />}
        {answer && (
          <>
            <div className="mt-2 flex flex-wrap items-center gap-2">
              {mayEdit && (
                <Button main onClick={() => setKeeping(true)}>
                  Keep as check…
                </Button>
              )}
              <DropdownMenu.Root>
                <DropdownMenu.Trigger asChild>
                  <Button>Export…</Button>
                </DropdownMenu.Trigger>
                <Menu>
                  <MenuItem
                    onSelect={() => saveFile(values.q, 'csv', answerCsv(answer, numbers, byId))}
                  >
                    CSV
                  </MenuItem>
                  <MenuItem
                    onSelect={() =>
                      saveFile(values.q, 'json', `${JSON.stringify(answer, null, 2)}\n`)
                    }
                  >
                    JSON
                  </MenuItem>
                  <MenuItem onSelect={() => window.print()}>Print</MenuItem>
                </Menu>
              </DropdownMenu.Root>
              <span role="status" className="text-[12px] text-dim">
                {answer.complete
                  ? `Exact: ${deciding} of ${numbers.size + 1} rules decide some of it.`
                  : 'Analysis limit reached; the list may be incomplete.'}
              </span>
            </div>
            <div className={`mt-2 ${reach.isPlaceholderData ? 'opacity-60' : ''}`}>
              {answer.lines.length === 0 ? (
                <p className="text-dim">No connection fits the question.</p>
              ) : (
                <AnswerTable
                  answer={answer}
                  numbers={numbers}
                  byId={byId}
                  onRule={onRule}
                  onProbe={onProbe}
                />
              )}
            </div>
          </>
        )}
        {kept.length > 0 && (
          <section aria-labelledby="kept" className="mt-4 border-t border-line pt-2 text-[12px]">
            <h2 id="kept" className="font-semibold">
              Kept as checks
            </h2>
            <ul>
              {kept.map((check) => {
                const state = checks?.find((one) => one.name === check.name);
                return (
                  <li key={check.name} className="flex items-baseline gap-2 py-[2px]">
                    <button
                      type="button"
                      onClick={() => step({ q: questionOf(check) })}
                      className="min-h-[24px] cursor-pointer text-left text-accent underline underline-offset-2"
                    >
                      {check.name}
                    </button>
                    <span
                      className={state && !state.holds ? 'font-semibold text-drop' : 'text-dim'}
                    >
                      {!state ? '…' : state.holds ? 'passes' : 'fails'}
                    </span>
                  </li>
                );
              })}
            </ul>
          </section>
        )}
      </section>
      {keeping && answer && (
        <KeepAsCheck
          asked={values.q.trim()}
          answer={answer}
          handle={handle}
          onClose={() => setKeeping(false)}
        />
      )}
    </div>
  );
}
