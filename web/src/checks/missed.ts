import type { Coverage, Edit, Rule, SavedCheck } from '../api/types';

/** A mistake in a rule that no check would notice. */
export type Missed = Coverage['examples'][number];

const CRITERION_WORDS: Record<string, string> = { from: 'source', to: 'destination' };

/** A mistake in words. */
export function mistakeWords(missed: Missed, numbers: Map<string, number>): string {
  switch (missed.mistake) {
    case 'verdict':
      return 'another verdict';
    case 'disabled':
      return 'disabled';
    case 'swapped':
      return `swapped with rule ${numbers.get(missed.next ?? '') ?? '?'}`;
    case 'criterion':
      return `without its ${CRITERION_WORDS[missed.criterion ?? ''] ?? missed.criterion}`;
  }
}

/** The edits that add the checks which would notice some mistakes; their names are new. */
export function checksFor(
  missed: Missed[],
  checks: SavedCheck[],
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
): Edit[] {
  const taken = new Set(checks.map((check) => check.name.toLowerCase()));
  return missed.map((one) => {
    const base = `${byId.get(one.rule)?.name ?? 'Rule'}: ${mistakeWords(one, numbers)}`.slice(
      0,
      92,
    );
    let name = base;
    for (let i = 2; taken.has(name.toLowerCase()); i++) name = `${base} (${i})`;
    taken.add(name.toLowerCase());
    return {
      kind: 'putCheck',
      check: { name, connection: one.line, verdict: one.verdict, group: byId.get(one.rule)?.name },
    };
  });
}
