/** The words of the filter line, each followed by its value. */
export const FILTER_WORDS = [
  'rule',
  'verdict',
  'person',
  'address',
  'application',
  'since',
] as const;

export type FilterWord = (typeof FILTER_WORDS)[number];
export type LogFilter = Partial<Record<FilterWord, string>>;

const VERDICTS = ['allow', 'drop', 'reject', 'caution', 'refused'];
const UNITS: Record<string, number> = { m: 60, h: 3600, d: 86_400 };
const AGE = /^(\d{1,4})([mhd])$/;

/**
 * Reads a filter line such as `rule 29 verdict drop since 24h`. A value ends at the next word.
 * Returns a sentence if something is wrong.
 */
export function readFilter(line: string): LogFilter | string {
  const out: LogFilter = {};
  let word: FilterWord | null = null;
  for (const token of line.trim().split(/\s+/).filter(Boolean)) {
    const known = FILTER_WORDS.find((one) => one === token.toLowerCase());
    if (known && out[known] !== undefined) return `"${known}" occurs twice.`;
    if (known && word && !out[word]) return `"${word}" has no value.`;
    if (known) {
      word = known;
      out[known] = '';
    } else if (word) {
      out[word] = out[word] ? `${out[word]} ${token}` : token;
    } else {
      return `Start with ${FILTER_WORDS.join(', ')}; found "${token}".`;
    }
  }
  if (word && !out[word]) return `"${word}" has no value.`;
  if (out.verdict && !VERDICTS.includes(out.verdict.toLowerCase()))
    return `Expected ${VERDICTS.join(', ')} behind "verdict", found "${out.verdict}".`;
  if (out.since && !AGE.test(out.since))
    return `Expected a time such as 15m, 24h or 7d behind "since", found "${out.since}".`;
  return out;
}

/** The time that a number of minutes, hours or days ago was. */
export function sinceTime(age: string, now: Date): string {
  const [, count, unit] = AGE.exec(age)!;
  return new Date(now.getTime() - Number(count) * UNITS[unit!]! * 1000).toISOString();
}

/** The filter as a line. */
export const filterLine = (filter: LogFilter) =>
  FILTER_WORDS.filter((word) => filter[word])
    .map((word) => `${word} ${filter[word]}`)
    .join(' ');
