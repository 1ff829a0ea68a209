import { useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, Publishing, FirstGateways } from '../api/types';
import { draftKey } from '../draft/useDraft';
import { useSession } from '../shell/session';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { FirstChoice, isWhole } from './FirstChoice';

const LOOK_AGAIN = 3000;

/** How the rulebase is published, and the request for its draft as it is. */
export const usePublishing = (draft: Draft) =>
  useQuery({
    queryKey: ['publishing', draft.id, draft.version],
    queryFn: () => api.publishing(draft.id),
    refetchInterval: LOOK_AGAIN,
  });

/** A request to publish: others approve it, and it can be taken back. */
export function Approval({
  draft,
  request,
  mayPublish,
}: {
  draft: Draft;
  request: NonNullable<Publishing['request']>;
  mayPublish: boolean;
}) {
  const { person } = useSession();
  const [first, setFirst] = useState<FirstGateways | undefined>(undefined);
  const cache = useQueryClient();
  const { mutate, error, isPending } = useMutation({
    mutationFn: async (approves: boolean) => {
      if (approves) await api.approve(draft.id, draft.version, request.digest, first);
      else await api.withdrawRequest(draft.id);
    },
    onSettled: () =>
      Promise.all([
        cache.invalidateQueries({ queryKey: ['publishing', draft.id] }),
        cache.invalidateQueries({ queryKey: draftKey(draft.id) }),
        cache.invalidateQueries({ queryKey: ['revisions', draft.id] }),
      ]),
  });
  const own = request.by === person.name;
  return (
    <div role="group" aria-label="Request to publish" className="mb-3 border-y border-line py-2">
      <p>
        <b>{own ? 'You ask' : `${request.byName} asks`}</b> to publish this draft
        {request.note && `: ${request.note}`}
      </p>
      {request.overrideReason && (
        <p className="text-[12px] text-caution">In spite of blockers: {request.overrideReason}</p>
      )}
      <p className="mt-1 text-[12px] text-dim">
        Any change of the draft voids the request.
        {own && ' Another person has to approve it.'}
      </p>
      {!own && mayPublish && <FirstChoice draft={draft} value={first} onChange={setFirst} />}
      <Faults error={error} />
      <p className="mt-2 flex gap-2">
        {!own && mayPublish && (
          <Button main disabled={isPending || !isWhole(first)} onClick={() => mutate(true)}>
            Approve and publish revision {draft.revision + 1}
          </Button>
        )}
        <Button small disabled={isPending} onClick={() => mutate(false)}>
          {own ? 'Withdraw' : 'Decline'}
        </Button>
      </p>
    </div>
  );
}

/** Whether a publish needs another person's approval, for admins. */
export function FourEyes({ draft }: { draft: Draft }) {
  const cache = useQueryClient();
  const { data } = usePublishing(draft);
  const { mutate, error } = useMutation({
    mutationFn: (fourEyes: boolean) => api.requireApproval(draft.id, fourEyes),
    onSettled: () => cache.invalidateQueries({ queryKey: ['publishing', draft.id] }),
  });
  return (
    <>
      <label className="mb-4 flex items-center gap-2 text-[12px]">
        <input
          type="checkbox"
          checked={data?.fourEyes ?? false}
          onChange={(e) => mutate(e.target.checked)}
        />
        A second person has to approve each publish
      </label>
      <Faults error={error} />
    </>
  );
}
