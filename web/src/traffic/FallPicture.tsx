import type { Verdict } from '../api/types';
import { percent, whole } from '../ui/numbers';
import type { Fall } from './fall';

const ROW = 44; // pixels
const TRUNK = 96;
const BRANCH = 132;
const COLOURS: Record<Verdict, string> = {
  allow: 'var(--allow)',
  drop: 'var(--drop)',
  reject: 'var(--reject)',
  caution: 'var(--caution)',
};

/** The recorded connections of a day falling through the rules, thinning as rules decide them. */
export function FallPicture({
  fall,
  chosen,
  onRule,
}: {
  fall: Fall;
  /** Id of the rule that the records are filtered by; empty for the default rule. */
  chosen: string | null;
  onRule(id: string): void;
}) {
  const height = fall.steps.length * ROW;
  const right = (share: number) => TRUNK * share;
  const trunk = fall.steps.flatMap((step, i) => [
    `${right(step.before)},${i * ROW}`,
    `${right(step.before)},${i * ROW + 8}`,
    `${right(step.before - step.share)},${i * ROW + 26}`,
  ]);
  return (
    <div className="relative">
      <svg
        aria-hidden
        className="absolute top-0 left-0"
        width={BRANCH}
        height={height}
        viewBox={`0 0 ${BRANCH} ${height}`}
      >
        <polygon
          points={`0,0 ${trunk.join(' ')} 0,${Math.max(0, height - ROW + 26)}`}
          fill="var(--no-hole)"
        />
        {fall.steps.map((step, i) => {
          const thick = Math.max(1, step.share * 30);
          const top = i * ROW + 8;
          const from = right(step.before - step.share);
          const to = right(step.before);
          const colour = COLOURS[step.rule?.verdict ?? 'drop'];
          return (
            <path
              key={i}
              d={`M ${to} ${top} C ${to + 18} ${top + 6}, ${BRANCH - 30} ${top + 8}, ${BRANCH} ${top + 12}
                  L ${BRANCH} ${top + 12 + thick}
                  C ${BRANCH - 30} ${top + 8 + thick}, ${from + 18} ${top + 18}, ${from} ${top + 18} Z`}
              fill={colour}
            />
          );
        })}
      </svg>
      <ol style={{ marginLeft: BRANCH + 6 }}>
        {fall.steps.map((step) => {
          const id = step.rule?.id ?? '';
          return (
            <li key={id} style={{ height: ROW }}>
              <button
                type="button"
                aria-pressed={chosen === id}
                onClick={() => onRule(id)}
                className={`flex h-[40px] w-full cursor-pointer flex-col justify-center rounded px-2 text-left leading-[17px] ${
                  chosen === id ? 'bg-accent-soft' : 'hover:bg-band'
                }`}
              >
                <span className="max-w-full truncate">
                  {step.rule ? `${step.number} ${step.rule.name}` : 'Default rule'}
                </span>
                <span className="text-[12px] text-dim">
                  <b
                    className="font-semibold"
                    style={{ color: COLOURS[step.rule?.verdict ?? 'drop'] }}
                  >
                    {step.rule?.verdict ?? 'drop'}
                  </b>{' '}
                  {whole(step.connections)} · {percent(step.share)}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}
