import type { Draft, Rule, Standing, Verdict } from '../api/types';
import { allRules } from './applyEdit';

/** Numbers of rules by their ids: the place in the order, from 1. */
export function numbersOf(draft: Draft): Map<string, number> {
  return new Map(allRules(draft).map((rule, i) => [rule.id, i + 1]));
}

export type FindingKind = 'shadowed' | 'redundant-above' | 'empty' | 'undecided';

/** Finding kinds as they are listed, the gravest first. */
export const FINDING_KINDS: FindingKind[] = ['shadowed', 'empty', 'redundant-above', 'undecided'];

export const FINDING_WORDS: Record<FindingKind, string> = {
  shadowed: 'shadowed',
  empty: 'empty',
  'redundant-above': 'redundant',
  undecided: 'undecided',
};

export function findingOf(standing: Standing | undefined): FindingKind | null {
  const kind = standing?.kind;
  return kind === 'shadowed' ||
    kind === 'redundant-above' ||
    kind === 'empty' ||
    kind === 'undecided'
    ? kind
    : null;
}

/** "5", "5 and 11", "5, 7 and 11". */
export function listed(items: (string | number)[]): string {
  return items.length < 2
    ? items.join('')
    : `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;
}

/** The finding in a few words, for the strip. */
export function shortFinding(standing: Standing, numbers: Map<string, number>): string {
  const causes = (standing.causes ?? []).map((id) => numbers.get(id) ?? '?');
  switch (standing.kind) {
    case 'shadowed':
      return `shadowed by ${listed(causes)}`;
    case 'redundant-above':
      return `redundant: ${listed(causes)} already ${causes.length > 1 ? 'do' : 'does'} this`;
    case 'empty':
      return 'empty: nothing can match';
    case 'undecided':
      return 'undecided';
    default:
      return '';
  }
}

const DID: Record<Verdict, string> = {
  allow: 'allows',
  drop: 'drops',
  reject: 'rejects',
  caution: 'cautions',
};

/** The finding as a sentence or two. */
export function longFinding(
  rule: Rule,
  standing: Standing,
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
): string {
  const number = numbers.get(rule.id) ?? 0;
  const causes = (standing.causes ?? []).map((id) => numbers.get(id) ?? '?');
  const decider = standing.decidedBy ? byId.get(standing.decidedBy) : undefined;
  const before = decider
    ? `Rule ${numbers.get(decider.id)} ${DID[decider.verdict]} this connection before rule ${number} can ${rule.verdict} it.`
    : '';
  const together = causes.length > 1 ? 'together take' : 'takes';
  const least =
    causes.length < 2
      ? ''
      : standing.smallest
        ? ' No fewer rules do.'
        : ' Whether fewer rules do was not settled.';
  switch (standing.kind) {
    case 'shadowed':
      return `${causes.length > 1 ? 'Rules' : 'Rule'} ${listed(causes)} ${together} all of it.${least} ${before}`;
    case 'redundant-above':
      return `${causes.length > 1 ? 'Rules' : 'Rule'} ${listed(causes)} ${together} all of it, with the same verdict.${least} ${before}`;
    case 'empty':
      return 'No feasible connection meets its criteria: the zone and the addresses have nothing in common.';
    case 'undecided':
      return `Not settled within the budget of work: ${standing.question}.`;
    case 'passed-over':
      return 'It is disabled, so every connection passes it by.';
    default:
      return standing.share === 1
        ? 'Nothing above takes anything from it.'
        : `About ${percent(standing.share ?? 0)} of its match still gets to it (±\u00a0${percent(standing.uncertainty ?? 0)}); the rules above take the rest.`;
  }
}

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

/** How many of the ten holes of the mesh are open: 0 and 10 are exact. */
export function openHoles(standing: Standing | undefined): number {
  if (standing?.kind !== 'decides') {
    return 0;
  }
  const share = standing.share ?? 0;
  if (standing.uncertainty === 0 && share === 1) {
    return 10;
  }
  return Math.min(9, Math.max(1, Math.round(share * 10)));
}
