import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft, Publishing } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';

/** Sets a time at which the draft is published. */
export function PublishLater({
  draft,
  note,
  overrideReason,
  disabled,
}: {
  draft: Draft;
  note: string;
  overrideReason: string | undefined;
  disabled: boolean;
}) {
  const cache = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [time, setTime] = useState(thisEvening);
  return (
    <>
      <Button
        small
        className="mt-2 w-full"
        disabled={disabled}
        onClick={() => {
          setTime(thisEvening());
          setAsking(true);
        }}
      >
        Publish later…
      </Button>
      {asking && (
        <FormDialog
          title={`Publish revision ${draft.revision + 1} later`}
          save="Schedule"
          onSave={async () => {
            const due = new Date(time).toISOString();
            await api.schedulePublish(draft.id, {
              version: draft.version,
              due,
              note,
              overrideReason,
            });
            await cache.invalidateQueries({ queryKey: ['publishing', draft.id] });
          }}
          onClose={() => setAsking(false)}
        >
          <Field
            label="At"
            type="datetime-local"
            required
            autoFocus
            value={time}
            onChange={(e) => setTime(e.target.value)}
            hint="In your time zone. It happens if the draft is still as it is now and nothing blocks it, or you gave a reason to override; else the page says why not."
          />
        </FormDialog>
      )}
    </>
  );
}

/** Today at 22:00 as a box for times says it, or tomorrow if that is over. */
function thisEvening(): string {
  const evening = new Date();
  if (evening.getHours() >= 22) evening.setDate(evening.getDate() + 1);
  const day = [evening.getFullYear(), evening.getMonth() + 1, evening.getDate()]
    .map((n) => `${n}`.padStart(2, '0'))
    .join('-');
  return `${day}T22:00`;
}

/** A publish that waits for its time, or did not happen. */
export function Scheduled({
  draft,
  scheduled,
  mayPublish,
}: {
  draft: Draft;
  scheduled: NonNullable<Publishing['scheduled']>;
  mayPublish: boolean;
}) {
  const cache = useQueryClient();
  const { mutate, error, isPending } = useMutation({
    mutationFn: () => api.cancelScheduled(draft.id),
    onSettled: () => cache.invalidateQueries({ queryKey: ['publishing', draft.id] }),
  });
  const due = new Date(scheduled.due).toLocaleString(undefined, {
    dateStyle: 'medium',
    timeStyle: 'short',
    hour12: false,
  });
  return (
    <div role="group" aria-label="Scheduled publish" className="mb-3 border-y border-line py-2">
      {scheduled.failed ? (
        <>
          <p className="text-drop">Not published at {due}</p>
          <p className="text-[12px]">{scheduled.failed}</p>
        </>
      ) : (
        <>
          <p>
            <b>Publishes at {due}</b>
            {scheduled.note && `: ${scheduled.note}`}
          </p>
          <p className="text-[12px] text-dim">
            {scheduled.byName} scheduled it. A change of the draft prevents it.
          </p>
        </>
      )}
      {scheduled.overrideReason && (
        <p className="text-[12px] text-caution">In spite of blockers: {scheduled.overrideReason}</p>
      )}
      <Faults error={error} />
      {mayPublish && (
        <Button small className="mt-2" disabled={isPending} onClick={() => mutate()}>
          {scheduled.failed ? 'Dismiss' : 'Cancel it'}
        </Button>
      )}
    </div>
  );
}
