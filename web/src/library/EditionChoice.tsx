import { useMutation } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api } from '../api/client';
import type { Draft, Editioned } from '../api/types';
import { Faults } from '../ui/Faults';
import { EditionDialog } from './EditionDialog';
import { otherEdition } from './otherEdition';

/** Which edition the draft has, and for each that is offered instead what it would change. */
export function EditionChoice({
  draft,
  of,
  word,
  offered,
  inForce,
  mayEdit,
  onRule,
  children,
}: {
  draft: Draft;
  of: Editioned;
  /** What stands before the name of an edition. */
  word: string;
  /** Names of editions. */
  offered: string[];
  /** A description of the draft's edition. */
  inForce: ReactNode;
  mayEdit: boolean;
  onRule(id: string): void;
  children?: ReactNode;
}) {
  const [compared, setCompared] = useState<string | null>(null);
  const pinned = draft.editions[of];
  const first = useMutation({
    mutationFn: (name: string) => api.takeEdition(draft.id, of, name, draft.version),
  });
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[12px]">
      {pinned && inForce}
      {offered
        .filter((name) => name !== pinned && (pinned || mayEdit))
        .map((name) => (
          <button
            key={name}
            type="button"
            onClick={() => (pinned ? setCompared(name) : first.mutate(name))}
            className="cursor-pointer text-accent underline underline-offset-2"
          >
            {pinned ? `What would ${name} change?` : `Take ${word} ${name}`}
          </button>
        ))}
      {children}
      <Faults error={first.error} />
      {compared && pinned && (
        <EditionDialog
          draft={draft}
          compared={otherEdition(draft, of, compared)}
          mayEdit={mayEdit}
          onClose={() => setCompared(null)}
          onRule={onRule}
        />
      )}
    </div>
  );
}
