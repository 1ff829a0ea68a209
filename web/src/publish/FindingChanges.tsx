import type { Review } from '../api/types';
import { FINDING_WORDS, type FindingKind } from '../draft/findings';

/** The findings that are new in the draft, and those that are gone. */
export function FindingChanges({ review, onRule }: { review: Review; onRule(id: string): void }) {
  return (
    <>
      <Findings
        title={`${review.newFindings.length} new ${review.newFindings.length === 1 ? 'finding' : 'findings'}`}
        findings={review.newFindings}
        onRule={onRule}
      />
      <Findings
        title={`${review.goneFindings.length} ${review.goneFindings.length === 1 ? 'finding' : 'findings'} fewer`}
        findings={review.goneFindings}
      />
    </>
  );
}

function Findings({
  title,
  findings,
  onRule,
}: {
  title: string;
  findings: Review['newFindings'];
  onRule?(id: string): void;
}) {
  if (findings.length === 0) return null;
  return (
    <section aria-label={title} className="mb-3">
      <h2 className="font-semibold">{title}</h2>
      <ul className="divide-y divide-line border-y border-line">
        {findings.map(({ rule, name, finding }) => (
          <li key={rule + finding.kind} className="py-1">
            {onRule ? (
              <button
                type="button"
                className="min-h-[24px] cursor-pointer underline decoration-line underline-offset-2"
                onClick={() => onRule(rule)}
              >
                {name}
              </button>
            ) : (
              name
            )}{' '}
            <span className={finding.severity === 'error' ? 'text-drop' : 'text-dim'}>
              {FINDING_WORDS[finding.kind as FindingKind]}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
