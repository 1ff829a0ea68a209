import type { Draft } from '../api/types';

export interface LineOption {
  text: string;
  detail: string;
}

const MOST = 8;

/** The word that is being typed, and where it starts. */
export function lastWord(line: string): { word: string; start: number } {
  const start = line.search(/\S*$/);
  return { word: line.slice(start), start };
}

/** What could stand at the end of a connection line. */
export function completeLine(draft: Draft, line: string): LineOption[] {
  const { word, start } = lastWord(line);
  const before = line.slice(0, start).trimEnd().toLowerCase();
  const names = (objects: { name?: string; members?: string[] }[]) =>
    objects.map((o) => ({ text: o.name ?? '', detail: (o.members ?? []).join(', ') }));
  let options: LineOption[];
  if (/(^|\s)in$/.test(before)) {
    options = names(draft.zones);
  } else if (/(^|\s)(from|to)$/.test(before)) {
    options = [
      { text: 'in', detail: 'a zone, whatever the address' },
      ...names(draft.addresses.filter((o) => single(o.members))),
    ];
  } else {
    const said = (w: string) => new RegExp(`(^|\\s)${w}\\s`).test(`${before} `);
    options = [
      ...(said('from') ? [] : [{ text: 'from', detail: 'who opens the connection' }]),
      ...(said('to') ? [] : [{ text: 'to', detail: 'whom it is opened to' }]),
      ...names(draft.services.filter((o) => singleService(o.members))),
      { text: 'from port', detail: 'source port' },
    ];
  }
  const query = word.toLowerCase();
  return options
    .filter((o) => o.text.toLowerCase().startsWith(query) && o.text.toLowerCase() !== query)
    .slice(0, MOST);
}

const single = (members: string[] | undefined) =>
  members?.length === 1 && !/[/-]/.test(members[0]!) && /^[\d:]/.test(members[0]!);
const singleService = (members: string[] | undefined) =>
  members?.length === 1 && !members[0]!.includes('-');
