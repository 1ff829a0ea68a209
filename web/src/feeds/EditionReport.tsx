import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { FeedEditionReport, FeedSummary } from '../api/types';
import { Block, many } from '../draft/Effects';
import { Faults } from '../ui/Faults';
import { SETS } from './feeds';

type Change = FeedEditionReport['changes'][number];

/** What is in an edition: what it changes against the one before, and its bad lines. */
export function EditionReport({
  feed,
  edition,
  kind,
}: {
  feed: string;
  edition: string;
  kind: FeedSummary['kind'];
}) {
  const { data: report, error } = useQuery({
    queryKey: ['feed', feed, edition],
    queryFn: () => api.feedEdition(feed, edition),
    staleTime: Infinity,
  });
  if (!report) return <Faults error={error} />;
  const [one, several] = SETS[kind];
  return (
    <>
      {report.faults.length > 0 && (
        <Block
          title={`Lines that could not be read${report.faults.length === 1000 ? ', the first 1000' : ''}`}
        >
          {report.faults.map((fault) => (
            <li key={`${fault.line} ${fault.expected}`} className="py-1">
              line {fault.line}: expected {fault.expected}, found{' '}
              <span className="font-mono text-[12px]">{fault.found}</span>
            </li>
          ))}
        </Block>
      )}
      {report.before ? (
        <Block
          title={
            report.changes.length
              ? `Edition ${edition} against ${report.before}: ${report.changes.length} of ${report.sets.length} ${several} changed`
              : `Edition ${edition} has the same entries as ${report.before}`
          }
        >
          {report.changes.map((change) => (
            <li key={change.set} className="py-1">
              <b>{change.set}</b>{' '}
              <span className="font-mono text-[12px] break-words">{words(change)}</span>
            </li>
          ))}
        </Block>
      ) : (
        <p className="mb-3 text-[12px] text-dim">
          Edition {edition} was the first: {report.sets.length}{' '}
          {report.sets.length === 1 ? one : several} with{' '}
          {many(
            report.sets.reduce((sum, set) => sum + set.entries, 0),
            kind === 'categories' ? 'host' : 'range',
          )}
          .
        </p>
      )}
    </>
  );
}

function words(change: Change): string {
  const more = (count: number, told: string[], sign: string) =>
    count > told.length ? [`${sign}${count - told.length} more`] : [];
  return [
    ...change.gained.map((entry) => `+${entry}`),
    ...more(change.gainedCount, change.gained, '+'),
    ...change.lost.map((entry) => `−${entry}`),
    ...more(change.lostCount, change.lost, '−'),
  ].join(', ');
}
