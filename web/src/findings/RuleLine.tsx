import type { Rule, Standing, Verdict } from '../api/types';
import { chipsOf, PARTS } from '../draft/criteria';
import { FINDING_WORDS, meshWords, openHoles, type FindingKind } from '../draft/findings';
import { ChipView } from '../rules/ChipView';
import { Mesh } from '../rules/Mesh';
import { Wall } from '../rules/Wall';

const MOST_CHIPS = 6;
const COLOUR: Record<Verdict, string> = {
  allow: 'text-allow',
  drop: 'text-drop',
  reject: 'text-reject',
  caution: 'text-caution',
};

/** A rule as one line of chips, where it is read and not edited. */
export function RuleLine({
  rule,
  number,
  standing,
  found,
  onOpen,
}: {
  rule: Rule;
  number: number | undefined;
  standing: Standing | undefined;
  /** What is found of it; nothing for a rule that causes it. */
  found?: { kind: FindingKind; severity: 'note' | 'warning' | 'error' };
  onOpen(): void;
}) {
  const chips = PARTS.flatMap((part) => chipsOf(rule, part).map((chip) => ({ part, chip })));
  const shown = chips.slice(0, MOST_CHIPS);
  const holes = openHoles(standing);
  return (
    <div className="flex min-h-[44px] border-t border-line">
      <div className="flex w-[86px] shrink-0 items-start gap-2 pt-[6px]">
        <span className="w-[30px] text-right text-dim">{number}</span>
        <span className="mt-[5px]">
          <Mesh open={holes} says={meshWords(holes, standing, null)} />
        </span>
      </div>
      <div className="min-w-0 flex-1 py-[4px]">
        <button
          type="button"
          tabIndex={-1}
          onClick={onOpen}
          className="max-w-full cursor-pointer truncate text-left font-semibold hover:underline"
        >
          {rule.name}
          {found && (
            <span
              className={`pl-2 text-[12px] ${
                found.severity === 'error'
                  ? 'text-drop'
                  : found.severity === 'warning'
                    ? 'text-caution'
                    : 'text-dim'
              }`}
            >
              {FINDING_WORDS[found.kind]}
            </span>
          )}
        </button>
        <div className="flex min-w-0 flex-wrap items-center gap-1 text-[12px] text-dim">
          {shown.map(({ part, chip }, i) => (
            <span key={i} className="flex min-w-0 items-center gap-1">
              {part !== shown[i - 1]?.part && part}
              <ChipView chip={chip} />
            </span>
          ))}
          {chips.length > shown.length && <span>+{chips.length - shown.length}</span>}
          {chips.length === 0 && <span>any connection</span>}
        </div>
      </div>
      <div className="flex w-[130px] shrink-0 self-stretch">
        <Wall verdict={rule.verdict} gate={standing?.kind === 'decides' ? 'real' : 'ghost'} />
        <span className={`flex items-center pl-1 font-semibold ${COLOUR[rule.verdict]}`}>
          {rule.verdict}
        </span>
      </div>
    </div>
  );
}
