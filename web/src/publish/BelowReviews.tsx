import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api } from '../api/client';
import type { BelowDocument, Draft } from '../api/types';
import { useRulebasesBelow } from '../common/useBelow';
import { many } from '../draft/Effects';
import { Faults } from '../ui/Faults';
import { Working } from '../ui/QuestionProgress';
import { Changes, summary } from './Changes';

/** What a publish of a common draft changes in each rulebase below it, one after the other. */
export function BelowReviews({ draft }: { draft: Draft }) {
  const below = useRulebasesBelow(draft);
  const [done, setDone] = useState(0);
  if (below.length === 0) {
    return (
      <p className="mb-3 text-dim">
        No rulebase is below this one, so a publish changes nothing on any gateway.
      </p>
    );
  }
  return (
    <section aria-label="Rulebases below" className="mb-4">
      <p className="mb-2">
        A publish gives each of {many(below.length, 'rulebase')} below a revision with the new
        common rules. Their unpublished changes stay in their drafts.
      </p>
      {below.slice(0, done + 1).map((one, i) => (
        <BelowReview
          key={one.id}
          draft={draft}
          below={one}
          onDone={() => setDone((now) => Math.max(now, i + 1))}
        />
      ))}
    </section>
  );
}

function BelowReview({
  draft,
  below,
  onDone,
}: {
  draft: Draft;
  below: BelowDocument;
  onDone(): void;
}) {
  const { data, error } = useQuery({
    queryKey: ['review below', draft.id, draft.version, draft.revision, below.id],
    queryFn: ({ signal }) =>
      api.reviewBelow(draft.id, below.id, signal).finally(() => queueMicrotask(onDone)),
    staleTime: Infinity,
    retry: false,
  });
  const navigate = useNavigate();
  const rules = `/rulebases/${below.id}/rules`;
  const gateways = below.gateways.length ? below.gateways.join(', ') : 'no gateway';
  return (
    <section aria-label={below.name} className="mb-4 border-t border-line pt-2">
      <h2 className="font-semibold">
        <Link
          to={rules}
          className="inline-block min-h-[24px] text-accent underline underline-offset-2"
        >
          {below.name}
        </Link>{' '}
        <span className="font-normal text-dim">on {gateways}</span>
      </h2>
      <Faults error={error} />
      {!data && !error && <Working on="The review" />}
      {data && (
        <>
          <p className="mb-2 text-[12px] text-dim">{summary(data)}</p>
          {data.blockers.length > 0 && (
            <ul aria-label={`Blockers in ${below.name}`} className="mb-2">
              {data.blockers.map((blocker) => (
                <li key={blocker.text} className="text-drop">
                  {blocker.text}
                </li>
              ))}
            </ul>
          )}
          <Changes
            review={data}
            onRule={(rule) => void navigate(`${rules}?rule=${encodeURIComponent(rule)}`)}
            onProbe={(probe) => void navigate(`${rules}?probe=${encodeURIComponent(probe)}`)}
          />
        </>
      )}
    </section>
  );
}
