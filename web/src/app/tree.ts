import type { RulebaseSummary } from '../api/types';

/**
 * The rulebases as a tree in one list: each common rulebase stands before those below it.
 *
 * @returns each with its depth, from 0
 */
export function treeOf(all: RulebaseSummary[]): { rulebase: RulebaseSummary; depth: number }[] {
  const names = new Set(all.map((one) => one.name));
  const out: { rulebase: RulebaseSummary; depth: number }[] = [];
  const add = (common: string | undefined, depth: number) => {
    for (const rulebase of all) {
      const above = rulebase.common && names.has(rulebase.common) ? rulebase.common : undefined;
      if (above === common) {
        out.push({ rulebase, depth });
        if (rulebase.kind === 'common') add(rulebase.name, depth + 1);
      }
    }
  };
  add(undefined, 0);
  return out;
}
