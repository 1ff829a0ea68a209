import type { CheckState, SavedCheck } from '../api/types';

/** How a check came out, in words. */
export function outcomeOf(
  check: SavedCheck,
  state: CheckState | undefined,
  numbers: Map<string, number>,
): { word: string; fails: boolean; text: string } {
  if (!state) return { word: '…', fails: false, text: `expected ${check.verdict}` };
  if (state.refused) return { word: 'fails', fails: true, text: `Cannot run: ${state.refused}.` };
  const by = state.rule ? `rule ${numbers.get(state.rule) ?? '?'}` : 'the default rule';
  if (state.holds) return { word: 'passes', fails: false, text: `${check.verdict}, by ${by}` };
  const example = state.counterexample ? `; for example ${state.counterexample}` : '';
  if (state.verdict !== check.verdict) {
    const some = state.certain ? 'got' : 'not certain: some get';
    return {
      word: 'fails',
      fails: true,
      text: `expected ${check.verdict}, ${some} ${state.verdict} by ${by}${example}`,
    };
  }
  if (state.lockedOut) {
    const { verdict, rule } = state.lockedOut;
    const refusing = rule ? `rule ${numbers.get(rule) ?? '?'}` : 'the default rule';
    return {
      word: 'fails',
      fails: true,
      text: `lock-out: while the directory is away it gets ${verdict} by ${refusing}`,
    };
  }
  if (!state.certain && !state.counterexample) {
    return { word: 'fails', fails: true, text: 'Analysis limit reached; add more to the line.' };
  }
  const wanted = numbers.get(check.rule!);
  const meant = wanted ? `rule ${wanted}` : 'a rule that is gone';
  return {
    word: 'fails',
    fails: true,
    text: `${check.verdict}, but by ${by} and not by ${meant}${example}`,
  };
}
