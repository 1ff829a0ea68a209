import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Rule } from '../api/types';
import { useHits } from '../draft/useHits';
import { Button } from '../ui/Button';
import { whole } from '../ui/numbers';
import { timeIn } from '../ui/times';

const LATEST = 3;
const LOOK_AGAIN = 5000;

/** What the gateways reported of a rule: its hits, its latest records, and what it observed. */
export function RuleLog({
  draft,
  zone,
  rule,
  mayEdit,
  onDecide,
  onLog,
}: {
  /** Id of the draft. */
  draft: number;
  zone: string;
  rule: Rule;
  mayEdit: boolean;
  /** Lets a rule decide that only observes. */
  onDecide(): void;
  onLog(): void;
}) {
  const hits = useHits(draft)?.get(rule.id);
  const { data: log } = useQuery({
    queryKey: ['log of rule', draft, rule.id],
    queryFn: () => api.log(draft, { rule: rule.id }, LATEST),
    refetchInterval: LOOK_AGAIN,
    enabled: hits !== undefined,
  });
  const now = new Date();
  if (!hits && !rule.observeOnly) return null;
  return (
    <div className="mt-3 border-t border-line pt-2">
      {rule.observeOnly && (
        <>
          <h3 className="text-[12px] font-semibold text-caution">observe only</h3>
          <p>
            It decides nothing.{' '}
            {hits && hits.observed > 0
              ? `It would have decided ${whole(hits.observed)} connections; ${whole(hits.differing)} of them got another verdict.`
              : 'After the next publish, gateways count the connections that it would have decided.'}
          </p>
          {mayEdit && (
            <Button small className="mt-1" onClick={onDecide}>
              Let it decide <kbd className="font-sans text-dim">o</kbd>
            </Button>
          )}
        </>
      )}
      {hits && (
        <p className="mt-1 flex items-center gap-2 text-[12px] text-dim">
          <span>
            {whole(hits.connections)} hits, the last {timeIn(zone, hits.lastAt, now)}
            {hits.open > 0 && <> · {whole(hits.open)} open now</>}
          </span>
          <Button small className="ml-auto shrink-0 whitespace-nowrap" onClick={onLog}>
            Log <kbd className="font-sans text-dim">l</kbd>
          </Button>
        </p>
      )}
      {log && log.records.length > 0 && (
        <ul aria-label="Latest records" className="mt-1 text-[12px]">
          {log.records.map((row) => (
            <li key={row.cursor} className="truncate">
              <span className="text-dim">{timeIn(zone, row.at, now)}</span> {row.person ?? row.from}{' '}
              → {row.to} {row.service}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
