import { useState } from 'react';
import type { ReachAnswer } from '../api/types';
import { setOf } from '../draft/checkSet';
import type { DraftHandle } from '../draft/useDraft';
import { Area, Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { letsThrough } from '../ui/verdicts';

/** Keeps a question as a check: its connections all have to be let through, or all be refused. */
export function KeepAsCheck({
  asked,
  answer,
  handle,
  onClose,
}: {
  /** The question as it was typed. */
  asked: string;
  answer: ReachAnswer;
  handle: DraftHandle;
  onClose(): void;
}) {
  const through = answer.lines.filter((line) => letsThrough(line.verdict)).length;
  const [name, setName] = useState(asked.slice(0, 100));
  const [question, setQuestion] = useState(answer.question);
  const [verdict, setVerdict] = useState<'allow' | 'drop'>(
    through === answer.lines.length ? 'allow' : 'drop',
  );
  const unchanged = question.trim() === answer.question;
  const wrong = verdict === 'drop' ? through : answer.lines.length - through;
  return (
    <FormDialog
      title="Keep as check"
      onClose={onClose}
      onSave={() =>
        handle.edit({
          kind: 'putCheck',
          check: { name: name.trim(), connection: setOf(question), verdict },
        })
      }
    >
      <Field
        label="Name"
        autoFocus
        required
        maxLength={100}
        value={name}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setName(e.target.value)}
      />
      <Area
        label="Connections"
        mono
        rows={3}
        value={question}
        spellCheck={false}
        hint="“not” begins an exception, such as person not finance."
        onChange={(e) => setQuestion(e.target.value.replaceAll('\n', ' '))}
      />
      <fieldset className="mb-3">
        <legend className="text-[12px] font-semibold">Expected</legend>
        {(['drop', 'allow'] as const).map((one) => (
          <label key={one} className="flex items-baseline gap-2 py-[2px]">
            <input
              type="radio"
              name="expected"
              checked={verdict === one}
              onChange={() => setVerdict(one)}
            />
            {one === 'drop' ? 'none of them is let through' : 'all of them are let through'}
          </label>
        ))}
      </fieldset>
      <p
        role="status"
        className={`mb-3 text-[12px] ${unchanged && wrong > 0 ? 'text-drop' : 'text-dim'}`}
      >
        {!unchanged
          ? 'It runs when it is saved, and after every change.'
          : wrong > 0
            ? `It fails now: ${wrong} of ${answer.lines.length} lines of the answer differ.`
            : 'It passes now, and runs again after every change.'}
      </p>
    </FormDialog>
  );
}
