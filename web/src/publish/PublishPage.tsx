import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { GoBack } from '../restore/GoBack';
import { useUrlState } from '../shell/useUrlState';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Working } from '../ui/QuestionProgress';
import { FourEyes } from './Approval';
import { BelowReviews } from './BelowReviews';
import { Changes, summary } from './Changes';
import { Comments } from './Comments';
import { Gateways } from './Gateways';
import { Revisions } from './Revisions';
import { Release } from './Release';

/** The review of a draft in meaning, what stops it, and its publication as the next revision. */
export default function PublishPage({
  draft,
  mayPublish,
  mayEdit,
  admin,
  numbers,
  onRule,
  onProbe,
}: {
  draft: Draft;
  mayPublish: boolean;
  mayEdit: boolean;
  admin: boolean;
  numbers: Map<string, number>;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  const { values, step } = useUrlState('publish', ['revision', 'since']);
  const shown = Number(values.revision) || 0;
  const since = Number(values.since) || shown - 1;
  const { data: review, error } = useQuery({
    queryKey: ['review', draft.id, draft.version, draft.revision],
    queryFn: ({ signal }) => api.review(draft.id, signal),
    staleTime: Infinity,
    retry: false,
  });
  const { data: compared, error: notCompared } = useQuery({
    queryKey: ['compared', draft.id, since, shown],
    queryFn: ({ signal }) => api.compareRevisions(draft.id, since, shown, signal),
    enabled: shown > 1,
    staleTime: Infinity,
    retry: false,
  });
  const changes = shown > 1 ? compared : review;
  const failed = shown > 1 ? notCompared : error;
  return (
    <div className="flex min-h-0 flex-1">
      <section aria-labelledby="changes" className="min-w-0 flex-1 overflow-y-auto p-6">
        <div className="mb-4 flex flex-wrap items-baseline gap-x-4">
          <h1 id="changes" className="text-[17px] font-semibold">
            {shown > 1
              ? `What changed: revision ${since} → ${shown}`
              : 'What changes: in force → draft'}
          </h1>
          {changes && <p className="text-[12px] text-dim">{summary(changes)}</p>}
          {shown > 1 && (
            <span className="ml-auto flex items-baseline gap-3">
              <label className="text-[12px] text-dim">
                since revision{' '}
                <select
                  value={since}
                  onChange={(e) => step({ revision: `${shown}`, since: e.target.value })}
                  className="rounded border border-line bg-sheet px-1 py-0.5 tabular-nums"
                >
                  {Array.from({ length: shown - 1 }, (_, i) => (
                    <option key={i}>{shown - 1 - i}</option>
                  ))}
                </select>
              </label>
              <Button small onClick={() => step({ revision: '', since: '' })}>
                Review the draft
              </Button>
            </span>
          )}
        </div>
        <Faults error={failed} />
        {!changes && !failed && <Working on="The review" />}
        {changes && (
          <>
            {changes.notCompared && <p role="status">{changes.notCompared}</p>}
            {shown < 2 && draft.changes === 0 && (
              <p className="text-dim">
                Revision {draft.revision} is published, and the draft has no changes. Edit the
                rules; what the edits mean appears here.
              </p>
            )}
            {draft.kind === 'common' && shown < 2 && draft.changes > 0 && (
              <>
                <BelowReviews draft={draft} />
                <h2 className="border-t border-line pt-2 font-semibold">
                  The common rules by themselves
                </h2>
              </>
            )}
            <Changes
              review={changes}
              numbers={numbers}
              onRule={onRule}
              onProbe={onProbe}
              comments={(rule, name) => (
                <Comments
                  draft={draft}
                  revision={shown > 1 ? shown : 0}
                  rule={rule}
                  name={name}
                  mayEdit={mayEdit && draft.changes > 0}
                />
              )}
              goBack={(rule, name) =>
                mayEdit && shown < 2 ? (
                  <GoBack
                    draft={draft}
                    to={{ revision: draft.revision }}
                    rules={[rule]}
                    link="take back"
                    label={`Take back the changes of ${name}`}
                    title={`Take back the changes of “${name}”?`}
                  >
                    The rule becomes what it is in revision {draft.revision}; its place among the
                    others too.
                  </GoBack>
                ) : null
              }
            />
          </>
        )}
      </section>
      <aside
        aria-label="Publish"
        className="w-[300px] shrink-0 overflow-y-auto border-l border-line bg-panel p-4"
      >
        {review && (
          <Release
            key={draft.revision}
            draft={draft}
            review={review}
            mayPublish={mayPublish}
            mayEdit={mayEdit}
            onRule={onRule}
          />
        )}
        {admin && <FourEyes draft={draft} />}
        {draft.kind !== 'common' && (
          <Gateways id={draft.id} newest={draft.revision} admin={admin} mayPublish={mayPublish} />
        )}
        <Revisions
          draft={draft}
          mayEdit={mayEdit}
          shown={shown}
          onShow={(number) => step({ revision: `${number}`, since: '' })}
        />
      </aside>
    </div>
  );
}
