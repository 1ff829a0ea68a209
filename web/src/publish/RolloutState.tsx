import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';

const LOOK_AGAIN = 2000;

/** A revision that some gateways follow first, and the way to go on or to stop. */
export function RolloutState({ id, mayPublish }: { id: number; mayPublish: boolean }) {
  const cache = useQueryClient();
  const { data: rollout } = useQuery({
    queryKey: ['rollout', id],
    queryFn: () => api.rollout(id),
    refetchInterval: LOOK_AGAIN,
  });
  const act = useMutation({
    mutationFn: (go: boolean) => (go ? api.finishRollout(id) : api.stopRollout(id)),
    onSettled: () =>
      Promise.all([
        cache.invalidateQueries({ queryKey: ['rollout', id] }),
        cache.invalidateQueries({ queryKey: ['gateways', id] }),
      ]),
  });
  if (!rollout?.revision) return null;
  const { revision, first, restAt, stopped } = rollout;
  return (
    <div role="status" className="mb-2 rounded border border-line bg-sheet p-2 text-[12px]">
      <p>
        <b>Revision {revision}</b> is on {first.join(', ')} first.{' '}
        {stopped ? (
          <span className="text-drop">The others do not follow: {stopped}</span>
        ) : (
          <>
            The others follow at{' '}
            {new Date(restAt!).toLocaleTimeString(undefined, { timeStyle: 'short' })}, if it is in
            force there.
          </>
        )}
      </p>
      <Faults error={act.error} />
      {mayPublish && (
        <p className="mt-1 flex gap-2">
          <Button small onClick={() => act.mutate(true)}>
            All follow now
          </Button>
          {!stopped && (
            <Button small onClick={() => act.mutate(false)}>
              Stop
            </Button>
          )}
        </p>
      )}
    </div>
  );
}
