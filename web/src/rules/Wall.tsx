import type { Verdict } from '../api/types';
import { letsThrough } from '../ui/verdicts';

/** Whether a rule's gate is real, a ghost (it decides nothing) or gone (it is disabled). */
export type Gate = 'real' | 'ghost' | 'gone';

const COLOURS: Record<Verdict, string> = {
  allow: 'var(--allow)',
  drop: 'var(--drop)',
  reject: 'var(--reject)',
  caution: 'var(--caution)',
};

/**
 * One rule's piece of the wall, the firewall as an iron line: a gap with an arrow through it, a bar
 * before it, a way back, or a half-open gap.
 */
export function Wall({ verdict, gate }: { verdict: Verdict; gate: Gate }) {
  const open = gate === 'real' && letsThrough(verdict);
  return (
    <div className="relative h-full w-[52px]" aria-hidden="true">
      <div className="absolute inset-y-0 left-[26px] flex w-[7px] flex-col">
        <div className="flex-1 bg-wall" style={{ opacity: gate === 'gone' ? 0.25 : 1 }} />
        {open ? (
          <div className="flex h-[18px] flex-col justify-between">
            {verdict === 'caution' &&
              [0, 1, 2].map((i) => <div key={i} className="h-[3px] bg-caution" />)}
          </div>
        ) : (
          <div
            className="h-[18px] bg-wall"
            style={{ opacity: gate === 'gone' ? 0.25 : gate === 'ghost' ? 0.4 : 1 }}
          />
        )}
        <div className="flex-1 bg-wall" style={{ opacity: gate === 'gone' ? 0.25 : 1 }} />
      </div>
      <svg
        className="absolute top-1/2 left-0 -translate-y-1/2"
        width="52"
        height="18"
        viewBox="0 0 52 18"
        fill="none"
        stroke={gate === 'real' ? COLOURS[verdict] : 'var(--dim)'}
        strokeWidth="2"
      >
        {gate === 'gone' ? null : gate === 'ghost' ? (
          <path d="M2 9h20" strokeDasharray="3 4" />
        ) : verdict === 'allow' ? (
          <path d="M2 9h44M40 4l6 5-6 5" />
        ) : verdict === 'drop' ? (
          <path d="M2 9h18M21 3v12" strokeWidth="2.4" />
        ) : verdict === 'reject' ? (
          <path d="M2 5h18v8H4M8 9l-4 4 4 4" />
        ) : (
          <path d="M2 9h21" />
        )}
      </svg>
    </div>
  );
}
