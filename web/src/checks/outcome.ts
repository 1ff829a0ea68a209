import type { CheckState, SavedCheck } from '../api/types';

/** How a check came out, in words. */
export function outcomeOf(
  check: SavedCheck,
  state: CheckState | undefined,
  numbers: Map<string, number>,
): { word: string; fails: boolean; says: string } {
  if (!state) return { word: '…', fails: false, says: `must get ${check.verdict}` };
  if (state.refused)
    return { word: 'fails', fails: true, says: `Cannot be tried: ${state.refused}.` };
  const by = state.rule ? `rule ${numbers.get(state.rule) ?? '?'}` : 'the closing rule';
  if (state.holds) return { word: 'holds', fails: false, says: `${check.verdict}, by ${by}` };
  if (state.verdict !== check.verdict) {
    return {
      word: 'fails',
      fails: true,
      says: `must get ${check.verdict}, gets ${state.verdict} by ${by}`,
    };
  }
  const wanted = numbers.get(check.rule!);
  const meant = wanted ? `rule ${wanted}` : 'a rule that is gone';
  return { word: 'fails', fails: true, says: `${check.verdict}, but by ${by} and not by ${meant}` };
}
