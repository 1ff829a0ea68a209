import type { ReactNode } from 'react';
import type { Review } from '../api/types';
import { Flips, many } from '../draft/Effects';
import { whole } from '../ui/numbers';
import { ChangedVerdicts } from './ChangedVerdicts';
import { FindingChanges } from './FindingChanges';
import { TextChanges } from './TextChanges';

/** The parts of a review: verdicts, checks, findings, editions. */
export function Changes({
  review,
  numbers,
  onRule,
  onProbe,
  goBack,
  comments,
}: {
  review: Review;
  /** Left out where the rules are of another rulebase. */
  numbers?: Map<string, number>;
  onRule(id: string): void;
  onProbe(line: string): void;
  /** Takes back the changes of a rule, where that is possible. */
  goBack?(rule: string, name: string): ReactNode;
  /** What people say about a rule. */
  comments?(rule: string, name: string): ReactNode;
}) {
  return (
    <>
      <ChangedVerdicts
        changes={review.verdicts}
        numbers={numbers}
        onRule={onRule}
        onProbe={onProbe}
        goBack={goBack}
        comments={comments}
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
                {changed.rule && isFirst(changed, review) && (
                  <>
                    {goBack?.(changed.rule, changed.name)}
                    {comments?.(changed.rule, changed.name)}
                  </>
                )}
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
      <TextChanges lines={review.text} />
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

/** The size of a review, and whether it is proved to be all. */
export function summary(review: Review): string {
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
