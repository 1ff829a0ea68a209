import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { api } from '../api/client';
import type { Draft, Review } from '../api/types';
import { Flips, many } from '../draft/Effects';
import { GoBack } from '../restore/GoBack';
import { useUrlState } from '../shell/useUrlState';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { whole } from '../ui/numbers';
import { Working } from '../ui/QuestionProgress';
import { FourEyes } from './Approval';
import { ChangedVerdicts } from './ChangedVerdicts';
import { FindingChanges } from './FindingChanges';
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
                Revision {draft.revision} is in force, and the draft has no changes. Edit the rules;
                what the edits mean appears here.
              </p>
            )}
            <Changes
              review={changes}
              numbers={numbers}
              onRule={onRule}
              onProbe={onProbe}
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
        <Gateways id={draft.id} newest={draft.revision} admin={admin} />
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

/** The parts of a review: verdicts, checks, findings, editions. */
function Changes({
  review,
  numbers,
  onRule,
  onProbe,
  goBack,
}: {
  review: Review;
  numbers: Map<string, number>;
  onRule(id: string): void;
  onProbe(line: string): void;
  /** Takes back the changes of a rule, where that is possible. */
  goBack(rule: string, name: string): ReactNode;
}) {
  return (
    <>
      <ChangedVerdicts
        changes={review.verdicts}
        numbers={numbers}
        onRule={onRule}
        onProbe={onProbe}
        goBack={goBack}
      />
      <Flips flips={review.checks} />
      <FindingChanges review={review} onRule={onRule} />
      {review.settings.length > 0 && (
        <section className="mb-3">
          <h2 className="font-semibold">Other settings</h2>
          <ul className="divide-y divide-line border-y border-line">
            {review.settings.map((changed) => (
              <li key={`${changed.rule} ${changed.name} ${changed.setting}`} className="py-1">
                {changed.rule ? (
                  <button
                    type="button"
                    className="cursor-pointer font-semibold"
                    onClick={() => onRule(changed.rule!)}
                  >
                    {changed.name}
                  </button>
                ) : (
                  `rate plan ${changed.name}`
                )}
                : {changed.setting} {changed.before} → <b>{changed.after}</b>{' '}
                {changed.rule && isFirst(changed, review) && goBack(changed.rule, changed.name)}
              </li>
            ))}
          </ul>
        </section>
      )}
      {review.editions.length > 0 && (
        <section className="mb-3">
          <h2 className="font-semibold">Other editions</h2>
          <ul className="divide-y divide-line border-y border-line">
            {review.editions.map((edition) => (
              <li key={edition.of} className="py-1">
                {edition.of}: {edition.before ?? 'none'} → {edition.after ?? 'none'}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** Whether nothing above it in the review is about the same rule. */
function isFirst(changed: Review['settings'][number], review: Review): boolean {
  return (
    !review.verdicts.some((verdict) => verdict.rule === changed.rule) &&
    review.settings.find((other) => other.rule === changed.rule) === changed
  );
}

function summary(review: Review): string {
  const causes = new Set(review.verdicts.map((change) => change.rule)).size;
  const kinds = `${many(review.verdicts.length, 'kind')} of connections by ${many(causes, 'rule')}`;
  const hit = review.verdicts.reduce((all, change) => all + change.recorded, 0);
  const boxes = review.recorded
    ? `${kinds} · ${whole(hit)} of ${whole(review.recorded)} recorded connections change`
    : kinds;
  if (review.notCompared) return '';
  if (!review.complete) return `${boxes} · analysis limit reached; the list may be incomplete`;
  return review.verdicts.length
    ? `${boxes} · all else is decided as before, proved`
    : 'every connection is decided as before, proved';
}
