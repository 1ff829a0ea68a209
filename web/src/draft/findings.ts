import type { Draft, Finding, Rule, Standing, Verdict } from '../api/types';
import { allRules } from './applyEdit';

/** Numbers of rules by their ids: the place in the order, from 1. */
export function numbersOf(draft: Draft): Map<string, number> {
  return new Map(allRules(draft).map((rule, i) => [rule.id, i + 1]));
}

export type FindingKind = Finding['kind'];

/** Finding kinds as they are listed, the gravest first. */
export const FINDING_KINDS: FindingKind[] = [
  'shadowed',
  'empty',
  'expired',
  'redundant-above',
  'redundant-below',
  'unmet-need',
  'unseen-feature',
  'too-broad',
  'undecided',
  'ends-soon',
  'mergeable',
  'correlated',
  'generalised',
];

/** Findings that can be removed without a person's judgement. */
export const MENDABLE: ReadonlySet<FindingKind> = new Set<FindingKind>([
  'shadowed',
  'empty',
  'redundant-above',
  'redundant-below',
  'correlated',
  'mergeable',
  'unseen-feature',
  'unmet-need',
  'expired',
  'too-broad',
]);

export const FINDING_WORDS: Record<FindingKind, string> = {
  shadowed: 'shadowed',
  empty: 'empty',
  'redundant-above': 'redundant above',
  'redundant-below': 'redundant below',
  'unmet-need': 'unmet need',
  'unseen-feature': 'unseen feature',
  'too-broad': 'too broad',
  expired: 'expired',
  'ends-soon': 'ends soon',
  undecided: 'undecided',
  mergeable: 'mergeable',
  correlated: 'correlated',
  generalised: 'generalised',
};

/** What a strip tells without being asked: the gravest finding that is more than a note. */
export function gravest(standing: Standing | undefined): Finding | undefined {
  const telling = standing?.findings.filter((finding) => finding.severity !== 'note') ?? [];
  return FINDING_KINDS.map((kind) => telling.find((finding) => finding.kind === kind)).find(
    (finding) => finding,
  );
}

export function has(standing: Standing | undefined, kind: FindingKind): boolean {
  return standing?.findings.some((finding) => finding.kind === kind) ?? false;
}

/** "5", "5 and 11", "5, 7 and 11". */
export function listed(items: (string | number)[]): string {
  return items.length < 2
    ? items.join('')
    : `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;
}

/** The finding in a few words, for the strip. */
export function shortFinding(finding: Finding, numbers: Map<string, number>): string {
  const causes = finding.causes.map((id) => numbers.get(id) ?? '?');
  const same = (who: string) => `redundant: ${who} ${causes.length > 1 ? 'do' : 'does'} the same`;
  switch (finding.kind) {
    case 'shadowed':
      return `shadowed by ${listed(causes)}`;
    case 'redundant-above':
      return `redundant: ${listed(causes)} already ${causes.length > 1 ? 'do' : 'does'} this`;
    case 'redundant-below':
      return same(causes.length ? `${listed(causes)} below` : 'the default rule');
    case 'empty':
      return 'empty: nothing can match';
    case 'unmet-need':
      return 'unmet need';
    case 'unseen-feature':
      return 'unseen feature';
    case 'too-broad':
      return 'too broad';
    case 'mergeable':
      return `mergeable with ${listed(causes)}`;
    case 'correlated':
      return `correlated with ${listed(causes)}`;
    case 'generalised':
      return `generalises ${listed(causes)}`;
    case 'expired':
      return `expired ${finding.detail}`;
    case 'ends-soon':
      return `ends ${finding.detail}`;
    case 'undecided':
      return 'undecided';
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
  finding: Finding,
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
): string {
  const number = numbers.get(rule.id) ?? 0;
  const causes = finding.causes.map((id) => numbers.get(id) ?? '?');
  const decider = finding.decidedBy ? byId.get(finding.decidedBy) : undefined;
  const before = decider
    ? `Rule ${numbers.get(decider.id)} ${DID[decider.verdict]} this connection before rule ${number} can ${rule.verdict} it.`
    : '';
  const rules = `${causes.length > 1 ? 'Rules' : 'Rule'} ${listed(causes)}`;
  const together = causes.length > 1 ? 'together take' : 'takes';
  const least =
    finding.minimal === false
      ? ' The cause may not be minimal.'
      : causes.length < 2
        ? ''
        : finding.smallest
          ? ' No fewer rules do.'
          : ' Whether fewer rules do was not settled.';
  switch (finding.kind) {
    case 'shadowed':
      return `${rules} ${together} all of it.${least} ${before}`;
    case 'redundant-above':
      return `${rules} ${together} all of it, with the same verdict.${least} ${before}`;
    case 'redundant-below':
      return causes.length
        ? `Without it, ${causes.length > 1 ? 'rules' : 'rule'} ${listed(causes)} below would give everything that it decides the same verdict.${finding.minimal === false ? least : ''}`
        : 'Without it, the default rule would drop everything that it decides just the same.';
    case 'empty':
      return 'No feasible connection meets its criteria.';
    case 'too-broad':
      return 'It allows, and narrows nothing that counts: people, applications, sites or services, unless set otherwise. Narrowing only times, devices or kinds of files does not excuse it.';
    case 'expired':
      return `Its last day was ${finding.detail}, so it decides nothing.`;
    case 'ends-soon':
      return `Its last day is ${finding.detail}.`;
    case 'unmet-need':
      return causes.length
        ? `${finding.detail}, which ${listed(causes.map((cause) => `rule ${cause}`))} ${causes.length > 1 ? 'refuse' : 'refuses'} to a source that this rule allows.`
        : `${finding.detail}, which no rule allows to a source that this rule allows.`;
    case 'unseen-feature':
      return `${finding.detail}: that shows only in opened connections, and this rule leaves them sealed.`;
    case 'mergeable':
      return `It and rule ${listed(causes)} below differ in one criterion only: one rule with the items of both does the same.`;
    case 'correlated':
      return `${rules} above, with another verdict, takes a part of it and more besides. ${before}`;
    case 'generalised':
      return `It contains ${rules.toLowerCase()} above, which has another verdict: usual for an exception.`;
    case 'undecided':
      return `Analysis limit reached: not settled ${finding.detail}.`;
  }
}

/** How much gets to the rule, as a sentence. */
export function reachWords(standing: Standing): string {
  switch (standing.kind) {
    case 'passed-over':
      return 'It is disabled, so every connection passes it by.';
    case 'decides':
      return standing.share === 1 && standing.uncertainty === 0
        ? 'Nothing above takes anything from it.'
        : `About ${percent(standing.share)} of its match still gets to it (±\u00a0${percent(standing.uncertainty)}); the rules above take the rest.`;
    default:
      return '';
  }
}

const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;

/** How many of the ten holes of the mesh are open: 0 and 10 are exact. */
export function openHoles(standing: Standing | undefined): number {
  if (standing?.kind !== 'decides') {
    return 0;
  }
  const share = standing.share;
  if (standing.uncertainty === 0 && share === 1) {
    return 10;
  }
  return Math.min(9, Math.max(1, Math.round(share * 10)));
}

/**
 * What the mesh of a rule says.
 *
 * @param state why it decides nothing, if it is disabled or the like
 */
export function meshWords(
  holes: number,
  standing: Standing | undefined,
  state: string | null,
): string {
  if (state) return `${state}: nothing reaches it`;
  if (holes === 10) return 'all of it is reached';
  if (holes === 0) return standing?.kind === 'undecided' ? 'not settled' : 'nothing reaches it';
  return `about ${Math.round((standing?.share ?? 0) * 100)} % of it is reached`;
}
