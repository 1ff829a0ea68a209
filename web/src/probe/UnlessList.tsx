import type { ProbeAnswer, Rule } from '../api/types';
import { conditionOf } from './unless';
import { VERDICT_CLASS } from '../ui/verdicts';

const MOST_SHOWN = 6;

/** What else may decide where something is unsaid; each line becomes a complete probe. */
export function UnlessList({
  answer,
  numbers,
  byId,
  onLine,
}: {
  answer: ProbeAnswer;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onLine(line: string): void;
}) {
  if (answer.certain) {
    return answer.unless.length > 0 ? (
      <p className="mt-1 text-[12px] text-dim">
        Certain: the verdict is the same for every connection that agrees with the line
        {` (also by ${listed(answer.unless, numbers)}).`}
      </p>
    ) : null;
  }
  return (
    <>
      <ul aria-label="Unless" className="mt-1 text-[12px]">
        {answer.unless.slice(0, MOST_SHOWN).map((unless) => {
          const rule = unless.rule ? byId.get(unless.rule) : undefined;
          const condition = conditionOf(unless, rule);
          return (
            <li key={unless.rule ?? 'default'} className="border-t border-line first:border-0">
              <button
                type="button"
                onClick={() => onLine(unless.line)}
                title={`Probe: ${unless.line}`}
                className="block w-full cursor-pointer py-[2px] text-left hover:bg-accent-soft"
              >
                <span className="text-dim">{condition ? 'unless ' : 'otherwise '}</span>
                {condition && <span>{condition}: </span>}
                <b className={VERDICT_CLASS[unless.verdict]}>{unless.verdict}</b>
                {` by ${rule ? `rule ${numbers.get(rule.id)}` : 'the default rule'}`}
              </button>
            </li>
          );
        })}
      </ul>
      {answer.unless.length > MOST_SHOWN && (
        <p className="text-[12px] text-dim">
          {answer.unless.length - MOST_SHOWN === 1
            ? '1 more rule may decide'
            : `${answer.unless.length - MOST_SHOWN} more rules may decide`}
          ; add more to the line.
        </p>
      )}
      {!answer.complete && (
        <p className="text-[12px] text-caution">
          Analysis limit reached; the list may be incomplete.
        </p>
      )}
    </>
  );
}

function listed(others: ProbeAnswer['unless'], numbers: Map<string, number>): string {
  const names = others
    .slice(0, MOST_SHOWN)
    .map((other) => (other.rule ? `rule ${numbers.get(other.rule)}` : 'the default rule'));
  const more = others.length - names.length;
  return names.join(', ') + (more > 0 ? ` and ${more} more` : '');
}
