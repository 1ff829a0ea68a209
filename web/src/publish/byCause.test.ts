import { describe, expect, it } from 'vitest';
import { byCause } from './ChangedVerdicts';

const connections = (witness: string) => ({
  what: ['service tcp/443'],
  before: 'drop' as const,
  after: 'allow' as const,
  witness,
});

describe('changed connections', () => {
  it('are folded by the rule that causes them, in the order of the first of each', () => {
    const folded = byCause([
      { rule: 'b', name: 'Web', connections: connections('1') },
      { connections: connections('2') },
      { rule: 'b', name: 'Web', connections: connections('3') },
    ]);
    expect(folded.map(({ rule, boxes }) => [rule, boxes.map((box) => box.witness)])).toEqual([
      ['b', ['1', '3']],
      [undefined, ['2']],
    ]);
  });
});
