import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { FormDialog } from '../ui/FormDialog';
import type { Cause } from './causes';

const LABEL = 'mb-3 block text-[12px] text-dim';
const BOX = 'mt-1 block w-full rounded border border-dim bg-sheet px-2 py-1 text-[13px] text-ink';

/** Accepts the findings of one cause as they are, with a reason. */
export function AcceptDialog({
  cause,
  draft,
  onClose,
}: {
  cause: Cause;
  draft: Draft;
  onClose(): void;
}) {
  const queries = useQueryClient();
  const [reason, setReason] = useState('');
  const [askAgain, setAskAgain] = useState('');
  return (
    <FormDialog
      title={`Accept: ${cause.title}`}
      save="Accept"
      onSave={async () => {
        for (const { rule, finding } of cause.found) {
          await api.accept(draft.id, {
            rule: rule.id,
            kind: finding.kind,
            reason,
            ...(askAgain && { askAgain }),
          });
        }
        await queries.invalidateQueries({ queryKey: ['accepted', draft.id] });
      }}
      onClose={onClose}
    >
      <p className="mb-3 text-dim">
        It is listed no more and stops no publish. It comes back when the rule or one of its causes
        changes.
      </p>
      <label className={LABEL}>
        Why it is as it should be
        <textarea
          autoFocus
          required
          rows={3}
          maxLength={1000}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          className={BOX}
        />
      </label>
      <label className={LABEL}>
        Ask again on (never if it is empty)
        <input
          type="date"
          value={askAgain}
          onChange={(e) => setAskAgain(e.target.value)}
          className={BOX}
        />
      </label>
    </FormDialog>
  );
}
