import { Link } from 'react-router';
import { many } from '../draft/Effects';
import type { Below } from './useBelow';
import { gatewaysOf } from './effects';

/** The place of the rules of the rulebases below, between head and tail rules. */
export function BelowLine({ below }: { below: Below }) {
  const { rulebases, effects } = below;
  const gateways = gatewaysOf(rulebases);
  return (
    <div role="row" className="flex border-y border-line bg-paper pl-4">
      <div role="gridcell" className="min-w-0 flex-1 py-2 pl-[98px] text-[12px]">
        {rulebases.length === 0 ? (
          <span className="text-dim">
            The rules of rulebases below stand here. No rulebase is below this one yet: choose it
            there with <b>Common rules…</b>.
          </span>
        ) : (
          <>
            <span className="font-semibold">Rules of the rulebases below stand here.</span>{' '}
            <span className="text-dim">
              This rulebase reaches {many(rulebases.length, 'rulebase')} and{' '}
              {many(gateways.length, 'gateway')}
              {gateways.length > 0 && ` (${gateways.join(', ')})`}:
            </span>
            <ul className="mt-1 flex flex-wrap gap-x-4">
              {rulebases.map((one) => (
                <li key={one.id}>
                  <Link
                    to={`/rulebases/${one.id}/rules`}
                    className="inline-block min-h-[24px] text-accent underline underline-offset-2"
                  >
                    {one.name}
                  </Link>
                  {effects.get(one.id)?.problem && (
                    <span role="alert" className="text-drop">
                      {' '}
                      does not fit: {effects.get(one.id)!.problem}
                    </span>
                  )}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      <div role="gridcell" aria-hidden className="w-[150px] shrink-0 self-stretch">
        <div className="ml-[26px] h-full w-[7px] bg-[repeating-linear-gradient(var(--wall)_0_6px,transparent_6px_10px)]" />
      </div>
    </div>
  );
}
