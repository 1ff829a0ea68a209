import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft, FirstGateways, Review } from '../api/types';
import { many } from '../draft/Effects';
import { draftKey } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Approval, usePublishing } from './Approval';
import { Discard } from './Discard';
import { FirstChoice, isWhole } from './FirstChoice';
import { PublishLater, Scheduled } from './Scheduled';

/** What stops the publish, and the way to make it. */
export function Release({
  draft,
  review,
  mayPublish,
  mayEdit,
  onRule,
}: {
  draft: Draft;
  review: Review;
  mayPublish: boolean;
  mayEdit: boolean;
  onRule(id: string): void;
}) {
  const cache = useQueryClient();
  const [note, setNote] = useState('');
  const [reason, setReason] = useState('');
  const [first, setFirst] = useState<FirstGateways | undefined>(undefined);
  const { data: publishing } = usePublishing(draft);
  const publish = useMutation({
    mutationFn: async () => {
      const said = {
        version: review.version!,
        note,
        overrideReason: review.blockers.length ? reason : undefined,
      };
      await (fourEyes
        ? api.askApproval(draft.id, said)
        : api.publish(draft.id, { ...said, first }));
    },
    onSettled: () =>
      Promise.all([
        cache.invalidateQueries({ queryKey: ['publishing', draft.id] }),
        cache.invalidateQueries({ queryKey: draftKey(draft.id) }),
        cache.invalidateQueries({ queryKey: ['revisions', draft.id] }),
      ]),
  });
  const blocked = (review.blockers.length > 0 && reason.trim() === '') || !isWhole(first);
  const fourEyes = publishing?.fourEyes ?? false;
  const request = publishing?.request;
  return (
    <section aria-labelledby="release" className="mb-6">
      <h2 id="release" className="mb-2 font-semibold">
        Before it can be published
      </h2>
      {review.blockers.length === 0 ? (
        <p className="mb-3 text-[12px] text-dim">
          {draft.checks.length
            ? `Nothing stops it. ${many(draft.checks.length, 'check')} ${draft.checks.length === 1 ? 'passes' : 'pass'}.`
            : 'Nothing stops it.'}
        </p>
      ) : (
        <ul aria-label="Blockers" className="mb-3 divide-y divide-line border-y border-line">
          {review.blockers.map((blocker) => (
            <li key={blocker.text + (blocker.rule ?? '')} className="py-1 text-drop">
              {blocker.rule ? (
                <button
                  type="button"
                  className="cursor-pointer text-left underline underline-offset-2"
                  onClick={() => onRule(blocker.rule!)}
                >
                  {blocker.text}
                </button>
              ) : (
                blocker.text
              )}
            </li>
          ))}
        </ul>
      )}
      {publishing?.scheduled && (
        <Scheduled draft={draft} scheduled={publishing.scheduled} mayPublish={mayPublish} />
      )}
      {request && <Approval draft={draft} request={request} mayPublish={mayPublish} />}
      {!request && (fourEyes ? mayEdit : mayPublish) && draft.changes > 0 && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            publish.mutate();
          }}
        >
          <Text label="Note" value={note} onChange={setNote} />
          {review.blockers.length > 0 && (
            <Text
              label="Reason to override"
              hint="It is kept with the revision and always shown."
              value={reason}
              onChange={setReason}
            />
          )}
          {!fourEyes && <FirstChoice draft={draft} value={first} onChange={setFirst} />}
          <Faults error={publish.error} />
          <Button
            main
            type="submit"
            disabled={blocked || publish.isPending}
            className="w-full py-2"
          >
            {publish.isPending
              ? 'Working…'
              : fourEyes
                ? 'Ask for approval'
                : `Publish revision ${draft.revision + 1}`}
          </Button>
        </form>
      )}
      {!request && !fourEyes && mayPublish && draft.changes > 0 && (
        <PublishLater
          draft={draft}
          note={note}
          overrideReason={review.blockers.length ? reason : undefined}
          disabled={blocked || publish.isPending}
        />
      )}
      {mayEdit && draft.changes > 0 && <Discard draft={draft} />}
      {!mayPublish && !fourEyes && draft.changes > 0 && (
        <p className="text-[12px] text-dim">A publisher can publish it.</p>
      )}
    </section>
  );
}

function Text({
  label,
  hint,
  value,
  onChange,
}: {
  label: string;
  hint?: string;
  value: string;
  onChange(text: string): void;
}) {
  return (
    <label className="mb-3 block text-[12px] font-semibold">
      {label}
      <textarea
        rows={2}
        maxLength={2000}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        className="mt-1 block w-full rounded border border-dim bg-sheet px-2 py-1 text-[13px] font-normal"
      />
      {hint && <span className="font-normal text-dim">{hint}</span>}
    </label>
  );
}
