import type { Rule, RuleHits, Standing } from '../api/types';
import { searchText } from '../draft/criteria';
import { FINDING_WORDS } from '../draft/findings';

/** Conditions that the server answers, by the rules that match some connections. */
export type AskedField = 'touches' | 'service' | 'person' | 'application';

/** What a rule is, said by one word. */
type State = 'disabled' | 'opened' | 'observing' | 'unfinished';

type Condition =
  | { field: 'word'; value: string }
  | { field: 'number'; value: number }
  | { field: State }
  | { field: AskedField; value: string }
  | { field: 'verdict' | 'finding' | 'log' | 'tag' | 'owner' | 'plan'; value: string }
  | { field: 'hits'; least: number; days: number | null }
  /** Since a revision, or since the one in force. */
  | { field: 'changed'; revision: number | null };

/** A condition of a filter, with its text as it was typed. */
export type Term = Condition & { not: boolean; text: string };

export interface RuleFilter {
  terms: Term[];
  /** What is wrong with it, in a sentence. */
  fault: string | null;
}

const VERDICTS = ['allow', 'drop', 'reject', 'caution'];
const LOGGING = ['off', 'start', 'end', 'both'];
const STATES: State[] = ['disabled', 'opened', 'observing', 'unfinished'];
const ASKED: AskedField[] = ['touches', 'service', 'person', 'application'];
const SEVERITIES = ['note', 'warning', 'error'];
const SERVICE = /^(tcp|udp|sctp|icmp|icmpv6)\/\d/;
const AGE = /^(\d{1,4})d$/;
const FINDINGS = [...Object.keys(FINDING_WORDS), ...SEVERITIES, 'any'];

/** The fields that take a value, with the values that they have where those are known. */
export const FIELDS: Record<string, { hint: string; values?: string[] }> = {
  touches: { hint: 'an address, a prefix, or an object' },
  service: { hint: 'such as tcp/443, also inside an object' },
  person: { hint: 'rules that can decide for them' },
  application: { hint: 'rules that can decide it' },
  verdict: { hint: VERDICTS.join(', '), values: VERDICTS },
  finding: { hint: 'a kind, a severity, or any', values: FINDINGS },
  hits: { hint: '0, or at least so many; since 30d' },
  tag: { hint: 'one of its tags' },
  owner: { hint: 'the responsible person or team' },
  changed: { hint: 'since rev 12, or since the one in force' },
  log: { hint: LOGGING.join(', '), values: LOGGING },
  plan: { hint: 'its rate plan; none' },
};

/** The words that a filter may have without a value. */
export const FLAGS = ['not', ...STATES];

/** Words and quoted phrases. */
const tokensOf = (text: string) => text.match(/"[^"]*"?|\S+/g) ?? [];
const bare = (token: string) => token.replace(/^"|"$/g, '');

/**
 * Reads a filter: words, which a rule has to contain, and fields with their value, such as
 * `touches 10.4.2.9 verdict drop not tag kiosk`. A field without its value, at the end, is still
 * being typed and narrows nothing.
 */
export function parseFilter(text: string): RuleFilter {
  const tokens = tokensOf(text);
  const terms: Term[] = [];
  let at = 0;
  let fault: string | null = null;
  const fail = (sentence: string) => {
    fault ??= sentence;
    return null;
  };
  const value = () => (at < tokens.length ? bare(tokens[at++]!) : null);
  /** Whether the last word may become one of some values. */
  const isBegun = (said: string, known: string[]) =>
    at === tokens.length &&
    !/\s$/.test(text) &&
    known.some((value) => value.startsWith(said.toLowerCase()));
  const oneOf = (field: string, said: string, known: string[]) =>
    known.includes(said.toLowerCase())
      ? said.toLowerCase()
      : isBegun(said, known)
        ? null
        : fail(`Expected ${known.join(', ')} behind "${field}", found "${said}".`);

  const condition = (): Condition | null => {
    const token = tokens[at++]!;
    const word = token.toLowerCase();
    if (token.startsWith('"')) return { field: 'word', value: bare(word) };
    if (STATES.includes(word as State)) return { field: word as State };
    if (/^\d{1,6}$/.test(word)) return { field: 'number', value: Number(word) };
    if (SERVICE.test(word)) return { field: 'service', value: word };
    if (word === 'changed') {
      if (tokens[at]?.toLowerCase() !== 'since') return { field: 'changed', revision: null };
      at++;
      if (tokens[at]?.toLowerCase() === 'rev') at++;
      const said = value();
      if (said === null) return null;
      return /^\d{1,6}$/.test(said)
        ? { field: 'changed', revision: Number(said) }
        : fail(`Expected the number of a revision behind "changed since rev", found "${said}".`);
    }
    if (!(word in FIELDS)) return { field: 'word', value: word };
    const said = value();
    if (said === null) return null;
    switch (word) {
      case 'verdict': {
        const verdict = oneOf(word, said, VERDICTS);
        return verdict ? { field: word, value: verdict } : null;
      }
      case 'log': {
        const log = oneOf(word, said, LOGGING);
        return log ? { field: word, value: log } : null;
      }
      case 'finding': {
        const wanted = said.toLowerCase();
        return FINDINGS.some((kind) => kind.startsWith(wanted))
          ? { field: word, value: wanted }
          : fail(`Expected a kind of finding, such as shadowed, found "${said}".`);
      }
      case 'hits': {
        if (!/^\d{1,12}$/.test(said)) return fail(`Expected a number of hits, found "${said}".`);
        let days: number | null = null;
        if (tokens[at]?.toLowerCase() === 'since') {
          at++;
          const age = value();
          if (age === null) return null;
          if (!AGE.test(age)) return fail(`Expected days such as 90d, found "${age}".`);
          days = Number(AGE.exec(age)![1]);
        }
        return { field: word, least: Number(said), days };
      }
      default:
        return { field: word as AskedField | 'tag' | 'owner' | 'plan', value: said };
    }
  };

  while (at < tokens.length) {
    const start = at;
    const not = tokens[at]!.toLowerCase() === 'not';
    if (not) at++;
    if (at === tokens.length) break; // only "not" so far
    const read = condition();
    if (read) terms.push({ ...read, not, text: tokens.slice(start, at).join(' ') });
  }
  return { terms, fault };
}

/** The conditions that the server answers, each once. */
export function askedOf(filter: RuleFilter): { field: AskedField; value: string }[] {
  const out = new Map<string, { field: AskedField; value: string }>();
  for (const term of filter.terms) {
    if (ASKED.includes(term.field as AskedField)) {
      const { field, value } = term as { field: AskedField; value: string };
      out.set(askedKey(field, value), { field, value });
    }
  }
  return [...out.values()];
}

export const askedKey = (field: AskedField, value: string) => `${field} ${value}`;

/** What the conditions of a filter look at, besides the rule. */
export interface FilterContext {
  standings: Record<string, Standing>;
  hits: Map<string, RuleHits> | undefined;
  now: Date;
  /** Ids of rules by {@link askedKey}; nothing while the answer is waited for. */
  asked: Map<string, Set<string>>;
  /** The rules of revisions, by id, as text; 0 for the one in force. */
  revisions: Map<number, Map<string, string>>;
}

const texts = new WeakMap<Rule, string>();

/** The text of a rule that words are looked for in; made once for each state of a rule. */
function textOf(rule: Rule): string {
  let text = texts.get(rule);
  if (text === undefined) {
    text = searchText(rule);
    texts.set(rule, text);
  }
  return text;
}

/** A rule as a text that is the same for rules that are the same. */
export const sameText = (rule: Rule) =>
  JSON.stringify(rule, (_, value: unknown) =>
    value && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );

/** Whether a rule is shown. */
export function fits(filter: RuleFilter, rule: Rule, number: number, context: FilterContext) {
  return filter.terms.every((term) => holds(term, rule, number, context) !== term.not);
}

function holds(term: Term, rule: Rule, number: number, context: FilterContext): boolean {
  const findings = context.standings[rule.id]?.findings ?? [];
  switch (term.field) {
    case 'word':
      return (
        textOf(rule).includes(term.value) ||
        findings.some((finding) => FINDING_WORDS[finding.kind].includes(term.value))
      );
    case 'number':
      return number === term.value;
    case 'disabled':
      return rule.enabled === false;
    case 'opened':
      return rule.opening === 'opened';
    case 'observing':
      return rule.observeOnly === true;
    case 'unfinished':
      return rule.unfinished === true;
    case 'touches':
    case 'service':
    case 'person':
    case 'application':
      // While the answer is waited for, nothing is hidden.
      return context.asked.get(askedKey(term.field, term.value))?.has(rule.id) ?? !term.not;
    case 'verdict':
      return rule.verdict === term.value;
    case 'finding':
      return findings.some(
        (finding) =>
          term.value === 'any' ||
          finding.kind.startsWith(term.value) ||
          finding.severity === term.value,
      );
    case 'log':
      return (rule.log ?? 'off') === term.value;
    case 'tag':
      return (rule.tags ?? []).some((tag) => tag.toLowerCase() === term.value.toLowerCase());
    case 'owner':
      return (rule.owner ?? '').toLowerCase().includes(term.value.toLowerCase());
    case 'plan':
      return term.value === 'none'
        ? !rule.ratePlan
        : (rule.ratePlan ?? '').toLowerCase() === term.value.toLowerCase();
    case 'hits':
      return hitsHold(term.least, term.days, context.hits?.get(rule.id), context.now);
    case 'changed': {
      const before = context.revisions.get(term.revision ?? 0);
      return before ? before.get(rule.id) !== sameText(rule) : !term.not;
    }
  }
}

function hitsHold(least: number, days: number | null, hits: RuleHits | undefined, now: Date) {
  const recent =
    hits !== undefined &&
    (days === null || now.getTime() - new Date(hits.lastAt).getTime() <= days * 86_400_000);
  const count = recent ? hits.connections : 0;
  return least === 0 ? count === 0 : count >= least;
}
