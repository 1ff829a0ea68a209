import { useState } from 'react';
import type { Edit, ReadSchedule } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { FormDialog } from '../ui/FormDialog';

/** The schedules that a calendar holds: which of them to take, and what to call each. */
export function CalendarDialog({
  read,
  handle,
  onClose,
}: {
  read: ReadSchedule[];
  handle: DraftHandle;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const [seen] = useState(draft.version);
  const [rows, setRows] = useState(() =>
    read.map((schedule) => ({ ...schedule, name: schedule.name || 'calendar', taken: true })),
  );
  const there = (name: string) =>
    draft.schedules.find((s) => s.name!.toLowerCase() === name.trim().toLowerCase())?.name;
  const change = (at: number, to: Partial<(typeof rows)[number]>) =>
    setRows(rows.map((row, i) => (i === at ? { ...row, ...to } : row)));
  const taken = rows.filter((row) => row.taken);
  const save = () => {
    if (taken.length === 0) return Promise.resolve(null);
    const edits: Edit[] = taken.map(({ name, members }) => ({
      kind: 'putSchedule',
      object: { name: name.trim(), members },
      replaces: there(name),
    }));
    return handle.edit({ kind: 'batch', edits }, seen);
  };
  return (
    <FormDialog
      title={`${read.length} ${read.length === 1 ? 'schedule' : 'schedules'} in the calendar`}
      onSave={save}
      onClose={onClose}
    >
      <ul className="mb-3 max-h-[50vh] overflow-y-auto">
        {rows.map((row, i) => (
          <li key={i} className="mb-2 flex items-start gap-2">
            <input
              type="checkbox"
              aria-label={`Take ${row.name}`}
              checked={row.taken}
              onChange={(e) => change(i, { taken: e.target.checked })}
              className="mt-2"
            />
            <div className="min-w-0 flex-1">
              <input
                aria-label={`Name of schedule ${i + 1}`}
                required={row.taken}
                maxLength={100}
                value={row.name}
                onChange={(e) => change(i, { name: e.target.value })}
                className="w-full rounded border border-dim px-2 py-1"
              />
              <p className="font-mono text-[12px]">{row.members.join(', ')}</p>
              {row.taken && there(row.name) && (
                <p className="text-[12px] text-caution">Replaces {there(row.name)} in all rules.</p>
              )}
            </div>
          </li>
        ))}
      </ul>
    </FormDialog>
  );
}
