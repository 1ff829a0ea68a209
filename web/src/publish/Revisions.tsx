import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { GoBack } from '../restore/GoBack';
import { Faults } from '../ui/Faults';

/** The revisions of a rulebase, newest first. */
export function Revisions({
  draft,
  mayEdit,
  shown,
  onShow,
}: {
  draft: Draft;
  mayEdit: boolean;
  /** The revision that is compared with the one before; 0 for none. */
  shown: number;
  onShow(number: number): void;
}) {
  const { id, revision: newest } = draft;
  const { data: revisions, error } = useQuery({
    queryKey: ['revisions', id, newest],
    queryFn: () => api.revisions(id),
  });
  return (
    <section aria-labelledby="revisions">
      <h2 id="revisions" className="mb-1 font-semibold">
        Revisions
      </h2>
      <Faults error={error} />
      <ol className="divide-y divide-line border-y border-line">
        {revisions?.map((one) => (
          <li key={one.number} className="py-2">
            <p className="flex items-baseline gap-2">
              <b className="tabular-nums">{one.number}</b>
              {one.number > 1 && (
                <button
                  type="button"
                  aria-pressed={one.number === shown}
                  aria-label={`What changed in revision ${one.number}`}
                  onClick={() => onShow(one.number)}
                  className="min-h-[24px] cursor-pointer text-[12px] text-accent underline underline-offset-2"
                >
                  changes
                </button>
              )}
              <Link
                to={`/rulebases/${id}/revisions/${one.number}`}
                aria-label={`Open revision ${one.number}`}
                className="inline-block min-h-[24px] text-[12px] text-accent underline underline-offset-2"
              >
                open
              </Link>
              {mayEdit && (one.number < newest || draft.changes > 0) && (
                <GoBack
                  draft={draft}
                  to={{ revision: one.number }}
                  link="go back"
                  label={`Go back to revision ${one.number}`}
                  title={`Go back to revision ${one.number}?`}
                >
                  The draft becomes what revision {one.number} was: rules, objects, checks and
                  editions, also where colleagues changed them. Nothing is published by it.
                </GoBack>
              )}
              {one.number === newest && <span className="text-[12px] text-allow">newest</span>}
              <span
                className="ml-auto font-mono text-[11px] text-dim"
                title={`SHA-256 ${one.digest}`}
              >
                {one.digest.slice(0, 8)}
              </span>
            </p>
            <p className="text-[12px] text-dim">
              {new Date(one.at).toLocaleString(undefined, {
                dateStyle: 'medium',
                timeStyle: 'short',
              })}
              {one.by && ` · ${one.by}`}
              {one.approvedBy && `, approved by ${one.approvedBy}`}
            </p>
            {one.note && <p className="text-[12px] break-words">{one.note}</p>}
            {one.overrideReason && (
              <p className="text-[12px] break-words text-caution">
                Published in spite of blockers: {one.overrideReason}
              </p>
            )}
          </li>
        ))}
      </ol>
    </section>
  );
}
