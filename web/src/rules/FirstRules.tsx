import { useState } from 'react';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { VERDICT_CLASS } from '../ui/verdicts';
import { offeredRules, takeRule } from './firstRules';

/** The first rules that an empty rulebase is offered: ordinary rules, taken one by one. */
export function FirstRules({
  handle,
  onNew,
}: {
  handle: DraftHandle;
  /** Starts an empty rule. */
  onNew(): void;
}) {
  const draft = handle.draft!;
  const [problem, setProblem] = useState<unknown>(null);
  const [closed, setClosed] = useState(false);
  const offers = offeredRules(draft);
  if (offers.length === 0 || closed) return null;
  return (
    <section
      aria-label="First rules"
      className="max-h-[60%] shrink-0 overflow-y-auto border-b border-line bg-sheet px-4 py-3"
    >
      <div className="flex items-baseline gap-3">
        <h2 className="shrink-0 font-semibold">First rules</h2>
        <p className="text-[12px] text-dim">
          Ordinary rules that most rulebases begin with. Each is inserted at its place and can be
          changed; or write your own.
        </p>
        <span className="ml-auto flex shrink-0 gap-2">
          <Button small onClick={onNew}>
            New rule <kbd className="font-sans text-dim">Ctrl+Enter</kbd>
          </Button>
          <Button small onClick={() => setClosed(true)}>
            Hide
          </Button>
        </span>
      </div>
      <Faults error={problem} />
      <ul className="mt-2 divide-y divide-line border-t border-line">
        {offers.map((offer) => (
          <li key={offer.id} className="flex items-baseline gap-3 py-[6px]">
            <span className="min-w-0 flex-1">
              <b>{offer.name}</b>{' '}
              <span className={`text-[12px] font-semibold ${VERDICT_CLASS[offer.rule.verdict]}`}>
                {offer.rule.observeOnly ? 'observes' : offer.rule.verdict}
              </span>
              <span className="block text-[12px] text-dim">
                {offer.why}
                {offer.needs && `; needs ${offer.needs}`}
              </span>
            </span>
            <Button
              small
              disabled={offer.needs !== undefined}
              aria-label={`Insert “${offer.name}”`}
              onClick={() => void handle.edit(takeRule(draft, offer)).then(setProblem)}
            >
              Insert
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
