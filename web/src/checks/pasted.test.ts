import { describe, expect, it } from 'vitest';
import { guessColumns, readTable, rowsOf, tableOf, withOwnNames } from './pasted';

const byNumber = new Map([['7', 'h07']]);

describe('a pasted table', () => {
  it('is read as a spreadsheet copies it, and as CSV', () => {
    expect(readTable('a\tfrom 10.0.0.1\tallow\nb\ttcp/443\tdrop\n')).toEqual([
      ['a', 'from 10.0.0.1', 'allow'],
      ['b', 'tcp/443', 'drop'],
    ]);
    expect(readTable('name,connection\n"a, b",tcp/443')).toEqual([
      ['name', 'connection'],
      ['a, b', 'tcp/443'],
    ]);
    expect(readTable('a;tcp/443')).toEqual([['a', 'tcp/443']]);
  });

  it('has its columns guessed by their headings', () => {
    expect(guessColumns([['Check', 'Verdict', 'Line', 'what']])).toEqual({
      header: true,
      columns: ['name', 'expected', 'connection', null],
    });
  });

  it('has its columns guessed by their cells', () => {
    expect(
      guessColumns([
        ['drop', 'Kiosks print', 'from 10.1.0.1 tcp/9100', '7', 'Kiosks'],
        ['allow', 'Web', 'tcp/443', '', 'Kiosks'],
      ]),
    ).toEqual({ header: false, columns: ['expected', 'name', 'connection', 'rule', 'group'] });
    expect(guessColumns([['tcp/443']]).columns).toEqual(['connection']);
  });

  it('becomes rows, with what is wrong in each', () => {
    const table = [
      ['a', 'tcp/443', 'allow', '7', 'yes', 'x, y'],
      ['', '', 'maybe', '8', '', ''],
    ];
    const columns = ['name', 'connection', 'expected', 'rule', 'protected', 'tags'] as const;
    expect(rowsOf(table, false, [...columns], byNumber)).toEqual([
      {
        name: 'a',
        connection: 'tcp/443',
        expected: 'allow',
        rule: 'h07',
        protected: true,
        tags: ['x', 'y'],
      },
      {
        name: '',
        connection: '',
        expected: null,
        fault:
          'no connection; expected one of allow, drop, reject, caution, found “maybe”; there is no rule 8',
      },
    ]);
  });

  it('gives rows with the same name numbers', () => {
    const row = { name: 'A', connection: 'tcp', expected: null };
    expect(withOwnNames([row, { ...row, name: 'a' }]).map((one) => one.name)).toEqual([
      'A',
      'a (2)',
    ]);
  });

  it('is what checks are exported as', () => {
    const table = tableOf(
      [
        {
          name: 'a',
          connection: 'tcp/443',
          verdict: 'allow',
          rule: 'h07',
          tags: ['x', 'y'],
          protected: true,
        },
      ],
      new Map([['h07', 7]]),
    );
    const { header, columns } = guessColumns(table);
    expect(header).toBe(true);
    expect(rowsOf(table, header, columns, byNumber)[0]).toMatchObject({
      name: 'a',
      connection: 'tcp/443',
      expected: 'allow',
      rule: 'h07',
      tags: ['x', 'y'],
      protected: true,
    });
  });
});
