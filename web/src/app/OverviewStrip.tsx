import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api } from '../api/client';
import type { Overview, RulebaseKind, RulebaseSummary } from '../api/types';
import { many } from '../draft/Effects';
import { whole } from '../ui/numbers';

/** What a rulebase is for, where it is not traffic through gateways. */
const KINDS: Partial<Record<RulebaseKind, string>> = {
  common: 'common rules · ',
  services: 'services of gateways · ',
};

const LOOK_AGAIN = 10_000;
const WIDTH = 168;
const HEIGHT = 34;

/** What needs attention on one rulebase; each part leads to its page. */
export function OverviewStrip({
  rulebase,
  depth,
}: {
  rulebase: RulebaseSummary;
  /** How many common rulebases stand above it. */
  depth: number;
}) {
  const { data, error } = useQuery({
    queryKey: ['overview', rulebase.id],
    queryFn: ({ signal }) => api.overview(rulebase.id, signal),
    refetchInterval: LOOK_AGAIN,
  });
  const to = (place: string) => `/rulebases/${rulebase.id}/${place}`;
  return (
    <li className="border-t border-line py-4" aria-label={rulebase.name}>
      <div className="flex items-center gap-8" style={{ paddingLeft: depth * 24 }}>
        <div className="min-w-0 flex-1">
          <Link
            to={to('rules')}
            title={rulebase.name}
            className="block min-h-[26px] truncate text-[16px] font-semibold hover:underline"
          >
            {rulebase.name}
          </Link>
          <p className="text-[12px] text-dim">
            {KINDS[rulebase.kind]}
            {depth === 0 && rulebase.common && `below ${rulebase.common} · `}
            revision {rulebase.revision}
            {data && data.changes > 0 && (
              <>
                {' · '}
                <Link
                  to={to('publish')}
                  className="inline-block min-h-[24px] text-accent underline underline-offset-2"
                >
                  {whole(data.changes)} {data.changes === 1 ? 'change' : 'changes'} not published
                </Link>
              </>
            )}
            {data && data.changes === 0 && ' · all published'}
          </p>
          {error && (
            <p role="alert" className="text-[12px] text-drop">
              {error.message}
            </p>
          )}
        </div>
        {data && (
          <>
            <Part to={to('rules')} count={data.findings.error ?? 0} word="errors" bad />
            <Part to={to('rules')} count={data.findings.warning ?? 0} word="warnings" />
            <Part
              to={to('checks')}
              count={data.failingChecks}
              word={`of ${many(data.checks, 'check')} fail`}
              bad
            />
            {rulebase.kind === 'common' ? (
              <span className="block w-[296px] shrink-0" />
            ) : (
              <>
                <Part
                  to={to('publish')}
                  count={notInForce(data)}
                  word={`of ${many(gateways(data), 'gateway')} not up to date`}
                  bad
                />
                <Refused to={to('traffic')} overview={data} />
              </>
            )}
          </>
        )}
      </div>
    </li>
  );
}

const gateways = (overview: Overview) =>
  Object.values(overview.gateways).reduce((all, count) => all + count, 0);

const notInForce = (overview: Overview) =>
  gateways(overview) - (overview.gateways['in force'] ?? 0);

/** A count that leads to its page; it stands out if it is not zero. */
function Part({
  to,
  count,
  word,
  bad,
}: {
  to: string;
  count: number;
  word: string;
  bad?: boolean;
}) {
  return (
    <Link to={to} className="block w-[88px] shrink-0 rounded px-1 hover:bg-band">
      <b
        className={`block text-[16px] tabular-nums ${
          count === 0 ? 'font-normal text-dim' : bad ? 'text-drop' : 'text-caution'
        }`}
      >
        {whole(count)}
      </b>
      <span className="block text-[12px] leading-[15px] text-dim">{word}</span>
    </Link>
  );
}

/** Decided connections of the last 24 hours as bars, and the refused ones in them. */
function Refused({ to, overview }: { to: string; overview: Overview }) {
  const most = Math.max(1, ...overview.decided);
  const refused = overview.refused.reduce((all, count) => all + count, 0);
  const step = WIDTH / overview.decided.length;
  const high = (count: number) => (count / most) * HEIGHT;
  return (
    <Link to={to} className="block w-[176px] shrink-0 rounded px-1 hover:bg-band">
      <svg width={WIDTH} height={HEIGHT} aria-hidden>
        {overview.decided.map((count, hour) => (
          <g key={hour}>
            <rect
              x={hour * step}
              width={step - 1}
              y={HEIGHT - high(count)}
              height={high(count)}
              fill="var(--no-hole)"
            />
            <rect
              x={hour * step}
              width={step - 1}
              y={HEIGHT - high(overview.refused[hour]!)}
              height={high(overview.refused[hour]!)}
              fill="var(--drop)"
            />
          </g>
        ))}
      </svg>
      <span className="block text-[12px] leading-[15px] text-dim">
        {whole(refused)} refused in 24 h
      </span>
    </Link>
  );
}
