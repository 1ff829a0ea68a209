import type { Rule, RuleHits, RuleShares } from '../api/types';
import { DEFAULT_RULE } from '../draft/useHits';

/** One rule of the fall, in the rules' order. */
export interface FallStep {
  /** Null for the default rule. */
  rule: Rule | null;
  number: number;
  connections: number;
  /** Of all connections, 0 to 1. */
  share: number;
  /** The share that no rule above decided, itself included. */
  before: number;
}

/** The fall: the share of some connections that each rule decides. */
export interface Fall {
  total: number;
  steps: FallStep[];
  /** Rules that decided something, but are not among the steps. */
  more: number;
  /** Connections of the rules that are no longer in the draft. */
  gone: number;
}

/** How often each rule decided, by its id; of the default rule under `DEFAULT_RULE`. */
export type Counts = Map<string, number>;

/** The connections of the last 24 hours. */
export const recorded = (hits: Map<string, RuleHits>): Counts =>
  new Map([...hits].map(([id, one]) => [id, sum(one)]));

/** The kinds of connections, each alike. */
export const alike = (shares: RuleShares): Counts =>
  new Map(Object.entries(shares.decided).map(([id, count]) => [id || DEFAULT_RULE, count]));

const sum = (hits: RuleHits | undefined) =>
  hits ? hits.hours.reduce((all, hour) => all + hour, 0) : 0;

/** What each rule decided, from the top down; of many rules those with most. */
export function fallOf(rules: Rule[], counts: Counts, most: number): Fall {
  const counted = rules
    .map((rule, i) => ({ rule, number: i + 1, connections: counts.get(rule.id) ?? 0 }))
    .filter((one) => one.connections > 0);
  const last = counts.get(DEFAULT_RULE) ?? 0;
  const total = [...counts.values()].reduce((all, one) => all + one, 0);
  const decided = counted.reduce((all, one) => all + one.connections, 0) + last;
  const least =
    counted.length > most
      ? counted.map((one) => one.connections).sort((a, b) => b - a)[most - 1]!
      : 0;
  const shown = counted.filter((one) => one.connections >= least).slice(0, most);
  const steps: FallStep[] = [];
  let left = decided;
  let next = 0;
  for (const one of counted) {
    if (shown[next] === one) {
      steps.push({ ...one, share: one.connections / decided, before: left / decided });
      next++;
    }
    left -= one.connections;
  }
  if (last > 0)
    steps.push({
      rule: null,
      number: rules.length + 1,
      connections: last,
      share: last / decided,
      before: left / decided,
    });
  return { total, steps, more: counted.length - shown.length, gone: total - decided };
}
