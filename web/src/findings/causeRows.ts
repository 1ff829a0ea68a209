import type { NewChecks } from '../checks/AddChecks';
import { FINDING_KINDS, FINDING_WORDS, type FindingKind } from '../draft/findings';
import type { Cause } from './causes';

/** A row of the page: a heading, or a cause. */
export type Row = { heading: string } | { cause: Cause };

export const ORDERS = ['cause', 'kind', 'section'] as const;
export type Order = (typeof ORDERS)[number];

/** The chosen kinds with one more, or without it. */
export function toggled(kinds: ReadonlySet<FindingKind>, kind: FindingKind): FindingKind[] {
  return FINDING_KINDS.filter((one) => (one === kind ? !kinds.has(one) : kinds.has(one)));
}

/** Checks that the witnesses of a cause get the verdict of their own rule. */
export const checksOf = (cause: Cause): NewChecks => ({
  title: 'Checks from findings',
  rows: cause.found.flatMap(({ rule, finding }) =>
    finding.witness
      ? [
          {
            name: `${rule.name}: ${FINDING_WORDS[finding.kind]}`.slice(0, 94),
            connection: finding.witness,
            expected: rule.verdict,
            group: 'Findings',
          },
        ]
      : [],
  ),
});

/** What a cause stands below, in an order that has headings. */
function headingOf(cause: Cause, by: Order): string {
  return by === 'kind' ? FINDING_WORDS[cause.found[0]!.finding.kind] : cause.section.name;
}

/** The causes of one heading together; headings in the order of their first. */
export function ordered(causes: Cause[], by: Order): Cause[] {
  if (by === 'cause') return causes;
  const groups = new Map<string, Cause[]>();
  for (const cause of causes) {
    const heading = headingOf(cause, by);
    groups.set(heading, [...(groups.get(heading) ?? []), cause]);
  }
  return [...groups.values()].flat();
}

export function rowsOf(causes: Cause[], by: Order): Row[] {
  return causes.flatMap((cause, i): Row[] => {
    const heading = by === 'cause' ? null : headingOf(cause, by);
    const before = i > 0 && by !== 'cause' ? headingOf(causes[i - 1]!, by) : null;
    return heading !== null && heading !== before ? [{ heading }, { cause }] : [{ cause }];
  });
}
