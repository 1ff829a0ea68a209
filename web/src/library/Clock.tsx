import { useMutation } from '@tanstack/react-query';
import { api } from '../api/client';
import type { DraftHandle } from '../draft/useDraft';
import { FileButton } from '../ui/FileButton';
import { InlineEdit } from '../ui/InlineEdit';
import { CalendarDialog } from './CalendarDialog';

const ZONES = Intl.supportedValuesOf('timeZone');

/** By which clock times are meant, and the calendars that schedules come from and go to. */
export function Clock({ handle, mayEdit }: { handle: DraftHandle; mayEdit: boolean }) {
  const draft = handle.draft!;
  const calendar = useMutation({ mutationFn: (file: File) => api.readCalendar(file) });
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
          <FileButton accept=".ics,text/calendar" onFile={(file) => calendar.mutate(file)}>
            Import a calendar…
          </FileButton>
        )}
      </span>
      {calendar.error && (
        <span role="alert" className="w-full text-drop">
          {calendar.error.message}
        </span>
      )}
      {calendar.data && (
        <CalendarDialog read={calendar.data} handle={handle} onClose={calendar.reset} />
      )}
    </span>
  );
}
