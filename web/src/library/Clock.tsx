import { useState } from 'react';
import { api } from '../api/client';
import type { ReadSchedule } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { FileButton } from '../ui/FileButton';
import { InlineEdit } from '../ui/InlineEdit';
import { CalendarDialog } from './CalendarDialog';

const ZONES = Intl.supportedValuesOf('timeZone');

/** By which clock times are meant, and the calendars that schedules come from and go to. */
export function Clock({ handle, mayEdit }: { handle: DraftHandle; mayEdit: boolean }) {
  const draft = handle.draft!;
  const [read, setRead] = useState<ReadSchedule[] | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const bring = async (file: File) => {
    try {
      setRead(await api.readCalendar(file));
      setRefused(null);
    } catch (e) {
      setRefused(e instanceof Error ? e.message : String(e));
    }
  };
  return (
    <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-2 text-[12px]">
      <span className="text-dim">Time zone: {draft.timeZone}</span>
      {mayEdit && (
        <InlineEdit
          label="Time zone"
          button="Edit time zone"
          value={draft.timeZone}
          placeholder="Europe/Oslo"
          choices={ZONES}
          onSave={(name) => handle.edit({ kind: 'setTimeZone', name })}
        />
      )}
      <span className="ml-auto flex items-baseline gap-2">
        {draft.schedules.length > 0 && (
          <a
            href={api.calendarUrl(draft.id)}
            download={`${draft.name}.ics`}
            className="text-accent underline underline-offset-2"
          >
            Export as iCalendar
          </a>
        )}
        {mayEdit && (
          <FileButton accept=".ics,text/calendar" onFile={(file) => void bring(file)}>
            Import a calendar…
          </FileButton>
        )}
      </span>
      {refused && (
        <span role="alert" className="w-full text-drop">
          {refused}
        </span>
      )}
      {read && <CalendarDialog read={read} handle={handle} onClose={() => setRead(null)} />}
    </span>
  );
}
