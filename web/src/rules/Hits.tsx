import type { RuleHits } from '../api/types';
import { compact, whole } from '../ui/numbers';

const WIDTH = 24;
const HEIGHT = 11;

/** How often a rule decided: the number, and the last 24 hours as a spark line. */
export function Hits({
  hits,
  observing,
}: {
  hits: RuleHits | undefined;
  /** Whether the rule only observes; then the number is of what it would have decided. */
  observing: boolean;
}) {
  if (!hits) return null;
  const count = observing ? hits.observed : hits.connections;
  const most = Math.max(1, ...hits.hours);
  const points = hits.hours
    .map((count, hour) => `${hour},${(HEIGHT - 1 - (count / most) * (HEIGHT - 2)).toFixed(1)}`)
    .join(' ');
  const last = new Date(hits.lastAt).toLocaleString();
  return (
    <span
      data-hits={count}
      title={`${whole(count)} ${observing ? 'observed' : 'hits'}, the last ${last}; the line shows the last 24 hours`}
      className="absolute bottom-[3px] left-[15px] flex w-[76px] items-end gap-[4px] text-[11px] leading-[12px] text-dim"
    >
      <span className="w-[46px] text-right">{compact(count)}</span>
      <svg width={WIDTH} height={HEIGHT} aria-hidden>
        <polyline points={points} fill="none" stroke="currentColor" strokeWidth="1" />
      </svg>
    </span>
  );
}
