import { useState } from 'react';
import type { Verdict } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Area, Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { VERDICTS } from './pasted';

/** One new check. */
export function NewCheck({ handle, onClose }: { handle: DraftHandle; onClose(): void }) {
  const [name, setName] = useState('');
  const [connection, setConnection] = useState('');
  const [verdict, setVerdict] = useState<Verdict>('allow');
  const [group, setGroup] = useState('');
  return (
    <FormDialog
      title="New check"
      save="Create"
      onClose={onClose}
      onSave={() =>
        handle.edit({
          kind: 'putCheck',
          check: {
            name: name.trim(),
            connection: connection.trim(),
            verdict,
            group: group.trim() || undefined,
          },
        })
      }
    >
      <Field
        label="Name"
        autoFocus
        required
        maxLength={100}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Area
        label="Connection"
        mono
        required
        rows={2}
        maxLength={1000}
        spellCheck={false}
        value={connection}
        placeholder="from 10.4.2.9 to 192.0.2.10 tcp/443"
        hint="One connection; or “all” and a reach question, for a set of them: all from guest-wifi to datacentre"
        onChange={(e) => setConnection(e.target.value.replaceAll('\n', ' '))}
      />
      <label className="mb-3 flex items-baseline gap-2 text-[12px] font-semibold">
        Expected
        <select
          value={verdict}
          onChange={(e) => setVerdict(e.target.value as Verdict)}
          className="rounded border border-dim px-1 font-normal"
        >
          {VERDICTS.map((word) => (
            <option key={word}>{word}</option>
          ))}
        </select>
      </label>
      <Field
        label="Group"
        maxLength={100}
        value={group}
        onChange={(e) => setGroup(e.target.value)}
      />
    </FormDialog>
  );
}
