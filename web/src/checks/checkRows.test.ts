import { describe, expect, it } from 'vitest';
import type { CheckState, SavedCheck } from '../api/types';
import { cellText, checkRows, withCell } from './checkRows';

const check = (name: string, group?: string): SavedCheck => ({
  name,
  connection: 'tcp/443',
  verdict: 'allow',
  group,
});
const states = new Map<string, CheckState>([
  ['a', { name: 'a', holds: true, certain: true }],
  ['b', { name: 'b', holds: false, certain: true }],
]);
const names = (rows: ReturnType<typeof checkRows>) =>
  rows.map((row) =>
    'heading' in row ? `${row.heading}: ${row.passing} of ${row.of}` : row.check.name,
  );
const byNumber = new Map([['7', 'h07']]);

describe('the rows of the table of checks', () => {
  it('have headings where there are groups', () => {
    expect(names(checkRows([check('a'), check('b')], states, '', false))).toEqual(['a', 'b']);
    const grouped = [check('a', 'Kiosks'), check('c'), check('b', 'Kiosks')];
    expect(names(checkRows(grouped, states, '', false))).toEqual([
      'Kiosks: 1 of 2',
      'a',
      'b',
      ': 0 of 1',
      'c',
    ]);
  });

  it('are narrowed by words and to what fails', () => {
    const all = [check('a', 'Kiosks'), check('b')];
    expect(names(checkRows(all, states, 'kiosk tcp', false))).toEqual(['Kiosks: 1 of 1', 'a']);
    expect(names(checkRows(all, states, '', true))).toEqual(['b']);
  });
});

describe('a cell', () => {
  const numbers = new Map([['h07', 7]]);
  it('shows what is edited', () => {
    const full = { ...check('a'), rule: 'h07', tags: ['x', 'y'], protected: true };
    expect(cellText(full, 'rule', numbers)).toBe('7');
    expect(cellText({ ...full, rule: 'gone' }, 'rule', numbers)).toBe('gone');
    expect(cellText(full, 'tags', numbers)).toBe('x, y');
    expect(cellText(full, 'protected', numbers)).toBe('yes');
    expect(cellText(full, 'group', numbers)).toBe('');
  });

  it('changes the check, or returns an error message', () => {
    expect(withCell(check('a'), 'rule', '7', byNumber)).toMatchObject({ rule: 'h07' });
    expect(withCell(check('a'), 'rule', '8', byNumber)).toBe('There is no rule 8.');
    expect(withCell(check('a'), 'name', ' ', byNumber)).toBe('The name must not be empty.');
    expect(withCell(check('a'), 'tags', 'x; y,z', byNumber)).toMatchObject({
      tags: ['x', 'y', 'z'],
    });
    expect(withCell({ ...check('a'), protected: true }, 'verdict', 'drop', byNumber)).toMatchObject(
      {
        verdict: 'drop',
        protected: undefined,
      },
    );
    expect(withCell(check('a', 'G'), 'group', '', byNumber)).toMatchObject({ group: undefined });
    expect(withCell(check('a'), 'protected', 'yes', byNumber)).toMatchObject({ protected: true });
  });
});
