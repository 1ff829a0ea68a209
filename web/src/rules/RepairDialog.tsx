import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Edit, Rule } from '../api/types';
import { Flips, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { FINDING_WORDS, type FindingKind } from '../draft/findings';
import type { DraftHandle } from '../draft/useDraft';
import { Working } from '../ui/QuestionProgress';

/** The repairs of a finding, each with its effect, before one is applied. */
export default function RepairDialog({
  rule,
  finding,
  handle,
  onClose,
}: {
  rule: Rule;
  finding: FindingKind;
  handle: DraftHandle;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const { data: ways, error: failed } = useQuery({
    queryKey: ['repairs', draft.id, draft.version, rule.id, finding],
    queryFn: ({ signal }) => api.repairs(draft.id, rule.id, finding, signal),
    staleTime: Infinity,
  });
  const repair = useMutation({
    mutationFn: async (edit: Edit) => {
      const problem = await handle.edit(edit, draft.version);
      if (problem) throw problem;
    },
    onSuccess: onClose,
  });
  return (
    <Modal title={`Repairs of “${rule.name}”: ${FINDING_WORDS[finding]}`} onClose={onClose} wide>
      <Faults error={repair.error ?? failed} />
      {!ways && !failed && <Working on="What each would change" />}
      {ways?.length === 0 && <p className="text-dim">No automatic repair. Edit the rule.</p>}
      {ways?.map((way) => (
        <section
          key={way.summary}
          aria-label={way.summary}
          className="mb-4 border-t border-line pt-3"
        >
          <div className="mb-2 flex items-baseline gap-3">
            <h3 className="min-w-0 flex-1 font-semibold">{way.summary}</h3>
            <Button main onClick={() => repair.mutate(way.edit)}>
              Apply
            </Button>
          </div>
          {way.verdicts.length === 0 && way.complete ? (
            <p className="text-dim">No connection gets another verdict.</p>
          ) : (
            <Verdicts verdicts={way.verdicts} open={way.complete ? null : MAY_BE_MORE} />
          )}
          <Flips flips={way.checks} of={draft.checks.length} />
        </section>
      ))}
      <div className="flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Modal>
  );
}
