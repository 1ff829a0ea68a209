import type { Draft } from '../api/types';
import { nameInQuestion } from './answer';

export interface QuestionOption {
  text: string;
  detail: string;
}

const OPENINGS: QuestionOption[] = [
  { text: 'who can reach', detail: 'who can reach datacentre' },
  { text: 'who but', detail: 'who but finance can reach Ledger' },
  { text: 'what can', detail: 'what can guest-wifi reach' },
  { text: 'what decides between', detail: 'what decides between offices and internet' },
  { text: 'which features of', detail: 'which features of Saltbox from guest-wifi' },
];
const CLAUSES: QuestionOption[] = [
  { text: 'from', detail: 'zone, address, person or group' },
  { text: 'to', detail: 'zone, address, application or site' },
  { text: 'service', detail: 'such as tcp/443' },
  { text: 'application', detail: 'such as Saltbox' },
  { text: 'person', detail: 'person or group' },
  { text: 'device', detail: 'such as managed' },
  { text: 'time', detail: 'a schedule' },
  { text: 'not', detail: 'an exception' },
];
const MOST = 10;

/** The coordinates whose names the server completes at some place of a question. */
export function namesAt(line: string): string[] {
  const { before } = split(line);
  if (/(^|\s)(application|which features of)$/i.test(before)) return ['application'];
  if (/(^|\s)person$/i.test(before)) return ['person'];
  if (/(^|\s)(to|who can reach|can reach)$/i.test(before)) return ['application', 'site'];
  if (/(^|\s)(from|what can|who but|what decides between)$/i.test(before)) return ['person'];
  return [];
}

/** The part before the word that is being typed, without an exception or a comma at its end. */
function split(line: string): { before: string; typed: string; start: number } {
  const start = line.search(/[^\s,]*$/);
  const before = line
    .slice(0, start)
    .trimEnd()
    .replace(/(,|\s)\s*not$/i, '$1')
    .trimEnd()
    .replace(/^(.*\s|)(from|to|service|application|person)\s.*,$/i, '$1$2')
    .trimEnd();
  return { before, typed: line.slice(start), start };
}

/** Completions at the end of a question, and where they start; `names` are the server's. */
export function questionOptions(
  draft: Draft,
  line: string,
  names: string[],
): { start: number; options: QuestionOption[] } {
  const { before, typed, start } = split(line);
  const word = typed.toLowerCase();
  if (before === '') return { start, options: fitting([...OPENINGS, ...CLAUSES], word) };
  const named = (objects: { name: string }[], detail: string) =>
    objects.map((one) => ({ text: nameInQuestion(one.name), detail }));
  if (/(^|\s)(service)$/i.test(before)) {
    return { start, options: fitting(named(draft.services, 'service'), word) };
  }
  const known = names.map((name) => ({ text: nameInQuestion(name), detail: 'name' }));
  const ends = /(^|\s)(from|to|in|who can reach|can reach|what can|who but|between|and)$/i;
  if (ends.test(before)) {
    const objects = /(^|\s)in$/i.test(before) ? [] : named(draft.addresses, 'address');
    return { start, options: fitting([...named(draft.zones, 'zone'), ...known, ...objects], word) };
  }
  if (known.length > 0) return { start, options: fitting(known, word) };
  const next: QuestionOption[] = [];
  if (/^what decides between \S+$/i.test(before)) next.push({ text: 'and', detail: 'other end' });
  if (/^what can .*[^h]$/i.test(before) && !/ reach /i.test(`${before} `))
    next.push({ text: 'reach', detail: '' });
  if (/^who but /i.test(before) && !/ can reach/i.test(before))
    next.push({ text: 'can reach', detail: '' });
  return { start, options: fitting([...next, ...CLAUSES], word) };
}

const fitting = (options: QuestionOption[], word: string) =>
  options
    .filter((one) => one.text.toLowerCase().includes(word) && one.text.toLowerCase() !== word)
    .sort((a, b) => rank(a, word) - rank(b, word))
    .slice(0, MOST);

const rank = (option: QuestionOption, word: string) =>
  option.text.toLowerCase().replace(/^"/, '').startsWith(word) ? 0 : 1;
