import type { SignatureTrialResult } from '../api/types';

const SHOWN = 8;

/** What a signature would take by mistake in the captures that ship. */
export function Mistakes({ mistakes }: { mistakes: SignatureTrialResult['mistakes'] }) {
  if (mistakes.length === 0) {
    return <p className="text-[12px] text-dim">It takes nothing by mistake in the samples.</p>;
  }
  return (
    <section aria-label="Mistakes in the samples" className="mt-1 text-[12px]">
      <h3 className="text-caution">
        {mistakes.length === 1 ? 'A connection' : `${mistakes.length} connections`} of the samples
        would be taken by mistake:
      </h3>
      <ul>
        {mistakes.slice(0, SHOWN).map((mistake, i) => (
          <li key={i} className="truncate">
            <b>{mistake.application}</b>{' '}
            <span className="font-mono">
              {mistake.from} → {mistake.to} {mistake.service}
            </span>{' '}
            <span className="text-dim">in {mistake.sample}</span>
          </li>
        ))}
      </ul>
      {mistakes.length > SHOWN && <p className="text-dim">and {mistakes.length - SHOWN} more</p>}
    </section>
  );
}
