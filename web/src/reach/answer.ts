import type { ReachAnswer, Rule } from '../api/types';
import { csvOf } from '../ui/csv';
import { letsThrough } from '../ui/verdicts';

export type ReachLine = ReachAnswer['lines'][number];

/** The axes that tell who asks; the others tell for what, but for the destination. */
const WHO = ['from', 'from port', 'person', 'device'];

/** The columns of the answer: who, where to, and for what; empty for all of the question. */
export function columnsOf(line: ReachLine): { who: string[]; to: string[]; what: string[] } {
  const who: string[] = [];
  const to: string[] = [];
  const what: string[] = [];
  for (const [axis, values] of Object.entries(line.parts)) {
    if (axis === 'to') to.push(values);
    else if (axis === 'from') who.push(values);
    else if (WHO.includes(axis)) who.push(`${axis} ${values}`);
    else what.push(axis === 'service' || axis === 'application' ? values : `${axis} ${values}`);
  }
  return { who, to, what };
}

/** The lines that are let through, then those that are refused; each in the order of the rules. */
export function groupsOf(answer: ReachAnswer): { name: string; lines: ReachLine[] }[] {
  const through = answer.lines.filter((line) => letsThrough(line.verdict));
  const refused = answer.lines.filter((line) => !letsThrough(line.verdict));
  return [
    { name: 'Let through', lines: through },
    { name: 'Refused', lines: refused },
  ].filter((group) => group.lines.length > 0);
}

/** The rule of a line in words. */
export function ruleOf(
  id: string | undefined,
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
): string {
  return id ? `rule ${numbers.get(id) ?? '?'} ${byId.get(id)?.name ?? ''}`.trim() : 'Default rule';
}

/** The answer as CSV, a line for each line of it. */
export function answerCsv(
  answer: ReachAnswer,
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
): string {
  const rows = answer.lines.map((line) => {
    const { who, to, what } = columnsOf(line);
    return [
      line.verdict,
      line.rule ? `${numbers.get(line.rule) ?? ''}` : '',
      line.rule ? (byId.get(line.rule)?.name ?? '') : 'Default rule',
      who.join('; '),
      to.join('; '),
      what.join('; '),
      line.except.map((id) => numbers.get(id) ?? '?').join(' '),
      line.witness,
    ];
  });
  const header = ['verdict', 'rule', 'name', 'who', 'to', 'for', 'except rules', 'example'];
  return csvOf([header, ...rows]);
}

/** A name as it stands in a question: in quotes where it would read as something else. */
export const nameInQuestion = (name: string) =>
  /^[\p{L}\p{N}._*+-]+$/u.test(name) && !/^(to|from|and|in|not|reach|service)$/i.test(name)
    ? name
    : JSON.stringify(name);
