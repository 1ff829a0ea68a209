import type { BelowDocument, CommonEffect } from '../api/types';

/** What a common rule does in the rulebases below it. */
export interface RuleBelow {
  /** In how many rulebases it is known what the rule does. */
  known: number;
  /** Those of them in which it decides nothing. */
  nothing: BelowDocument[];
}

/** The rulebases below in which a rule decides nothing, as far as the answers are there. */
export function ruleBelow(
  rule: string,
  below: BelowDocument[],
  effects: Map<number, CommonEffect>,
): RuleBelow {
  const known = below.filter((one) => effects.get(one.id)?.standings[rule]);
  const nothing = known.filter((one) =>
    ['covered', 'empty'].includes(effects.get(one.id)!.standings[rule]!.kind),
  );
  return { known: known.length, nothing };
}

/** "decides nothing in 3 of 14"; nothing to say of a rule that decides everywhere. */
export function nothingWords({ known, nothing }: RuleBelow): string | null {
  return nothing.length ? `decides nothing in ${nothing.length} of ${known}` : null;
}

/** The gateways that rulebases have, without repetition, by name. */
export const gatewaysOf = (below: BelowDocument[]): string[] =>
  [...new Set(below.flatMap((one) => one.gateways))].sort((a, b) => a.localeCompare(b));
