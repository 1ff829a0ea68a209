import { describe, expect, it } from 'vitest';
import { byCause } from './ChangedVerdicts';

const change = (witness: string, rule?: string) => ({
  rule,
  name: rule,
  connections: {
    what: ['service tcp/443'],
    before: 'drop' as const,
    after: 'allow' as const,
    witness,
  },
  recorded: 0,
  people: [],
});

describe('changed connections', () => {
  it('are folded by the rule that causes them, in the order of the first of each', () => {
    const folded = byCause([change('1', 'b'), change('2'), change('3', 'b')]);
    expect(
      folded.map(({ rule, boxes }) => [rule, boxes.map((box) => box.connections.witness)]),
    ).toEqual([
      ['b', ['1', '3']],
      [undefined, ['2']],
    ]);
  });
});
