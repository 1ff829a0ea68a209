import { focusProbe } from '../ui/focus';
import { useId, useMemo, useState, type ReactNode } from 'react';
import type { Draft, Edit, ProbeAnswer, Rule } from '../api/types';
import { SaveCheck } from '../checks/SaveCheck';
import { completions, lastName } from './lineCompletion';
import { ChangeList } from './ChangeList';
import { ProbeFields } from './ProbeFields';
import { partWord } from './unless';
import { UnlessList } from './UnlessList';
import { CompletionList } from '../ui/CompletionList';
import { useCompletion } from '../ui/useCompletion';
import { useNames } from './useNames';
import { whole } from '../ui/numbers';
import { VERDICT_CLASS } from '../ui/verdicts';

const MOST_OPEN = 3;
const STAGE_WORDS: Record<string, string> = {
  'first packet': 'At the first packet',
  handshake: 'At the handshake',
  content: 'By its content',
};

/** The docked probe: a connection in one line, and at once which rule decides it and why. */
export function ProbePanel({
  draft,
  line,
  answer,
  error,
  numbers,
  byId,
  onLine,
  onRule,
  onCheck,
}: {
  draft: Draft;
  line: string;
  answer: ProbeAnswer | undefined;
  error: string | null;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onLine(line: string): void;
  onRule(id: string): void;
  /** Keeps the probe as a check; not for those who may only look. */
  onCheck?(edit: Edit): Promise<{ message: string } | null>;
}) {
  const [open, setOpen] = useState(false);
  const [inFields, setInFields] = useState(false);
  const id = useId();
  const name = open ? lastName(line) : null;
  const terms = useNames(draft, name);
  const { start, options } = useMemo(
    () => (open ? completions(draft, line, terms) : { start: 0, options: [] }),
    [draft, line, terms, open],
  );
  const take = (text: string) => {
    onLine(`${line.slice(0, start)}${text} `);
    focusProbe();
  };
  const box = useCompletion({
    options,
    text: line,
    open: options.length > 0,
    first: false,
    onOpen: setOpen,
    onText: (text) => onLine(text.replaceAll('\n', ' ')),
    onChoose: (option) => take(option.text),
    onKey: (e, highlighted) => {
      if (e.key === 'Enter' || (e.key === 'Tab' && highlighted)) {
        if (highlighted) take(highlighted.text);
        return true;
      }
      if (e.key === 'Escape') {
        if (options.length) setOpen(false);
        else document.querySelector<HTMLElement>('[data-grid]')?.focus();
      }
      return false;
    },
  });
  const decided = answer?.rule ? byId.get(answer.rule) : undefined;
  return (
    <section aria-label="Probe" className="border-b border-line p-3">
      <label {...box.label()} className="mb-1 block text-[12px] font-semibold text-dim">
        Probe
      </label>
      <textarea
        {...box.input()}
        data-probe-line
        rows={3}
        aria-invalid={error !== null}
        aria-describedby={error ? `${id}-error` : undefined}
        spellCheck={false}
        maxLength={1000}
        placeholder="Type a connection, for example from 10.4.2.9 to 192.0.2.10 tcp/443"
        onFocus={() => setOpen(true)}
        className="w-full resize-none rounded border border-dim bg-sheet px-2 py-1 font-mono text-[12px] leading-[18px]"
      />
      <CompletionList box={box} options={options} label="Completions of the connection" />
      <details
        open={inFields}
        onToggle={(e) => setInFields(e.currentTarget.open)}
        className="mt-1 text-[12px]"
      >
        <summary className="cursor-pointer text-dim">Fields</summary>
        {inFields && <ProbeFields draft={draft} line={line} onLine={onLine} />}
      </details>
      {error && (
        <p id={`${id}-error`} role="alert" className="mt-1 text-[12px] text-drop">
          {error}
        </p>
      )}
      {!line.trim() && (
        <p className="mt-1 text-[12px] text-dim">
          Type a connection to see which rule decides it. Press <kbd>w</kbd> on a rule to probe its
          witness.
        </p>
      )}
      {answer && (
        <div aria-live="polite">
          <p className="mt-2 text-[15px] font-semibold">
            <span className={VERDICT_CLASS[answer.verdict]}>{answer.verdict}</span> by{' '}
            {decided ? (
              <button
                type="button"
                className="cursor-pointer underline decoration-dim underline-offset-2"
                onClick={() => onRule(decided.id)}
              >
                rule {numbers.get(decided.id)}
              </button>
            ) : (
              'the default rule'
            )}
          </p>
          {decided && <p>{decided.name}</p>}
          <UnlessList answer={answer} numbers={numbers} byId={byId} onLine={onLine} />
          <Handled answer={answer} />
          <p className="mt-1 font-mono text-[11.5px] leading-4 text-dim">{answer.line}</p>
          {answer.notes.map((note) => (
            <p key={note} className="mt-1 text-[12px] text-caution">
              {note}
            </p>
          ))}
          <ChangeList answer={answer} numbers={numbers} byId={byId} onRule={onRule} />
          <Stages answer={answer} numbers={numbers} onRule={onRule} />
          {onCheck && (
            <SaveCheck
              key={answer.line}
              draft={draft}
              answer={answer}
              suggested={decided ? decided.name : 'Nothing else'}
              onSave={onCheck}
            />
          )}
          <Passed answer={answer} numbers={numbers} byId={byId} onRule={onRule} />
        </div>
      )}
    </section>
  );
}

/** What the deciding rule does with the connection besides its verdict. */
function Handled({ answer }: { answer: ProbeAnswer }) {
  const { log, opening, ratePlan, notice } = answer.handling;
  const parts = [
    { off: 'not logged', start: 'log at start', end: 'log at end', both: 'log start and end' }[log],
    opening,
    ratePlan && `rate plan ${ratePlan}`,
    notice && `notice ${notice}`,
  ].filter(Boolean);
  return <p className="mt-1 text-[12px] text-dim">{parts.join(' · ')}</p>;
}

/** What is done while more and more becomes known; nothing where the first packet settles it. */
function Stages({
  answer,
  numbers,
  onRule,
}: {
  answer: ProbeAnswer;
  numbers: Map<string, number>;
  onRule(id: string): void;
}) {
  if (answer.stages.length < 2) return null;
  return (
    <ol aria-label="Stages" className="mt-2 text-[12px]">
      {answer.stages.map((stage) => (
        <li key={stage.stage} className="border-t border-line py-[2px] first:border-0">
          <span className="text-dim">{STAGE_WORDS[stage.stage] ?? stage.stage}:</span>{' '}
          {stage.settled ? (
            <b className={VERDICT_CLASS[stage.verdict]}>{stage.verdict}</b>
          ) : (
            <>
              <b className="text-caution">
                {stage.sealed
                  ? 'let through; the content stays sealed'
                  : 'let through until more is known'}
              </b>
              , since {listedRules(stage.open, numbers, onRule)} may hold yet
            </>
          )}
        </li>
      ))}
    </ol>
  );
}

function listedRules(
  ids: string[],
  numbers: Map<string, number>,
  onRule: (id: string) => void,
): ReactNode {
  return (
    <>
      {ids.slice(0, MOST_OPEN).map((id, i) => (
        <span key={id}>
          {i > 0 && ', '}
          <button
            type="button"
            onClick={() => onRule(id)}
            className="cursor-pointer underline decoration-dim underline-offset-2"
          >
            rule {numbers.get(id)}
          </button>
        </span>
      ))}
      {ids.length > MOST_OPEN && ` and ${ids.length - MOST_OPEN} more`}
    </>
  );
}

function Passed({
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
  if (answer.passedCount === 0) {
    return <p className="mt-2 text-[12px] text-dim">No rule stands above it.</p>;
  }
  const nearest = [...answer.passed].reverse();
  return (
    <details open className="mt-2">
      <summary className="cursor-pointer text-[12px] text-dim">
        {answer.passedCount === 1 ? '1 rule' : `${whole(answer.passedCount)} rules`} above did not
        match
        {answer.passedCount > 1 && ', nearest first'}
      </summary>
      <ol
        className="mt-1 max-h-[230px] overflow-auto"
        tabIndex={0}
        aria-label="Rules above that did not match"
      >
        {nearest.map((passed) => (
          <li key={passed.rule} className="border-t border-line first:border-0">
            <button
              type="button"
              onClick={() => onRule(passed.rule)}
              className="flex w-full cursor-pointer gap-2 py-[2px] text-left text-[12px] hover:bg-band"
            >
              <span className="w-[24px] shrink-0 text-right text-dim">
                {numbers.get(passed.rule)}
              </span>
              <span className="min-w-0">
                <span className="block truncate">{byId.get(passed.rule)?.name}</span>
                <span className="block text-dim">
                  {passed.parts.length
                    ? `no match: ${passed.parts.map((part) => partWord(part)).join(', ')}`
                    : 'disabled'}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ol>
      {answer.passedCount > nearest.length && (
        <p className="text-[12px] text-dim">
          and {whole(answer.passedCount - nearest.length)} more above these
        </p>
      )}
    </details>
  );
}
