import type { Draft, ObjectKind, Rule } from '../api/types';
import { chipsOf, PARTS } from '../draft/criteria';

const KIND: Record<string, ObjectKind> = {
  fromZones: 'zone',
  toZones: 'zone',
  fromAddresses: 'address',
  toAddresses: 'address',
  services: 'service',
  site: 'host list',
  time: 'schedule',
  device: 'device state',
};

/** The rules that use each object, directly or through groups, by "kind:name". */
export function usersOf(draft: Draft, rules: Rule[]): Map<string, Rule[]> {
  const groups = new Map<string, string[]>();
  for (const [kind, objects] of [
    ['address', draft.addresses],
    ['service', draft.services],
  ] as const) {
    for (const object of objects) {
      const members = (object.members ?? []).map((m) => `${kind}:${m.toLowerCase()}`);
      groups.set(`${kind}:${object.name!.toLowerCase()}`, members);
    }
  }
  const users = new Map<string, Rule[]>();
  for (const rule of rules) {
    const seen = new Set<string>();
    const add = (key: string) => {
      if (seen.has(key)) return;
      seen.add(key);
      users.set(key, [...(users.get(key) ?? []), rule]);
      groups.get(key)?.forEach(add);
    };
    if (rule.ratePlan) add(`rate plan:${rule.ratePlan.toLowerCase()}`);
    if (rule.notice) add(`notice:${rule.notice.toLowerCase()}`);
    for (const part of PARTS) {
      for (const chip of chipsOf(rule, part))
        add(`${KIND[chip.criterion]}:${chip.text.toLowerCase()}`);
    }
  }
  return users;
}
