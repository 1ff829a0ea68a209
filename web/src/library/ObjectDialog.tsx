import { useState } from 'react';
import { PUT_EDITS, type Edit, type NamedObject, type ObjectKind } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Area, Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';

const MEMBERS: Record<ObjectKind, { label: string; hint: string }> = {
  zone: {
    label: 'Networks',
    hint: 'One a line, such as 10.4.0.0/16. None: any address can occur in the zone.',
  },
  address: {
    label: 'Members',
    hint: 'One a line: 10.4.2.9, 10.4.0.0/16, 10.4.2.1-10.4.2.20, IPv6, or the name of another address object.',
  },
  service: {
    label: 'Members',
    hint: 'One a line: tcp/443, udp/5000-5100, tcp/443 from 1024-65535, icmp/8, ip/47, or the name of another service.',
  },
  'host list': {
    label: 'Hosts',
    hint: 'One a line: www.quay.example, a path there (www.quay.example/forms), or all names below one (*.quay.example).',
  },
  schedule: {
    label: 'Times',
    hint: 'One a line: weekdays 06:00-22:00, mon,wed 22:00-04:00, daily, 2026-12-24, 2026-12-24 to 2027-01-02; by another clock with in Europe/Oslo behind it. With times of the week and days, both have to fit.',
  },
  'device state': {
    label: 'Devices',
    hint: 'One a line, facts that all hold: managed, has disk-lock, lacks fresh-updates; or unmanaged, platform kelpos.',
  },
};

/** Makes or changes one zone, address, service, host list, schedule or device state. A new name goes to every rule that says the old. */
export function ObjectDialog({
  kind,
  object,
  handle,
  onClose,
}: {
  kind: ObjectKind;
  object: NamedObject | null;
  handle: DraftHandle;
  onClose(): void;
}) {
  const [seen] = useState(handle.draft!.version);
  const [name, setName] = useState(object?.name ?? '');
  const [members, setMembers] = useState((object?.members ?? []).join('\n'));
  const [note, setNote] = useState(object?.note ?? '');
  const save = () => {
    const edit: Edit = {
      kind: PUT_EDITS[kind],
      object: {
        name,
        members: members
          .split('\n')
          .map((line) => line.trim())
          .filter(Boolean),
        note: note || undefined,
      },
      replaces: object?.name,
    };
    return handle.edit(edit, seen);
  };
  return (
    <FormDialog
      title={object ? `Edit ${object.name}` : `New ${kind}`}
      onSave={save}
      onClose={onClose}
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
        {...MEMBERS[kind]}
        mono
        rows={5}
        value={members}
        onChange={(e) => setMembers(e.target.value)}
      />
      <Area
        label="Note"
        rows={2}
        maxLength={2000}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
    </FormDialog>
  );
}
