import { useQueryClient } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api } from '../api/client';
import type { Draft, RestoredState } from '../api/types';
import { draftKey } from '../draft/useDraft';
import { FormDialog } from '../ui/FormDialog';

/** A link that takes the draft, or some of its rules, back to another state. */
export function GoBack({
  draft,
  to,
  rules,
  link,
  label,
  title,
  children,
}: {
  draft: Draft;
  to: RestoredState;
  /** Ids of the rules that go back; none for everything. */
  rules?: string[];
  /** What the link says. */
  link: string;
  /** What a screen reader says of the link. */
  label: string;
  title: string;
  /** The sentence that explains what changes in the draft. */
  children: ReactNode;
}) {
  const cache = useQueryClient();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <button
        type="button"
        aria-label={label}
        onClick={() => setAsking(true)}
        className="min-h-[24px] cursor-pointer text-[12px] font-normal text-accent underline underline-offset-2"
      >
        {link}
      </button>
      {asking && (
        <FormDialog
          title={title}
          save="Go back"
          onSave={async () => {
            await api.restore(draft.id, draft.version, to, rules);
            await cache.invalidateQueries({ queryKey: draftKey(draft.id) });
          }}
          onClose={() => setAsking(false)}
        >
          <p className="mb-3">{children} One undo takes it back.</p>
        </FormDialog>
      )}
    </>
  );
}
