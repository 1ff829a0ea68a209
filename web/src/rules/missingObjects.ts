import { PUT_EDITS, type Edit, type ObjectKind } from '../api/types';

/** An object that pasted rules name and the draft lacks. */
export interface MissingObject {
  kind: string;
  name: string;
}

/** What has to be said of a missing object, by its kind. */
export const ASKS: Record<string, { label: string; hint: string; optional?: boolean }> = {
  zone: { label: 'networks', hint: '10.4.0.0/16, or nothing', optional: true },
  address: { label: 'members', hint: '10.4.3.7, 192.0.2.0/24' },
  service: { label: 'members', hint: 'tcp/443, udp/53' },
  'host list': { label: 'hosts', hint: 'www.quay.example, *.quay.example' },
  schedule: { label: 'times', hint: 'mon 06:00-22:00, tue 06:00-22:00' },
  'device state': { label: 'states', hint: 'managed; has disk-lock' },
  'rate plan': { label: 'ceiling', hint: '20 Mbit/s' },
  notice: { label: 'text', hint: 'The text that people read' },
};

/** The edit that creates a missing object, from what was typed. */
export function creating({ kind, name }: MissingObject, text: string): Edit {
  if (kind === 'rate plan') {
    return {
      kind: 'putRatePlan',
      ratePlan: { name, ceiling: text.trim(), counted: 'all rules' },
    };
  }
  if (kind === 'notice') {
    return { kind: 'putNotice', notice: { name, heading: name, text: text.trim() } };
  }
  // A device state has commas inside.
  const members = text
    .split(kind === 'device state' ? ';' : /[,;]/)
    .map((one) => one.trim())
    .filter(Boolean);
  return { kind: PUT_EDITS[kind as ObjectKind], object: { name, members } };
}
