import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api } from '../api/client';
import type { Edit, SavedCheck } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { FormDialog } from '../ui/FormDialog';
import { Faults } from '../ui/Faults';
import { Working } from '../ui/QuestionProgress';
import { COLUMNS, guessColumns, rowsOf, withOwnNames, type Column, type PastedRow } from './pasted';

const MOST_SHOWN = 200;

/** Where new checks come from: a table whose columns are guessed, or rows that are known. */
export type NewChecks = { title: string; table: string[][] } | { title: string; rows: PastedRow[] };

/** New checks before they are added: each row with its connection, verdict and errors. */
export default function AddChecks({
  from,
  handle,
  numbers,
  onClose,
}: {
  from: NewChecks;
  handle: DraftHandle;
  numbers: Map<string, number>;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const table = 'table' in from ? from.table : null;
  const guessed = useMemo(() => guessColumns(table ?? []), [table]);
  const [columns, setColumns] = useState(guessed.columns);
  const [header, setHeader] = useState(guessed.header);
  const [group, setGroup] = useState('');
  const [skip, setSkip] = useState(false);
  const byNumber = useMemo(
    () => new Map([...numbers].map(([id, number]) => [`${number}`, id])),
    [numbers],
  );
  const rows = useMemo(
    () => withOwnNames('rows' in from ? from.rows : rowsOf(from.table, header, columns, byNumber)),
    [from, header, columns, byNumber],
  );
  const lines = rows.map((row) => row.connection);
  const { data, error } = useQuery({
    queryKey: ['read checks', draft.id, draft.version, lines],
    queryFn: () => api.readChecks(draft.id, lines),
    enabled: lines.length > 0,
    staleTime: Infinity,
  });
  const read = rows.map((row, i) => {
    const result = data?.results[i];
    const fault = row.fault ?? result?.fault;
    const verdict =
      row.expected ?? (result?.verdict as SavedCheck['verdict'] | undefined) ?? 'drop';
    return { row, fault, verdict, line: result?.line ?? row.connection };
  });
  const good = read.filter((one) => !one.fault);
  const bad = read.length - good.length;
  const known = new Set(draft.checks.map((check) => check.name.toLowerCase()));
  const edits = (): Edit[] =>
    good.map(({ row, verdict, line }) => ({
      kind: 'putCheck',
      check: {
        name: row.name,
        connection: line,
        verdict,
        rule: row.rule,
        protected: row.protected,
        group: row.group ?? (group.trim() || undefined),
        tags: row.tags,
      },
      replaces: known.has(row.name.toLowerCase()) ? row.name : undefined,
    }));
  const ready = data !== undefined && good.length > 0 && (bad === 0 || skip);
  return (
    <FormDialog
      title={from.title}
      wide
      save={data ? `Add ${good.length}` : 'Add'}
      onClose={onClose}
      onSave={() =>
        ready
          ? handle.edit({ kind: 'batch', edits: edits() })
          : Promise.reject(
              new Error(
                bad > 0
                  ? `${bad} of ${read.length} rows have errors. Mend them, or leave them out.`
                  : 'There is nothing to add.',
              ),
            )
      }
    >
      <Faults error={error} />
      {rows.length === 0 && <p className="mb-3 text-dim">No row has a connection.</p>}
      {lines.length > 0 && !data && !error && <Working on="The rows" />}
      {table && (
        <label className="mb-2 flex items-baseline gap-2 text-[12px]">
          <input type="checkbox" checked={header} onChange={(e) => setHeader(e.target.checked)} />
          the first row is a heading
        </label>
      )}
      <div
        tabIndex={0}
        role="group"
        aria-label="Rows"
        className="mb-3 max-h-[320px] overflow-auto border border-line"
      >
        <table className="w-full border-collapse text-[12px]">
          {table && (
            <thead className="sticky top-0 bg-band">
              <tr>
                <th className="px-1 text-left font-normal">#</th>
                {columns.map((column, i) => (
                  <th key={i} className="p-1 text-left font-normal">
                    <select
                      aria-label={`Column ${i + 1}`}
                      value={column ?? ''}
                      onChange={(e) =>
                        setColumns(
                          columns.map((one, j) => {
                            const chosen = (e.target.value || null) as Column | null;
                            return j === i ? chosen : one === chosen ? null : one;
                          }),
                        )
                      }
                      className="rounded border border-dim"
                    >
                      <option value="">(not used)</option>
                      {COLUMNS.map((one) => (
                        <option key={one}>{one}</option>
                      ))}
                    </select>
                  </th>
                ))}
              </tr>
            </thead>
          )}
          <tbody>
            {read.slice(0, MOST_SHOWN).map(({ row, fault, verdict, line }, i) => (
              <tr key={i} className="border-t border-line align-top">
                <td className="px-1 text-dim">{i + 1}</td>
                <td className="px-1" colSpan={Math.max(1, columns.length || 2)}>
                  <b>{row.name}</b>{' '}
                  <span className="text-dim">
                    expects {verdict}
                    {row.rule && ` by rule ${numbers.get(row.rule)}`}
                    {known.has(row.name.toLowerCase()) && ' · replaces the check of that name'}
                  </span>
                  <span className="block font-mono break-words">{line}</span>
                  {fault && <span className="block text-drop">{fault}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {read.length > MOST_SHOWN && (
        <p className="mb-2 text-[12px] text-dim">and {read.length - MOST_SHOWN} more rows</p>
      )}
      <div className="mb-3 flex flex-wrap items-baseline gap-4 text-[12px]">
        <label className="flex items-baseline gap-2">
          Group
          <input
            value={group}
            maxLength={100}
            onChange={(e) => setGroup(e.target.value)}
            className="w-[160px] rounded border border-dim px-1"
          />
        </label>
        {bad > 0 && (
          <label className="flex items-baseline gap-2 text-drop">
            <input type="checkbox" checked={skip} onChange={(e) => setSkip(e.target.checked)} />
            leave out the {bad} {bad === 1 ? 'row' : 'rows'} with errors
          </label>
        )}
      </div>
    </FormDialog>
  );
}
