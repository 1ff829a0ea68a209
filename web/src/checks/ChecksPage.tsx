import { DropdownMenu } from 'radix-ui';
import { useMemo, useState } from 'react';
import type { CheckState, Edit, Rule, SavedCheck } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { useUrlState } from '../shell/useUrlState';
import { Button } from '../ui/Button';
import { csvOf } from '../ui/csv';
import { Faults } from '../ui/Faults';
import { FileButton } from '../ui/FileButton';
import { Menu, MenuItem } from '../ui/Menu';
import { saveFile } from '../ui/saveFile';
import AddChecks, { type NewChecks } from './AddChecks';
import { checkRows, withCell, type Cell } from './checkRows';
import { CheckTable, type TableActions } from './CheckTable';
import { Coverage } from './Coverage';
import { NewCheck } from './NewCheck';
import { readTable, tableOf } from './pasted';

/** Connections with an expected verdict, which run again after every change. */
export default function ChecksPage({
  handle,
  states,
  numbers,
  byId,
  mayEdit,
  onRule,
  onProbe,
}: {
  handle: DraftHandle;
  states: CheckState[] | undefined;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
  /** Shows a connection in the probe. */
  onProbe(line: string): void;
}) {
  const draft = handle.draft!;
  const { values, set, step } = useUrlState('checks', ['q', 'failing', 'coverage']);
  const onlyFailing = values.failing !== '';
  const [error, setError] = useState<unknown>(null);
  const [selected, setSelected] = useState<Set<string>>(() => new Set());
  const [adding, setAdding] = useState<NewChecks | 'one' | null>(null);
  const [said, setSaid] = useState('');
  const byName = useMemo(() => new Map(states?.map((state) => [state.name, state])), [states]);
  const byNumber = useMemo(
    () => new Map([...numbers].map(([id, number]) => [`${number}`, id])),
    [numbers],
  );
  const checks = draft.checks;
  const rows = useMemo(
    () => checkRows(checks, byName, values.q, onlyFailing),
    [checks, byName, values.q, onlyFailing],
  );
  const failing = states?.filter((state) => !state.holds).length ?? 0;
  const chosen = checks.filter((check) => selected.has(check.name));
  const shown = rows.flatMap((row) => ('check' in row ? [row.check] : []));
  const put = (check: SavedCheck, replaces: string): Edit => ({
    kind: 'putCheck',
    check,
    replaces,
  });
  const send = async (edits: Edit[]) => {
    const problem = await handle.edit(edits.length === 1 ? edits[0]! : { kind: 'batch', edits });
    setError(problem);
    return problem === null;
  };
  const actions: TableActions = {
    async save(check, cell: Cell, text) {
      // A name and a connection are one check's own; the rest may go into all selected ones.
      const alone = cell === 'name' || cell === 'connection' || !selected.has(check.name);
      const changed = (alone ? [check] : chosen).map((one) => ({
        before: one,
        after: withCell(one, cell, text, byNumber),
      }));
      const wrong = changed.find((one) => typeof one.after === 'string');
      if (wrong) {
        setError(new Error(wrong.after as string));
        return false;
      }
      const edits = changed
        .filter((one) => JSON.stringify(one.after) !== JSON.stringify(one.before))
        .map((one) => put(one.after as SavedCheck, one.before.name));
      setError(null);
      return edits.length === 0 || send(edits);
    },
    remove(focused) {
      const removed = chosen.length > 0 || !focused ? chosen : [focused];
      const names = removed.map((check) => check.name);
      void send(names.map((name) => ({ kind: 'deleteCheck', name }))).then((done) => {
        if (done) setSelected(new Set());
        if (done) setSaid(`${names.length} deleted. Ctrl+Z brings them back.`);
      });
    },
    copy() {
      const copied = chosen.length > 0 ? chosen : shown;
      const text = tableOf(copied, numbers)
        .map((cells) => cells.join('\t'))
        .join('\n');
      void navigator.clipboard
        ?.writeText(text)
        .then(() => setSaid(`${copied.length} copied as a table.`));
    },
    paste: (text) => setAdding({ title: 'Paste checks', table: readTable(text) }),
    probe: (check) => onProbe(check.connection),
    select: setSelected,
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-6 py-3">
        <h1 className="text-[17px] font-semibold">Checks</h1>
        <input
          type="search"
          aria-label="Search checks"
          placeholder="name, connection, group, tag"
          value={values.q}
          onChange={(e) => set({ q: e.target.value })}
          className="w-[230px] rounded border border-dim px-2 py-1"
        />
        <label className="flex items-baseline gap-1 text-[12px]">
          <input
            type="checkbox"
            checked={onlyFailing}
            onChange={(e) => step({ failing: e.target.checked ? 'only' : '' })}
          />
          failing only
        </label>
        <span role="status" className={failing ? 'text-drop' : 'text-dim'}>
          {states === undefined
            ? 'Running…'
            : `${states.length - failing} of ${states.length} pass`}
        </span>
        <span className="ml-auto flex items-center gap-2">
          {chosen.length > 0 && (
            <>
              <span className="text-[12px]">{chosen.length} selected</span>
              {mayEdit && (
                <Button small onClick={() => actions.remove()}>
                  Delete selected
                </Button>
              )}
            </>
          )}
          <Button
            small
            aria-pressed={values.coverage !== ''}
            onClick={() => step({ coverage: values.coverage ? '' : 'shown' })}
          >
            Coverage
          </Button>
          {mayEdit && (
            <>
              <Button small onClick={() => setAdding('one')}>
                New check…
              </Button>
              <FileButton
                accept=".csv,.tsv,.txt,text/csv"
                onFile={(file) =>
                  void file
                    .text()
                    .then((text) =>
                      setAdding({ title: `Import ${file.name}`, table: readTable(text) }),
                    )
                }
              >
                Import CSV…
              </FileButton>
            </>
          )}
          <DropdownMenu.Root>
            <DropdownMenu.Trigger asChild>
              <Button small>Export…</Button>
            </DropdownMenu.Trigger>
            <Menu>
              <MenuItem
                onSelect={() =>
                  saveFile(
                    `${draft.name} checks`,
                    'csv',
                    csvOf(tableOf(chosen.length > 0 ? chosen : shown, numbers)),
                  )
                }
              >
                CSV
              </MenuItem>
              <MenuItem onSelect={() => window.print()}>Print</MenuItem>
            </Menu>
          </DropdownMenu.Root>
        </span>
      </div>
      {error !== null && (
        <div className="px-6 pt-2">
          <Faults error={error} />
        </div>
      )}
      {values.coverage !== '' && (
        <Coverage
          handle={handle}
          numbers={numbers}
          byId={byId}
          mayEdit={mayEdit}
          onRule={onRule}
          onProbe={onProbe}
        />
      )}
      {checks.length === 0 ? (
        <div className="p-6 text-dim">
          <p>
            There are none yet. Try a connection in the probe beside the rules, then press “Save as
            check”: it will be tried again after every change.
          </p>
          {mayEdit && (
            <p className="mt-2">
              Or paste a table here, or open <i>Coverage</i>: it finds the checks that would notice
              every mistake.
            </p>
          )}
        </div>
      ) : (
        <>
          {rows.length === 0 && (
            <p className="px-6 py-3 text-dim">
              No check fits.{' '}
              <Button small onClick={() => step({ q: '', failing: '' })}>
                Show all
              </Button>
            </p>
          )}
          <CheckTable
            rows={rows}
            selected={selected}
            numbers={numbers}
            byId={byId}
            mayEdit={mayEdit}
            actions={actions}
            onRule={onRule}
          />
        </>
      )}
      <p className="border-t border-line px-6 py-1 text-[12px] text-dim">
        <span role="status">{said}</span>{' '}
        {said === '' &&
          'Arrows move · Enter edits · Space selects · Del deletes · w probes · Ctrl+C, Ctrl+V tables'}
      </p>
      {adding === 'one' && <NewCheck handle={handle} onClose={() => setAdding(null)} />}
      {adding !== null && adding !== 'one' && (
        <AddChecks
          from={adding}
          handle={handle}
          numbers={numbers}
          onClose={() => setAdding(null)}
        />
      )}
    </div>
  );
}
