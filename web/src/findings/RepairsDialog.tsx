import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import { Flips, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Working } from '../ui/QuestionProgress';
import { allTogether, type MarkedRepairs } from './repairsTogether';

/** Several repairs with their common effect, before they are applied in one step. */
export function RepairsDialog({
  marked,
  handle,
  onApplied,
  onClose,
}: {
  marked: MarkedRepairs;
  handle: DraftHandle;
  onApplied(): void;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const edit = allTogether(marked);
  const { data: effect, error } = useQuery({
    queryKey: ['effect', draft.id, draft.version, edit],
    queryFn: ({ signal }) => api.effect(draft.id, edit, signal),
    staleTime: Infinity,
  });
  const apply = useMutation({
    mutationFn: async () => {
      const problem = await handle.edit(edit, draft.version);
      if (problem) throw problem;
    },
    onSuccess: onApplied,
  });
  return (
    <Modal title={`${marked.size} repairs at once`} onClose={onClose} wide>
      <Faults error={apply.error ?? error} />
      <ul className="mb-3 list-disc pl-5">
        {[...marked].map(([key, { summary }]) => (
          <li key={key}>{summary}</li>
        ))}
      </ul>
      {!effect && !error && <Working on="What they would change together" />}
      {effect && (
        <>
          {effect.verdicts.length === 0 && effect.complete ? (
            <p className="mb-3 text-dim">No connection gets another verdict.</p>
          ) : (
            <Verdicts verdicts={effect.verdicts} open={effect.complete ? null : MAY_BE_MORE} />
          )}
          <Flips flips={effect.checks} of={draft.checks.length} />
        </>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button main autoFocus disabled={apply.isPending} onClick={() => apply.mutate()}>
          Apply all
        </Button>
      </div>
    </Modal>
  );
}
