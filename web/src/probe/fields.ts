import type { Draft } from '../api/types';

/** The parts of a connection line, in the order in which they stand there. */
export const FIELDS = [
  'from',
  'from zone',
  'to',
  'to zone',
  'service',
  'from port',
  'person',
  'device',
  'site',
  'application',
  'file kind',
  'time',
] as const;
export type FieldName = (typeof FIELDS)[number];
export type Fields = Partial<Record<FieldName, string>>;

const WORDS = [
  'from port',
  'from',
  'to',
  'in',
  'person',
  'device',
  'site',
  'application',
  'file kind',
  'time',
];
const WORD = new RegExp(`(?<=^|\\s)(${WORDS.join('|')})(?=\\s|$)`, 'gi');

/** The parts of a line; what belongs to none is taken for the service. */
export function fieldsOf(draft: Draft, line: string): Fields {
  const fields: Fields = {};
  const put = (field: FieldName, text: string) => {
    if (text.trim()) fields[field] = text.trim();
  };
  const found = [...line.matchAll(WORD)];
  let rest = line.slice(0, found[0]?.index ?? line.length);
  let end: 'from' | 'to' = 'from';
  found.forEach((match, i) => {
    const word = match[1]!.toLowerCase();
    const text = line.slice(match.index + word.length, found[i + 1]?.index ?? line.length).trim();
    if (word === 'from' || word === 'to') {
      end = word;
      const [own, other] = split(
        text,
        draft.addresses.map((one) => one.name),
      );
      put(word, own);
      rest += ` ${other}`;
    } else if (word === 'in') {
      const [own, other] = split(
        text,
        draft.zones.map((one) => one.name),
      );
      put(`${end} zone`, own);
      rest += ` ${other}`;
    } else if (word === 'from port') {
      const [own, other] = split(text, []);
      put('from port', own);
      rest += ` ${other}`;
    } else put(word as FieldName, text);
  });
  put('service', rest);
  return fields;
}

/** The name or the word at the beginning of a text, and what is behind it. */
function split(text: string, names: string[]): [string, string] {
  const name = names
    .filter((one) => `${text} `.toLowerCase().startsWith(`${one.toLowerCase()} `))
    .sort((a, b) => b.length - a.length)[0];
  const length = name?.length ?? /^\S*/.exec(text)![0].length;
  return [text.slice(0, length), text.slice(length).trim()];
}

/** The line of some parts. */
export function lineOf(fields: Fields): string {
  const end = (word: 'from' | 'to') => {
    const zone = fields[`${word} zone`];
    if (!fields[word] && !zone) return '';
    return [word, fields[word], zone && `in ${zone}`].filter(Boolean).join(' ');
  };
  const rest = FIELDS.slice(FIELDS.indexOf('from port')).map((field) =>
    fields[field] ? `${field} ${fields[field]}` : '',
  );
  return [end('from'), end('to'), fields.service, ...rest].filter(Boolean).join(' ');
}
