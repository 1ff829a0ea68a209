import type { CheckState, SavedCheck } from '../api/types';

/** How a check came out, in words. */
export function outcomeOf(
  check: SavedCheck,
  state: CheckState | undefined,
  numbers: Map<string, number>,
): { word: string; fails: boolean; says: string } {
  if (!state) return { word: '…', fails: false, says: `expected ${check.verdict}` };
  if (state.refused)
    return { word: 'fails', fails: true, says: `Cannot be tried: ${state.refused}.` };
  const by = state.rule ? `rule ${numbers.get(state.rule) ?? '?'}` : 'the default rule';
  if (state.holds) return { word: 'passes', fails: false, says: `${check.verdict}, by ${by}` };
  const example = state.counterexample ? `; for example ${state.counterexample}` : '';
  if (state.verdict !== check.verdict) {
    const some = state.certain ? 'got' : 'not certain: some get';
    return {
      word: 'fails',
      fails: true,
      says: `expected ${check.verdict}, ${some} ${state.verdict} by ${by}${example}`,
    };
  }
  if (!state.certain && !state.counterexample) {
    return { word: 'fails', fails: true, says: 'Analysis limit reached; say more of it.' };
  }
  const wanted = numbers.get(check.rule!);
  const meant = wanted ? `rule ${wanted}` : 'a rule that is gone';
  return {
    word: 'fails',
    fails: true,
    says: `${check.verdict}, but by ${by} and not by ${meant}${example}`,
  };
}
