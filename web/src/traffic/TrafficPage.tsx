import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { Columns3 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { api } from '../api/client';
import type { LogRow, Rule } from '../api/types';
import AddChecks, { type NewChecks } from '../checks/AddChecks';
import { allRules } from '../draft/applyEdit';
import type { DraftHandle } from '../draft/useDraft';
import { DEFAULT_RULE, useHits } from '../draft/useHits';
import { useUrlState } from '../shell/useUrlState';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Menu, MenuItem } from '../ui/Menu';
import { whole } from '../ui/numbers';
import { saveFile } from '../ui/saveFile';
import { COLUMNS, shownColumns, storeColumns } from './columns';
import { alike, fallOf, recorded } from './fall';
import { fallSvg } from './fallSvg';
import { FallPicture } from './FallPicture';
import { filterLine, readFilter, sinceTime, type LogFilter } from './filter';
import { useNavigate } from 'react-router';
import { RecordPanel } from './RecordPanel';
import { Records } from './Records';
import { Senders } from './Senders';

const LOOK_AGAIN = 2000;
const MOST_STEPS = 40;
const PAGE = 100;

/** What the gateways decided: the fall of the last day, and the log with its filter. */
export default function TrafficPage({
  handle,
  numbers,
  byId,
  mayEdit,
  onRule,
  onProbe,
}: {
  handle: DraftHandle;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
  onProbe(line: string): void;
}) {
  const draft = handle.draft!;
  const { values, set, step } = useUrlState('traffic', ['q', 'record', 'weight']);
  const [held, setHeld] = useState(false);
  const [senders, setSenders] = useState(false);
  const [columns, setColumns] = useState(shownColumns);
  const [pages, setPages] = useState(1);
  const [keeping, setKeeping] = useState<NewChecks | null>(null);
  const hits = useHits(draft.id);
  const rules = useMemo(() => allRules(draft), [draft]);
  const { data: shares } = useQuery({
    queryKey: ['rule shares', draft.id, draft.version],
    queryFn: ({ signal }) => api.ruleShares(draft.id, signal),
    enabled: values.weight !== '',
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const fall = useMemo(() => {
    const counts = values.weight !== '' ? shares && alike(shares) : hits && recorded(hits);
    return counts ? fallOf(rules, counts, MOST_STEPS) : null;
  }, [rules, hits, shares, values.weight]);
  const filter = useMemo(() => readFilter(values.q), [values.q]);
  const asked = typeof filter === 'string' ? null : filter;
  const ruleId = asked ? idOf(asked.rule, rules) : null;
  const { data: log, error } = useQuery({
    queryKey: ['log', draft.id, asked, ruleId, pages],
    queryFn: () => api.log(draft.id, query(asked!, ruleId), PAGE * pages),
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    refetchInterval: held ? false : LOOK_AGAIN,
  });
  const { data: state } = useQuery({
    queryKey: ['log state', draft.id],
    queryFn: () => api.logState(draft.id),
    refetchInterval: 2 * LOOK_AGAIN,
  });
  const rows = log?.records ?? [];
  const shown = rows.find((row) => row.cursor === values.record);
  const filterBy = (change: LogFilter) => {
    setPages(1);
    step({ q: filterLine({ ...(asked ?? {}), ...change }), record: '' });
  };
  const byRule = (id: string | null) =>
    filterBy({ rule: id ? `${numbers.get(id) ?? id}` : 'default' });
  const now = (row: LogRow) => (row.rule ? byId.get(row.rule) : undefined);
  const observed = (row: LogRow) => {
    const rule = row.observedRule ? byId.get(row.observedRule) : undefined;
    return rule && { number: numbers.get(rule.id)!, name: rule.name };
  };
  const navigate = useNavigate();
  const keep = (row: LogRow) =>
    setKeeping({
      title: 'Keep as check',
      rows: [
        {
          name: `${row.person ?? row.from} to ${row.to} ${row.service}`.slice(0, 100),
          connection: row.connection,
          expected: row.verdict,
          group: 'Recorded',
        },
      ],
    });
  const savePicture = () =>
    saveFile(
      `${draft.name} fall`,
      'svg',
      fallSvg(
        fall!,
        draft.name,
        values.weight === ''
          ? `What each rule decided in the last 24 hours: ${whole(fall!.total)} connections`
          : 'Share of each rule, all kinds of connections weighted equally',
      ),
    );
  const then = (revision: number, rule: string) =>
    void navigate(`/rulebases/${draft.id}/revisions/${revision}?rule=${encodeURIComponent(rule)}`);
  const keys: Record<string, (row: LogRow) => void> = {
    Enter: (row) => now(row) && onRule(row.rule!),
    p: (row) => onProbe(row.connection),
    t: (row) => row.rule && then(row.revision, row.rule),
    r: (row) => byRule(row.rule ?? null),
    k: (row) => mayEdit && keep(row),
    ' ': () => setHeld(!held),
  };
  const chosen = asked?.rule === undefined ? null : (ruleId ?? null);
  return (
    <div className="flex min-h-0 flex-1">
      <section
        aria-labelledby="fall"
        className="w-[390px] shrink-0 overflow-y-auto border-r border-line p-4"
      >
        <h1 id="fall" className="text-[17px] font-semibold">
          The fall
        </h1>
        <div className="mt-1 mb-2 flex flex-wrap items-center gap-2 text-[12px]">
          <label className="flex items-center gap-1 text-dim">
            by
            <select
              value={values.weight}
              onChange={(e) => step({ weight: e.target.value })}
              className="rounded border border-dim px-1 text-ink"
            >
              <option value="">recorded connections</option>
              <option value="alike">all kinds alike</option>
            </select>
          </label>
          {fall && fall.total > 0 && (
            <Button small onClick={savePicture}>
              Save as picture
            </Button>
          )}
        </div>
        {fall && fall.total === 0 && (
          <p className="mt-2 text-dim">
            No gateway reported a connection in the last 24 hours. Add a gateway on the Publish page
            and let it report by syslog; its connections appear here.
          </p>
        )}
        {fall && fall.total > 0 && (
          <>
            <p className="mb-2 text-[12px] text-dim">
              {values.weight === ''
                ? `what each rule decided, last 24 h, all gateways · ${whole(fall.total)}`
                : `what each rule would decide; estimated from ${whole(fall.total)} kinds of connections`}
            </p>
            <FallPicture
              fall={fall}
              chosen={chosen === 'default' ? DEFAULT_RULE : chosen}
              onRule={(id) => byRule(id || null)}
            />
            {fall.more > 0 && (
              <p className="mt-2 text-[12px] text-dim">and {whole(fall.more)} rules with fewer</p>
            )}
            {fall.gone > 0 && (
              <p className="mt-2 text-[12px] text-dim">
                {whole(fall.gone)} connections by rules that the draft no longer has
              </p>
            )}
          </>
        )}
      </section>
      <section aria-labelledby="log" className="flex min-w-0 flex-1 flex-col">
        <div className="flex items-center gap-2 px-4 pt-4 pb-2">
          <h2 id="log" className="sr-only">
            Log
          </h2>
          <input
            aria-label="Filter of the log"
            data-filter
            placeholder="rule 29 verdict drop person … address … application … since 24h"
            value={values.q}
            onChange={(e) => {
              setPages(1);
              set({ q: e.target.value, record: '' });
            }}
            onKeyDown={(e) => {
              if (e.key === 'Escape') set({ q: '' });
              if (e.key === 'Enter' || e.key === 'ArrowDown')
                document.querySelector<HTMLElement>('[data-records]')?.focus();
            }}
            className="min-w-0 flex-1 rounded border border-dim bg-sheet px-2 py-1 font-mono text-[12px]"
          />
          <DropdownMenu.Root>
            <DropdownMenu.Trigger
              aria-label="Columns"
              className="cursor-pointer rounded border border-line bg-sheet p-[6px] hover:bg-band"
            >
              <Columns3 size={15} aria-hidden />
            </DropdownMenu.Trigger>
            <Menu>
              {COLUMNS.map((column) => (
                <MenuItem
                  key={column.id}
                  checked={columns.includes(column.id)}
                  onSelect={() => {
                    const next = columns.includes(column.id)
                      ? columns.filter((id) => id !== column.id)
                      : [...columns, column.id];
                    setColumns(next);
                    storeColumns(next);
                  }}
                >
                  {column.word}
                </MenuItem>
              ))}
            </Menu>
          </DropdownMenu.Root>
        </div>
        {typeof filter === 'string' ? (
          <p role="status" className="px-4 pb-2 text-[12px] text-drop">
            {filter}
          </p>
        ) : (
          <Faults error={error} />
        )}
        <Records
          rows={rows}
          columns={COLUMNS.filter((column) => columns.includes(column.id))}
          zone={draft.timeZone}
          focused={values.record}
          onFocus={(record) => {
            setHeld(true);
            set({ record });
          }}
          onKey={(key, row) => {
            keys[key]?.(row);
            return key in keys;
          }}
        />
        {log && rows.length === 0 && (
          <p className="px-4 py-3 text-dim">
            {values.q
              ? 'No record fits. Take a word out of the filter, or ask for a longer time.'
              : 'No records yet. A rule logs if it says so; the default rule always does.'}
          </p>
        )}
        {shown && (
          <RecordPanel
            row={shown}
            rule={now(shown)}
            number={shown.rule ? numbers.get(shown.rule) : undefined}
            observed={observed(shown)}
            onRule={onRule}
            onThen={then}
            onProbe={onProbe}
            onKeep={mayEdit ? () => keep(shown) : undefined}
            onOnly={() => byRule(shown.rule ?? null)}
          />
        )}
        <div className="flex shrink-0 items-center gap-3 px-4 py-2 text-[12px] text-dim">
          <Button small aria-pressed={held} onClick={() => setHeld(!held)}>
            {held ? 'Resume' : 'Hold'} <kbd className="font-sans">Space</kbd>
          </Button>
          <span>{held ? 'Held still' : 'Live'}</span>
          {log?.more && (
            <Button small onClick={() => setPages(Math.min(10, pages + 1))}>
              Older records
            </Button>
          )}
          {state && (
            <span className="ml-auto flex items-center gap-3">
              <span>
                {state.waiting > 0 && `${whole(state.waiting)} records wait to be stored · `}
                <Lost runs={state.runs} />
              </span>
              <Button small onClick={() => setSenders(true)}>
                Senders
              </Button>
            </span>
          )}
        </div>
      </section>
      {senders && state && <Senders state={state} onClose={() => setSenders(false)} />}
      {keeping && (
        <AddChecks
          from={keeping}
          handle={handle}
          numbers={numbers}
          onClose={() => setKeeping(null)}
        />
      )}
    </div>
  );
}

function Lost({ runs }: { runs: { gateway: string; lost: number; clockAhead: number }[] }) {
  const lost = runs.reduce((all, run) => all + run.lost, 0);
  const wrong = runs.find((run) => Math.abs(run.clockAhead) > 600);
  const gateways = new Set(runs.map((run) => run.gateway)).size;
  return (
    <>
      {gateways} {gateways === 1 ? 'gateway reports' : 'gateways report'} ·{' '}
      <b className={lost > 0 ? 'text-caution' : ''}>{whole(lost)}</b> records lost
      {wrong && (
        <span className="text-caution">
          {' '}
          · the clock of {wrong.gateway} is wrong by {Math.round(wrong.clockAhead / 60)} minutes
        </span>
      )}
    </>
  );
}

/** The id of a rule that the filter names by number or id. */
function idOf(said: string | undefined, rules: Rule[]): string | null {
  if (said === undefined) return null;
  const number = Number(said);
  return Number.isInteger(number) ? (rules[number - 1]?.id ?? said) : said;
}

function query(filter: LogFilter, rule: string | null): Record<string, string> {
  const out: Record<string, string> = { ...filter };
  delete out.rule;
  delete out.since;
  if (rule) out.rule = rule;
  if (filter.since) out.since = sinceTime(filter.since, new Date());
  return out;
}
