import { VERDICT_CLASS } from '../ui/verdicts';
import { percent, whole } from '../ui/numbers';
import type { Fall } from './fall';

const ROW = 44; // pixels
const TRUNK = 96;
const BRANCH = 132;
const TOP = 6; // of a branch in its row

/** The thickness of a branch in pixels; a thin one stays visible. */
const thickness = (share: number) => Math.min(ROW - TOP, Math.max(1.5, share * 2 * ROW));

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
    `${right(step.before)},${i * ROW + TOP}`,
    `${right(step.before - step.share)},${i * ROW + TOP + thickness(step.share)}`,
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
          points={`0,0 ${trunk.join(' ')} 0,${Math.max(0, height - ROW + TOP)}`}
          fill="var(--no-hole)"
        />
        {fall.steps.map((step, i) => {
          const thick = thickness(step.share);
          const top = i * ROW + TOP;
          const end = i * ROW + ROW / 2 - thick / 2;
          const from = right(step.before - step.share);
          const to = right(step.before);
          const bend = (to + BRANCH) / 2;
          return (
            <path
              key={i}
              d={`M ${to} ${top} C ${bend} ${top}, ${bend} ${end}, ${BRANCH} ${end}
                  L ${BRANCH} ${end + thick}
                  C ${bend} ${end + thick}, ${bend} ${top + thick}, ${from} ${top + thick} Z`}
              className={`fill-current ${VERDICT_CLASS[step.rule?.verdict ?? 'drop']}`}
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
                  <b className={`font-semibold ${VERDICT_CLASS[step.rule?.verdict ?? 'drop']}`}>
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
