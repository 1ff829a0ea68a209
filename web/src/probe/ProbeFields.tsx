import { useId } from 'react';
import type { Draft } from '../api/types';
import { FIELDS, fieldsOf, lineOf, type FieldName } from './fields';

/** The connection of the probe in fields, in step with its line. */
export function ProbeFields({
  draft,
  line,
  onLine,
}: {
  draft: Draft;
  line: string;
  onLine(line: string): void;
}) {
  const id = useId();
  const fields = fieldsOf(draft, line);
  const options: Partial<Record<FieldName, string[]>> = {
    'from zone': draft.zones.map((zone) => zone.name),
    'to zone': draft.zones.map((zone) => zone.name),
    from: draft.addresses.map((one) => one.name),
    to: draft.addresses.map((one) => one.name),
    service: draft.services.map((one) => one.name),
  };
  return (
    <div role="group" aria-label="Fields of the connection" className="mt-2 grid gap-1">
      {FIELDS.map((field) => (
        <label key={field} className="grid grid-cols-[74px_1fr] items-center gap-2 text-[12px]">
          <span className="text-dim">{field}</span>
          <input
            value={fields[field] ?? ''}
            list={options[field] && `${id}-${field}`}
            spellCheck={false}
            onChange={(e) => onLine(lineOf({ ...fields, [field]: e.target.value }))}
            onKeyDown={(e) => e.stopPropagation()}
            className="min-w-0 rounded border border-dim px-1 font-mono"
          />
          {options[field] && (
            <datalist id={`${id}-${field}`}>
              {options[field].slice(0, 200).map((name) => (
                <option key={name} value={name} />
              ))}
            </datalist>
          )}
        </label>
      ))}
    </div>
  );
}
