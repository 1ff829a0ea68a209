import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft, ReviewComment } from '../api/types';
import { useSession } from '../shell/session';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';

const LOOK_AGAIN = 5000;

const key = (draft: number, revision: number) => ['comments', draft, revision] as const;

/**
 * The comments on the rules of a draft or a revision.
 *
 * @param revision 0 for the draft
 */
export function useComments(draft: Draft, revision: number): ReviewComment[] {
  const { data } = useQuery({
    queryKey: key(draft.id, revision),
    queryFn: () => (revision ? api.commentsOfRevision(draft.id, revision) : api.comments(draft.id)),
    refetchInterval: revision ? false : LOOK_AGAIN,
  });
  return data ?? [];
}

/** What people say about one rule of a review, and the way to say more. */
export function Comments({
  draft,
  revision,
  rule,
  name,
  mayEdit,
}: {
  draft: Draft;
  /** 0 for the draft. */
  revision: number;
  /** Its id; empty for the default rule. */
  rule: string;
  name: string;
  mayEdit: boolean;
}) {
  const cache = useQueryClient();
  const { person } = useSession();
  const [text, setText] = useState<string | null>(null);
  const here = useComments(draft, revision).filter((one) => one.rule === rule);
  const look = () => cache.invalidateQueries({ queryKey: key(draft.id, 0) });
  const add = useMutation({
    mutationFn: () => api.addComment(draft.id, rule, text!),
    onSuccess: () => {
      setText(null);
      return look();
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => api.deleteComment(draft.id, id),
    onSettled: look,
  });
  const writable = mayEdit && revision === 0;
  if (here.length === 0 && !writable) return null;
  return (
    <div className="py-1 pl-[64px] text-[12px]">
      <ul aria-label={`Comments on ${name}`} className="empty:hidden">
        {here.map((one) => (
          <li key={one.id} className="flex gap-2 py-0.5">
            <p className="min-w-0 flex-1 break-words whitespace-pre-line">
              <b>{one.byName}</b> <span className="text-dim">{when(one.at)}</span> {one.text}
            </p>
            {writable && one.by === person.name && (
              <button
                type="button"
                aria-label={`Delete my comment on ${name}`}
                onClick={() => remove.mutate(one.id)}
                className="min-h-[24px] cursor-pointer text-accent underline underline-offset-2"
              >
                delete
              </button>
            )}
          </li>
        ))}
      </ul>
      <Faults error={add.error ?? remove.error} />
      {writable &&
        (text === null ? (
          <button
            type="button"
            aria-label={`Comment on ${name}`}
            onClick={() => setText('')}
            className="min-h-[24px] cursor-pointer text-accent underline underline-offset-2"
          >
            comment
          </button>
        ) : (
          <form
            className="flex items-end gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (text.trim()) add.mutate();
            }}
          >
            <textarea
              autoFocus
              aria-label={`Comment on ${name}`}
              rows={2}
              maxLength={2000}
              value={text}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={(e) => {
                if (e.key === 'Escape') setText(null);
                if (e.key === 'Enter' && (e.ctrlKey || e.metaKey) && text.trim()) add.mutate();
              }}
              className="min-w-0 flex-1 rounded border border-dim bg-sheet px-2 py-1"
            />
            <Button small type="submit" disabled={!text.trim() || add.isPending}>
              Add
            </Button>
          </form>
        ))}
    </div>
  );
}

const when = (at: string) =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
