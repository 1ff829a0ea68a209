import type { Draft, TermOption } from '../api/types';
import type { Coordinate } from '../draft/criteria';

export interface LineOption {
  text: string;
  detail: string;
}

const MOST = 12;
const EDITIONED: Coordinate[] = ['person', 'application'];
const DETAIL: Record<Coordinate, string> = {
  person: 'who is signed in',
  application: 'with its feature, such as Gullwire: post',
  'file kind': 'what is moved',
  device: 'such as managed, has disk-lock',
  site: 'such as www.quay.example',
  time: 'such as mon 10:15, or 2026-12-24T10:15',
};

/** The word that is being typed, and where it starts. */
export function lastWord(line: string): { word: string; start: number } {
  const start = line.search(/\S*$/);
  return { word: line.slice(start), start };
}

/** What the server completes, and what it has to have an edition for. */
const NAMED: Coordinate[] = ['person', 'application', 'file kind', 'device', 'site', 'time'];
const NAMED_LAST = new RegExp(`^(.*\\s)?(${NAMED.join('|')})\\s+(.*)$`, 'i');

/** The name that is being typed behind the word of what it is of, and where it starts. */
export function lastName(line: string): { of: Coordinate; text: string; start: number } | null {
  const found = NAMED_LAST.exec(line);
  if (!found) return null;
  const text = found[3]!;
  return { of: found[2]!.toLowerCase() as Coordinate, text, start: line.length - text.length };
}

/**
 * What could stand at the end of a connection line, and where it would start.
 *
 * @param terms what the server knows that fits the name that is being typed
 */
export function completions(
  draft: Draft,
  line: string,
  terms: TermOption[],
): { start: number; options: LineOption[] } {
  const name = lastName(line);
  const fitting = terms.filter(
    (term) => term.some.length === 0 && term.name.toLowerCase() !== name?.text.toLowerCase(),
  );
  if (name && fitting.length > 0) {
    const options = fitting.slice(0, MOST).map((term) => ({ text: term.name, detail: name.of }));
    return { start: name.start, options };
  }
  return { start: lastWord(line).start, options: completeLine(draft, line) };
}

/** What could stand at the end of a connection line, by what the draft itself names. */
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
      ...(said('to') ? [] : [{ text: 'to', detail: 'the destination' }]),
      ...names(draft.services.filter((o) => singleService(o.members))),
      { text: 'from port', detail: 'source port' },
      ...NAMED.filter((of) => !said(of) && (!EDITIONED.includes(of) || draft.editions[of])).map(
        (of) => ({ text: of, detail: DETAIL[of] }),
      ),
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
