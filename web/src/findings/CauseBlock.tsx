import { useEffect } from 'react';
import type { Draft, Edit, Rule } from '../api/types';
import { Flips, many, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import { longFinding } from '../draft/findings';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import type { Cause } from './causes';
import { RuleLine } from './RuleLine';
import { useRepairs, type Way } from './useRepairs';

const MOST_SHOWN = 9;

/** The findings of one cause, with the rules that they are about and the ways out. */
export function CauseBlock({
  cause,
  draft,
  numbers,
  byId,
  focused,
  chosen,
  mayEdit,
  marked,
  onFocus,
  onRule,
  onProbe,
  onWays,
  onChoose,
  onApply,
  onAccept,
}: {
  cause: Cause;
  draft: Draft;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  focused: boolean;
  /** Index of the repair that is looked at. */
  chosen: number | null;
  mayEdit: boolean;
  /** The repair that is marked to be applied with others. */
  marked: string | undefined;
  onFocus(): void;
  onRule(id: string): void;
  onProbe(line: string): void;
  /** Tells which repairs there are. */
  onWays(ways: Way[]): void;
  onChoose(way: number | null): void;
  onApply(edit: Edit): void;
  onAccept(): void;
}) {
  const { ways, error } = useRepairs(cause, draft, numbers, mayEdit);
  useEffect(() => {
    if (ways) onWays(ways);
  });
  const shown = cause.found.slice(0, MOST_SHOWN);
  const { rule, finding } = cause.found[0]!;
  const lines = [
    ...cause.causes.map((one) => ({ rule: one, found: undefined })),
    ...shown.map((one) => ({ rule: one.rule, found: one.finding })),
  ].sort((a, b) => (numbers.get(a.rule.id) ?? 0) - (numbers.get(b.rule.id) ?? 0));
  return (
    <section
      aria-label={cause.title}
      data-cause={cause.key}
      data-focused={focused || undefined}
      onClick={onFocus}
      className={`flex gap-4 border-b border-l-[4px] border-b-line px-4 py-3 ${
        focused
          ? 'border-l-dim bg-sheet group-focus-within:border-l-accent'
          : 'border-l-transparent'
      }`}
    >
      <div className="min-w-0 flex-1">
        <h2 className="mb-1">
          <b>{cause.title}</b> <span className="text-[12px] text-dim">{cause.subtitle}</span>
        </h2>
        {lines.map(({ rule: one, found }) => (
          <RuleLine
            key={`${one.id} ${found?.kind}`}
            rule={one}
            number={numbers.get(one.id)}
            standing={draft.standings[one.id]}
            found={found}
            onOpen={() => onRule(one.id)}
          />
        ))}
        {cause.found.length > shown.length && (
          <p className="border-t border-line py-1 text-[12px] text-dim">
            and {many(cause.found.length - shown.length, 'rule')} more
          </p>
        )}
        <p className="mt-1 text-[12px] text-dim">{longFinding(rule, finding, numbers, byId)}</p>
        {finding.witness && (
          <p className="mt-1 font-mono text-[11.5px] break-words text-dim">
            witness {finding.witness}{' '}
            <Button small onClick={() => onProbe(finding.witness!)}>
              Probe <kbd className="font-sans">w</kbd>
            </Button>
          </p>
        )}
      </div>
      <div className="w-[300px] shrink-0 border-l border-line pl-4">
        <h3 className="mb-1 text-[12px] font-semibold">Repairs</h3>
        {marked && <p className="mb-1 text-[12px] text-accent">marked: {marked}</p>}
        <Faults error={error} />
        {!ways && !error && <p className="text-[12px] text-dim">Asking…</p>}
        {ways?.length === 0 && (
          <p className="text-[12px] text-dim">
            {!mayEdit
              ? 'None shown to those who only view.'
              : finding.kind === 'generalised'
                ? 'Nothing to do: a general rule below its exceptions is as it should be. Move it if the exceptions are none.'
                : finding.kind === 'too-broad'
                  ? 'No use of it is recorded, and no check gets to it. Edit the rule.'
                  : 'No automatic repair. Edit the rule.'}
          </p>
        )}
        <ol>
          {ways?.slice(0, 9).map((way, i) => (
            <li key={way.summary} className="border-b border-line py-1">
              <button
                type="button"
                tabIndex={-1}
                aria-expanded={chosen === i}
                onClick={() => onChoose(chosen === i ? null : i)}
                className="flex w-full cursor-pointer items-baseline gap-2 text-left"
              >
                <kbd className="shrink-0 rounded border border-dim px-[6px] font-mono text-[12px]">
                  {i + 1}
                </kbd>
                <span>
                  <span className="font-semibold">{way.summary}</span>
                  <span className="block text-[12px] text-dim">{effectWords(way)}</span>
                </span>
              </button>
              {chosen === i && way.effect && (
                <div className="mt-1 text-[12px]">
                  {way.effect.verdicts.length > 0 && (
                    <Verdicts
                      verdicts={way.effect.verdicts}
                      open={way.effect.complete ? null : MAY_BE_MORE}
                    />
                  )}
                  <Flips flips={way.effect.checks} />
                  <Button main small onClick={() => onApply(way.edit)}>
                    Apply <kbd className="font-sans">Enter</kbd>
                  </Button>
                </div>
              )}
            </li>
          ))}
        </ol>
        {mayEdit && (
          <Button small className="mt-2" onClick={onAccept}>
            Accept… <kbd className="font-sans">a</kbd>
          </Button>
        )}
      </div>
    </section>
  );
}

function effectWords({ effect }: Way): string {
  if (!effect) return 'asking what it would change…';
  const parts = [
    effect.verdicts.length > 0 &&
      `${many(effect.verdicts.length, 'kind')} of connections ${effect.verdicts.length === 1 ? 'gets' : 'get'} another verdict`,
    effect.checks.length > 0 && `${many(effect.checks.length, 'check')} with another result`,
  ].filter(Boolean);
  if (parts.length > 0) return parts.join(' · ');
  return effect.complete ? 'no verdict changes' : MAY_BE_MORE;
}
