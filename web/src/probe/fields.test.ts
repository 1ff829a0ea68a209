import { describe, expect, it } from 'vitest';
import type { Draft } from '../api/types';
import { fieldsOf, lineOf } from './fields';

const draft = {
  zones: [{ name: 'terminals' }, { name: 'north pier' }],
  addresses: [{ name: 'Print server' }],
} as Draft;
const LINES = [
  '',
  'from 10.4.2.9 in terminals to 192.0.2.10 in booking tcp/443 from port 50000',
  'from in north pier to Print server tcp/9100',
  'to 192.0.2.10 tcp/443 person Maya Lind application Gullwire: post time mon 10:15',
  'from 10.0.0.1 device managed, has disk-lock site www.quay.example file kind PDF',
  'tcp/443',
];

describe('the fields of a line', () => {
  it.each(LINES)('give it back: %s', (line) => {
    expect(lineOf(fieldsOf(draft, line))).toBe(line);
  });

  it('are its parts', () => {
    expect(fieldsOf(draft, LINES[1]!)).toEqual({
      from: '10.4.2.9',
      'from zone': 'terminals',
      to: '192.0.2.10',
      'to zone': 'booking',
      service: 'tcp/443',
      'from port': '50000',
    });
    expect(fieldsOf(draft, LINES[2]!)).toEqual({
      'from zone': 'north pier',
      to: 'Print server',
      service: 'tcp/9100',
    });
    expect(fieldsOf(draft, LINES[3]!)).toMatchObject({
      person: 'Maya Lind',
      application: 'Gullwire: post',
      time: 'mon 10:15',
    });
  });
});
