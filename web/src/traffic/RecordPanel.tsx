import type { LogRow, Rule } from '../api/types';
import { Button } from '../ui/Button';
import { size, whole } from '../ui/numbers';

/** When it was decided, by the word of the stage. */
const STAGES: Record<string, string> = {
  'first packet': ', at the first packet',
  handshake: ', after the handshake',
  content: ', by its content',
  hold: ', which holds whoever opened it',
};

/** One record in full, and the ways from it. */
export function RecordPanel({
  row,
  rule,
  number,
  observed,
  onRule,
  onThen,
  onProbe,
  onKeep,
  onOnly,
}: {
  row: LogRow;
  /** The rule that decided, as it is in the draft; undefined if it was deleted. */
  rule: Rule | undefined;
  number: number | undefined;
  /** The rule that only observes and would have decided, as it is in the draft. */
  observed: { number: number; name: string } | undefined;
  onRule(id: string): void;
  /** Shows the rule as it was in the revision that decided. */
  onThen(revision: number, rule: string): void;
  onProbe(line: string): void;
  /** Keeps the connection as a check; not for those who only view. */
  onKeep?(): void;
  /** Filters by the rule that decided. */
  onOnly(): void;
}) {
  const length = row.phase === 'end' ? `${(row.millis / 1000).toFixed(1)} s` : null;
  const was = row.rule
    ? `rule ${row.ruleNumber ?? '?'} “${row.ruleName ?? row.rule}” of revision ${row.revision}`
    : `the default rule, in revision ${row.revision}`;
  return (
    <section aria-label="Record" className="shrink-0 bg-panel px-4 py-3">
      <p>
        {row.person && <b className="mr-2">{row.person}</b>}
        <span className="font-mono text-[12px]">
          {row.from} in {row.fromZone} → {row.to} in {row.toZone} {row.service}
          {row.sourcePort !== undefined && ` from port ${row.sourcePort}`}
        </span>
      </p>
      <p className="mt-1 text-[12px] text-dim">
        {[
          row.application,
          row.site,
          row.file,
          row.device,
          row.phase === 'start' ? 'logged at its start' : `open for ${length}`,
          row.packets > 0 &&
            `${whole(row.packets)} ${row.packets === 1 ? 'packet' : 'packets'}, ${size(row.bytes)}`,
          row.gateway,
        ]
          .filter(Boolean)
          .join(' · ')}
      </p>
      <p className="mt-1">
        <b>{row.verdict}</b> by {was}
        {row.stage && STAGES[row.stage]}
        {row.rule && !rule && '; the draft no longer has it'}
        {row.observedRule && (
          <span className="text-caution">
            {' '}
            · observed: <b>{row.observedVerdict}</b> by{' '}
            {observed ? `rule ${observed.number} “${observed.name}”` : row.observedRule}
          </span>
        )}
      </p>
      <p className="mt-2 flex flex-wrap gap-2">
        {rule && (
          <Button small onClick={() => onRule(rule.id)}>
            Rule {number} now <kbd className="font-sans text-dim">Enter</kbd>
          </Button>
        )}
        {row.rule && (
          <Button small onClick={() => onThen(row.revision, row.rule!)}>
            Rule {row.ruleNumber} then <kbd className="font-sans text-dim">t</kbd>
          </Button>
        )}
        <Button small onClick={() => onProbe(row.connection)}>
          Probe it on the draft <kbd className="font-sans text-dim">p</kbd>
        </Button>
        {onKeep && (
          <Button small onClick={onKeep}>
            Keep as check… <kbd className="font-sans text-dim">k</kbd>
          </Button>
        )}
        <Button small onClick={onOnly}>
          Only this rule <kbd className="font-sans text-dim">r</kbd>
        </Button>
      </p>
    </section>
  );
}
