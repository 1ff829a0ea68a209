import type { Draft, Finding, Rule } from '../api/types';
import { originOf, sectionsOf } from '../draft/applyEdit';
import { FINDING_KINDS, FINDING_WORDS, listed, type FindingKind } from '../draft/findings';

/** A finding of one rule. */
export interface Found {
  rule: Rule;
  finding: Finding;
}

/** Findings that one thing causes, and that one repair may remove. */
export interface Cause {
  key: string;
  title: string;
  subtitle: string;
  /** Rules that cause it and are no part of `found`, in their order. */
  causes: Rule[];
  found: Found[];
  /** Id and name of the section of the first rule that is found. */
  section: { id: string; name: string };
}

const SEVERITIES = ['error', 'warning', 'note'];

const plural = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

/** What a finding is grouped by. */
function keyOf(rule: Rule, finding: Finding): string {
  switch (finding.kind) {
    case 'shadowed':
    case 'redundant-above':
      return `taken by ${finding.causes.join(' ')}`;
    case 'correlated':
      return `part taken by ${finding.causes.join(' ')}`;
    case 'mergeable':
      return `merge ${[rule.id, ...finding.causes].sort().join(' ')}`;
    case 'unmet-need':
      return `need ${finding.detail}`;
    default:
      return `${finding.kind} ${rule.id} ${finding.detail ?? ''}`;
  }
}

/**
 * The findings of a draft, grouped by what causes them: the gravest first, then in the order of the
 * rules.
 *
 * @param kinds only these
 */
export function causesOf(
  draft: Draft,
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
  kinds: ReadonlySet<FindingKind>,
): Cause[] {
  const groups = new Map<string, { found: Found[]; section: { id: string; name: string } }>();
  for (const section of sectionsOf(draft)) {
    const { id, name } = section;
    const origin = originOf(draft, section);
    for (const rule of section.rules ?? []) {
      for (const finding of draft.standings[rule.id]?.findings ?? []) {
        if (!kinds.has(finding.kind)) continue;
        const key = keyOf(rule, finding);
        const group = groups.get(key);
        if (group) group.found.push({ rule, finding });
        else {
          const from = origin ? ` of ${origin}` : '';
          groups.set(key, { found: [{ rule, finding }], section: { id, name: name + from } });
        }
      }
    }
  }
  const out = [...groups].map(([key, { found, section }]): Cause => {
    const ids = new Set(found.flatMap((one) => one.finding.causes));
    found.forEach((one) => ids.delete(one.rule.id));
    const causes = [...ids]
      .flatMap((id) => byId.get(id) ?? [])
      .sort((a, b) => (numbers.get(a.id) ?? 0) - (numbers.get(b.id) ?? 0));
    return { key, ...wordsOf(found, causes, numbers), causes, found, section };
  });
  const rank = (cause: Cause) =>
    Math.min(...cause.found.map((one) => SEVERITIES.indexOf(one.finding.severity)));
  return out
    .map((cause, place) => ({ cause, rank: rank(cause), place }))
    .sort((a, b) => a.rank - b.rank || a.place - b.place)
    .map((one) => one.cause);
}

function wordsOf(
  found: Found[],
  causes: Rule[],
  numbers: Map<string, number>,
): { title: string; subtitle: string } {
  const { rule, finding } = found[0]!;
  const number = numbers.get(rule.id) ?? '?';
  const these = listed(causes.map((cause) => numbers.get(cause.id) ?? '?'));
  const rules = causes.length > 1 ? `Rules ${these}` : `Rule ${these}`;
  const count = (kind: FindingKind) => found.filter((one) => one.finding.kind === kind).length;
  switch (finding.kind) {
    case 'shadowed':
    case 'redundant-above': {
      const shadowed = count('shadowed');
      const redundant = count('redundant-above');
      const does = [
        shadowed > 0 && `${causes.length > 1 ? 'shadow' : 'shadows'} ${plural(shadowed, 'rule')}`,
        redundant > 0 &&
          `${causes.length > 1 ? 'make' : 'makes'} ${plural(redundant, 'rule')} redundant`,
      ].filter(Boolean);
      const last = found.length === 1 ? `rule ${number}` : plural(found.length, 'rule');
      return {
        title:
          causes.length > 1
            ? `${rules} together take ${last}`
            : shadowed > 0
              ? `${rules} stands too high`
              : `${rules} already does the same`,
        subtitle: does.join(', '),
      };
    }
    case 'correlated':
      return {
        title: `${rules} ${causes.length > 1 ? 'take' : 'takes'} a part of ${plural(found.length, 'rule')}`,
        subtitle: 'with another verdict',
      };
    case 'mergeable':
      return {
        title: `Rules ${listed([number, ...causes.map((cause) => numbers.get(cause.id) ?? '?')])} can be one rule`,
        subtitle: 'they differ in one criterion only',
      };
    case 'unmet-need':
      return {
        title: finding.detail ?? 'Unmet need',
        subtitle: `${plural(found.length, 'rule')} ${found.length === 1 ? 'allows' : 'allow'} the one without the other`,
      };
    case 'redundant-below':
      return {
        title: causes.length
          ? `${rules} below ${causes.length > 1 ? 'do' : 'does'} what rule ${number} does`
          : `The default rule does what rule ${number} does`,
        subtitle: 'redundant below',
      };
    default:
      return { title: `Rule ${number}: ${FINDING_WORDS[finding.kind]}`, subtitle: '' };
  }
}

/** How many findings of each kind a draft has, the gravest kind first. */
export function countKinds(draft: Draft): [FindingKind, number][] {
  const counts = new Map<FindingKind, number>();
  for (const standing of Object.values(draft.standings)) {
    for (const { kind } of standing.findings) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return FINDING_KINDS.flatMap((kind): [FindingKind, number][] =>
    counts.has(kind) ? [[kind, counts.get(kind)!]] : [],
  );
}
