import type { PersonEntry, Rule } from '../api/types';

/** What a rule says of a person by name, by a group or by an attribute, in its own words. */
export function saidOf(person: PersonEntry, rule: Rule): string[] {
  const names = new Set(
    [
      person.name,
      'any signed in',
      ...person.groups.flatMap((group) => [group.name, `${group.name} (group)`]),
      ...Object.entries(person.attributes).flatMap(([attribute, values]) => [
        `${attribute} is set`,
        ...values.map((value) => `${attribute} is ${value}`),
      ]),
    ].map((name) => name.toLowerCase()),
  );
  return (rule.terms?.person?.items ?? []).filter((item) => names.has(item.toLowerCase()));
}
