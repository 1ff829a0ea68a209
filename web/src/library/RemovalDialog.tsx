import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, HandlingKind, ObjectKind } from '../api/types';
import { describeRuleChange } from '../draft/describeEdit';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Block, many, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import { Working } from '../ui/QuestionProgress';

/** What taking away an object that is in use would change, before it is done. */
export function RemovalDialog({
  draft,
  kind,
  name,
  onClose,
}: {
  draft: Draft;
  kind: ObjectKind | HandlingKind;
  name: string;
  onClose(): void;
}) {
  const { data: effect, error: failed } = useQuery({
    queryKey: ['removal', draft.id, draft.version, kind, name],
    queryFn: ({ signal }) => api.effectOfRemoval(draft.id, kind, name, signal),
    staleTime: Infinity,
    retry: false,
  });
  const removal = useMutation({
    mutationFn: () => api.removeObject(draft.id, kind, name, draft.version),
    onSuccess: onClose,
  });
  return (
    <Modal title={`Delete ${name}`} onClose={onClose} wide>
      <Faults error={removal.error ?? failed} />
      {!effect && !failed && <Working on="What it changes" />}
      {effect && (
        <>
          <Verdicts verdicts={effect.verdicts} open={effect.complete ? null : MAY_BE_MORE} />
          <Block title={`${many(effect.rules.length, 'rule')} would no longer use it`}>
            {effect.rules.map(({ before, after }) => (
              <li key={before.id} className="py-1">
                {before.name} <span className="text-dim">{describeRuleChange(before, after)}</span>
              </li>
            ))}
          </Block>
          {kind !== 'rate plan' && kind !== 'notice' && (
            <p className="mb-3 text-[12px] text-dim">
              A rule whose criterion becomes empty is disabled, since it would match anything.
            </p>
          )}
        </>
      )}
      <div className="sticky -bottom-4 -mb-4 flex justify-end gap-2 bg-sheet py-3">
        <Button onClick={onClose}>Keep {name}</Button>
        <Button main disabled={!effect || removal.isPending} onClick={() => removal.mutate()}>
          Delete
        </Button>
      </div>
    </Modal>
  );
}
