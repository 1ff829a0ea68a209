import type { PersonEntry, Rule } from '../api/types';

/** The items of a rule that mention a person, by name, group or attribute. */
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
