import { useState } from 'react';
import type { Rule } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { FormDialog } from '../ui/FormDialog';
import { ASKS, creating, type MissingObject } from './missingObjects';

/** Objects that pasted rules name and the draft lacks: created with the rules, in one step. */
export default function MissingDialog({
  missing,
  rules,
  below,
  handle,
  onPasted,
  onClose,
}: {
  missing: MissingObject[];
  rules: Rule[];
  /** Id of the rule below which they are pasted. */
  below: string;
  handle: DraftHandle;
  onPasted(rules: Rule[]): void;
  onClose(): void;
}) {
  const [texts, setTexts] = useState<string[]>(() => missing.map(() => ''));
  const many = missing.length === 1 ? '1 object is' : `${missing.length} objects are`;
  return (
    <FormDialog
      title="Paste rules"
      wide
      save={`Create and paste ${rules.length === 1 ? 'the rule' : `${rules.length} rules`}`}
      onClose={onClose}
      onSave={() =>
        handle.edit({
          kind: 'batch',
          edits: [
            ...missing.map((one, i) => creating(one, texts[i]!)),
            { kind: 'insertRules', rules, place: { below } },
          ],
        })
      }
      onSaved={() => {
        onPasted(rules);
        onClose();
      }}
    >
      <p className="mb-3">
        {many} missing here. Tell what each stands for; they are created with the rules.
      </p>
      <ul className="mb-3 max-h-[320px] overflow-auto">
        {missing.map((one, i) => {
          const asks = ASKS[one.kind] ?? { label: 'members', hint: '' };
          return (
            <li key={`${one.kind} ${one.name}`} className="mb-2">
              <label className="grid grid-cols-[200px_1fr] items-baseline gap-3">
                <span className="break-words">
                  <b>{one.name}</b>{' '}
                  <span className="text-[12px] text-dim">
                    {one.kind}, {asks.label}
                  </span>
                </span>
                <input
                  autoFocus={i === 0}
                  required={!asks.optional}
                  placeholder={asks.hint}
                  value={texts[i]}
                  onChange={(e) =>
                    setTexts(texts.map((text, j) => (j === i ? e.target.value : text)))
                  }
                  className="rounded border border-dim px-2 py-1 font-mono text-[12px]"
                />
              </label>
            </li>
          );
        })}
      </ul>
    </FormDialog>
  );
}
