import type { Rule, RuleHits } from '../api/types';
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

/** The fall of the last 24 hours. */
export interface Fall {
  total: number;
  steps: FallStep[];
  /** Rules that decided something, but are not among the steps. */
  more: number;
  /** Connections of the rules that are no longer in the draft. */
  gone: number;
}

const sum = (hits: RuleHits | undefined) =>
  hits ? hits.hours.reduce((all, hour) => all + hour, 0) : 0;

/** What each rule decided, from the top down; of many rules those with most. */
export function fallOf(rules: Rule[], hits: Map<string, RuleHits>, most: number): Fall {
  const counted = rules
    .map((rule, i) => ({ rule, number: i + 1, connections: sum(hits.get(rule.id)) }))
    .filter((one) => one.connections > 0);
  const last = sum(hits.get(DEFAULT_RULE));
  const total = [...hits.values()].reduce((all, one) => all + sum(one), 0);
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
