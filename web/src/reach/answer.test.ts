import { describe, expect, it } from 'vitest';
import type { ReachAnswer, Rule } from '../api/types';
import { answerCsv, columnsOf, groupsOf, nameInQuestion, ruleOf } from './answer';

const answer: ReachAnswer = {
  question: 'to in datacentre',
  complete: true,
  lines: [
    {
      verdict: 'drop',
      rule: 'a',
      parts: { from: 'Kiosks', service: 'tcp/25', time: 'nights' },
      except: [],
      witness: 'tcp/25',
    },
    {
      verdict: 'allow',
      rule: 'b',
      parts: { person: 'finance', to: '10.4.3.7', application: 'Ledger, "main"' },
      except: ['a'],
      witness: 'person x',
    },
    { verdict: 'drop', parts: {}, except: [], witness: '' },
  ],
};
const numbers = new Map([
  ['a', 3],
  ['b', 7],
]);
const byId = new Map([
  ['a', { name: 'no mail' } as Rule],
  ['b', { name: 'finance' } as Rule],
]);

describe('a reach answer', () => {
  it('has who, where to and for what in columns of their own', () => {
    expect(columnsOf(answer.lines[0]!)).toEqual({
      who: ['Kiosks'],
      to: [],
      what: ['tcp/25', 'time nights'],
    });
    expect(columnsOf(answer.lines[1]!)).toEqual({
      who: ['person finance'],
      to: ['10.4.3.7'],
      what: ['Ledger, "main"'],
    });
  });

  it('shows what is let through first', () => {
    expect(groupsOf(answer).map((group) => [group.name, group.lines.length])).toEqual([
      ['Let through', 1],
      ['Refused', 2],
    ]);
    expect(groupsOf({ ...answer, lines: [answer.lines[2]!] }).map((group) => group.name)).toEqual([
      'Refused',
    ]);
  });

  it('names rules', () => {
    expect(ruleOf('a', numbers, byId)).toBe('rule 3 no mail');
    expect(ruleOf(undefined, numbers, byId)).toBe('Default rule');
    expect(ruleOf('gone', numbers, byId)).toBe('rule ?');
  });

  it('is written as CSV', () => {
    expect(answerCsv(answer, numbers, byId).split('\r\n').slice(0, 3)).toEqual([
      'verdict,rule,name,who,to,for,except rules,example',
      'drop,3,no mail,Kiosks,,tcp/25; time nights,,tcp/25',
      'allow,7,finance,person finance,10.4.3.7,"Ledger, ""main""",3,person x',
    ]);
  });

  it('puts names into quotes where they would read as something else', () => {
    expect(nameInQuestion('guest-wifi')).toBe('guest-wifi');
    expect(nameInQuestion('to')).toBe('"to"');
    expect(nameInQuestion('Web, old')).toBe('"Web, old"');
  });
});
