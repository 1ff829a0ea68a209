import type { Draft } from '../api/types';
import { allRules } from '../draft/applyEdit';
import { FIELDS, FLAGS } from './ruleFilter';

/** A completion of the filter line. */
export interface FilterOption {
  text: string;
  detail: string;
}

const MOST = 12;

/** The word that is being typed, and the word before it. */
export function typedOf(text: string): { before: string; typed: string } {
  const words = text.match(/"[^"]*"?|\S+/g) ?? [];
  if (text === '' || text.endsWith(' ')) return { before: words.at(-1) ?? '', typed: '' };
  return { before: words.at(-2) ?? '', typed: words.at(-1) ?? '' };
}

const quoted = (value: string) => (/\s/.test(value) ? `"${value}"` : value);

/** The text with the word that is being typed completed. */
export function completed(text: string, chosen: string): string {
  const { typed } = typedOf(text);
  return `${text.slice(0, text.length - typed.length)}${quoted(chosen)} `;
}

/** The kinds of names that the server completes behind a field. */
export const NAMED_BY_SERVER: Record<string, string[]> = {
  person: ['person'],
  application: ['application'],
};

/** Completions of what is typed, best first; names of people and applications are the server's. */
export function filterOptions(draft: Draft, text: string, names: string[]): FilterOption[] {
  const { before, typed } = typedOf(text);
  const field = before.toLowerCase();
  const start = typed.replace(/^"/, '').toLowerCase();
  const values = valuesOf(draft, field, names);
  if (values) {
    return values
      .filter((value) => value.toLowerCase().includes(start))
      .slice(0, MOST)
      .map((value) => ({ text: value, detail: field }));
  }
  if (start === '') return [];
  return [
    ...Object.entries(FIELDS).map(([name, { hint }]) => ({ text: name, detail: hint })),
    ...FLAGS.map((flag) => ({ text: flag, detail: '' })),
  ].filter((option) => option.text.startsWith(start) && option.text !== start);
}

/** What may stand behind a field; nothing if the word is none, or anything may. */
function valuesOf(draft: Draft, field: string, names: string[]): string[] | null {
  const known = FIELDS[field];
  if (!known) return null;
  if (known.values) return known.values;
  const rules = () => allRules(draft);
  switch (field) {
    case 'tag':
      return distinct(rules().flatMap((rule) => rule.tags ?? []));
    case 'owner':
      return distinct(rules().flatMap((rule) => (rule.owner ? [rule.owner] : [])));
    case 'plan':
      return ['none', ...draft.ratePlans.map((plan) => plan.name)];
    case 'touches':
      return draft.addresses.map((object) => object.name);
    case 'service':
      return draft.services.map((object) => object.name);
    case 'changed':
      return ['since'];
    case 'person':
    case 'application':
      return names;
    default:
      return null;
  }
}

const distinct = (values: string[]) => [...new Set(values)].sort();
