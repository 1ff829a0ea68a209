import type { ReactNode } from 'react';
import type { Review, Verdict } from '../api/types';
import { VERDICT_CLASS } from '../ui/verdicts';
import { Wall } from '../rules/Wall';
import { whole } from '../ui/numbers';

type Changes = Review['verdicts'];

/** The connections that get another verdict, between the gate of before and the gate of after. */
export function ChangedVerdicts({
  changes,
  numbers,
  onRule,
  onProbe,
  goBack,
  comments,
}: {
  changes: Changes;
  /** Left out where the rules are of another rulebase. */
  numbers?: Map<string, number>;
  onRule(id: string): void;
  onProbe(line: string): void;
  /** Takes back the changes of a rule, where that is possible. */
  goBack?(rule: string, name: string): ReactNode;
  /** What people say about a rule. */
  comments?(rule: string, name: string): ReactNode;
}) {
  return (
    <>
      {byCause(changes).map(({ rule, name, boxes }) => (
        <section key={rule ?? ''} aria-label={name ?? 'Default rule'} className="mb-4">
          <h2 className="flex items-baseline gap-2 border-b border-line pb-1 font-semibold">
            {rule && (!numbers || numbers.has(rule)) ? (
              <button type="button" className="cursor-pointer" onClick={() => onRule(rule)}>
                {numbers && (
                  <span className="mr-2 font-normal text-dim tabular-nums">
                    {numbers.get(rule)}
                  </span>
                )}
                {name}
              </button>
            ) : (
              (name ?? 'Default rule')
            )}
            {rule && numbers && !numbers.has(rule) && (
              <span className="font-normal text-dim"> · deleted</span>
            )}
            {rule && <span className="ml-auto">{goBack?.(rule, name ?? '')}</span>}
          </h2>
          <ul className="divide-y divide-line border-b border-line">
            {boxes.map(({ connections: box, recorded, people }) => (
              <li key={box.witness} className="flex items-stretch gap-3">
                <Gate verdict={box.before} />
                <div className="min-w-0 flex-1 py-2">
                  <p className="break-words">{box.what.join(' · ') || 'every connection'}</p>
                  <p>
                    {box.before} → <b className={VERDICT_CLASS[box.after]}>{box.after}</b>
                    {recorded > 0 && (
                      <span data-recorded={recorded}>
                        {' '}
                        · <b>{whole(recorded)}</b> recorded in the last week
                        {people.length > 0 && <>: {people.join(', ')}</>}
                      </span>
                    )}
                  </p>
                  <button
                    type="button"
                    title="Probe this witness"
                    onClick={() => onProbe(box.witness)}
                    className="min-h-[24px] cursor-pointer text-left font-mono text-[12px] break-words text-dim underline decoration-line underline-offset-2"
                  >
                    {box.witness}
                  </button>
                </div>
                <Gate verdict={box.after} />
                <b className={`w-[60px] self-center ${VERDICT_CLASS[box.after]}`}>{box.after}</b>
              </li>
            ))}
          </ul>
          {comments?.(rule ?? '', name ?? 'Default rule')}
        </section>
      ))}
    </>
  );
}

/** A piece of the wall as high as its line. */
function Gate({ verdict }: { verdict: Verdict }) {
  return (
    <div className="relative w-[52px] shrink-0">
      <div className="absolute inset-0">
        <Wall verdict={verdict} gate="real" />
      </div>
    </div>
  );
}

/** The connections of each cause together, in their order. */
export function byCause(changes: Changes) {
  const out: {
    rule?: string;
    name?: string;
    boxes: Changes;
  }[] = [];
  for (const change of changes) {
    const known = out.find((cause) => cause.rule === change.rule);
    if (known) known.boxes.push(change);
    else out.push({ rule: change.rule, name: change.name, boxes: [change] });
  }
  return out;
}
