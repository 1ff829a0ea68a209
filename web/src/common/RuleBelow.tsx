import { Link } from 'react-router';
import { reachWords } from '../draft/findings';
import type { Below } from './useBelow';

/** What one rule of a common rulebase does in each rulebase below. */
export function RuleBelowList({ rule, below }: { rule: string; below: Below }) {
  const answered = below.rulebases.filter((one) => below.effects.get(one.id)?.standings[rule]);
  if (answered.length === 0) return null;
  return (
    <section aria-label="In the rulebases below" className="mt-2 border-t border-line pt-2">
      <h3 className="text-[12px] font-semibold text-dim">In the rulebases below</h3>
      <ul>
        {answered.map((one) => {
          const standing = below.effects.get(one.id)!.standings[rule]!;
          const nothing = standing.kind === 'covered' || standing.kind === 'empty';
          return (
            <li key={one.id} className="py-0.5">
              <Link
                to={`/rulebases/${one.id}/rules?rule=${encodeURIComponent(rule)}`}
                className="inline-block min-h-[24px] text-accent underline underline-offset-2"
              >
                {one.name}
              </Link>
              :{' '}
              <span className={nothing ? 'text-caution' : 'text-dim'}>
                {nothing ? 'decides nothing there' : (reachWords(standing) ?? 'decides')}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
