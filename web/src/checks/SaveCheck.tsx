import { useState } from 'react';
import type { Draft, Edit, ProbeAnswer, Verdict } from '../api/types';
import { letsThrough } from '../ui/verdicts';
import { Button } from '../ui/Button';

/** Keeps a probe as a check: with the verdict that it gets as the expected one, or another. */
export function SaveCheck({
  draft,
  answer,
  suggested,
  onSave,
}: {
  draft: Draft;
  answer: ProbeAnswer;
  /** A name for it. */
  suggested: string;
  onSave(edit: Edit): Promise<{ message: string } | null>;
}) {
  const [name, setName] = useState<string | null>(null);
  const [verdict, setVerdict] = useState<Verdict>('allow');
  const [byRule, setByRule] = useState(false);
  const [isProtected, setProtected] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const known = draft.checks.find((check) => check.connection === answer.line);
  if (name === null) {
    return (
      <p className="mt-2 flex items-baseline gap-2 text-[12px]">
        <Button
          small
          onClick={() => {
            setName(suggested);
            setVerdict(answer.verdict);
            setRefused(null);
          }}
        >
          Save as check
        </Button>
        {known && <span className="truncate text-dim">there is “{known.name}” for it</span>}
      </p>
    );
  }
  const save = async () => {
    const check = {
      name: name.trim(),
      connection: answer.line,
      verdict,
      rule: byRule && verdict === answer.verdict ? answer.rule : undefined,
      protected: (isProtected && letsThrough(verdict)) || undefined,
    };
    const problem = await onSave({ kind: 'putCheck', check });
    setRefused(problem ? problem.message : null);
    if (!problem) setName(null);
  };
  return (
    <form
      aria-label="New check"
      className="mt-2 rounded border border-line p-2 text-[12px]"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') setName(null);
      }}
    >
      <input
        aria-label="Name of the check"
        autoFocus
        required
        maxLength={100}
        value={name}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setName(e.target.value)}
        className="w-full rounded border border-dim px-2 py-1"
      />
      <label className="mt-1 flex items-baseline gap-2">
        expected
        <select
          aria-label="Expected verdict"
          value={verdict}
          onChange={(e) => setVerdict(e.target.value as Verdict)}
          className="rounded border border-line px-1"
        >
          {(['allow', 'drop', 'reject', 'caution'] as const).map((word) => (
            <option key={word}>{word}</option>
          ))}
        </select>
      </label>
      {answer.rule && verdict === answer.verdict && (
        <label className="mt-1 flex items-baseline gap-2">
          <input type="checkbox" checked={byRule} onChange={(e) => setByRule(e.target.checked)} />
          only by this rule
        </label>
      )}
      {letsThrough(verdict) && (
        <label className="mt-1 flex items-baseline gap-2">
          <input
            type="checkbox"
            checked={isProtected}
            onChange={(e) => setProtected(e.target.checked)}
          />
          protected: must also pass while the directory is away
        </label>
      )}
      {refused && (
        <p role="alert" className="mt-1 text-drop">
          {refused}
        </p>
      )}
      <div className="mt-2 flex justify-end gap-2">
        <Button small onClick={() => setName(null)}>
          Cancel
        </Button>
        <Button small type="submit">
          Save
        </Button>
      </div>
    </form>
  );
}
