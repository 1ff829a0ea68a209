import type { ProbeAnswer, Rule } from '../api/types';
import { VERDICT_CLASS } from '../ui/verdicts';
import { partWord } from './unless';

type Change = ProbeAnswer['changes'][number];

/** A change in words, behind the name of its rule. */
export function changeWords(change: Change): string {
  switch (change.kind) {
    case 'widened':
      return `if its ${partWord(change.part ?? '')} held the connection`;
    case 'enabled':
      return 'if it were enabled';
    case 'moved above':
      return 'if it stood above the rule that decides';
    case 'removed':
      return 'if it excepted the connection, or were disabled';
  }
}

/** The nearest single changes that would give the connection the other verdict. */
export function ChangeList({
  answer,
  numbers,
  byId,
  onRule,
}: {
  answer: ProbeAnswer;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onRule(id: string): void;
}) {
  if (answer.changes.length === 0) return null;
  return (
    <details className="mt-2">
      <summary className="cursor-pointer text-[12px] text-dim">What would change it</summary>
      <ul className="mt-1 text-[12px]">
        {answer.changes.map((change) => (
          <li
            key={`${change.kind} ${change.rule}`}
            className="border-t border-line py-[2px] first:border-0"
          >
            <b className={VERDICT_CLASS[change.verdict]}>{change.verdict}</b>
            {change.kind === 'removed' &&
              ` by ${change.by ? `rule ${numbers.get(change.by) ?? '?'}` : 'the default rule'}`}{' '}
            <button
              type="button"
              onClick={() => onRule(change.rule)}
              className="cursor-pointer text-left text-accent underline underline-offset-2"
            >
              rule {numbers.get(change.rule) ?? '?'} {byId.get(change.rule)?.name}
            </button>{' '}
            {changeWords(change)}
          </li>
        ))}
      </ul>
    </details>
  );
}
