import { describe, expect, it } from 'vitest';
import type { CaptureSummary, RecognisedConnection } from '../api/types';
import { chosenCapture, connectionsThatFit } from './captures';

const capture = (id: number, connections: number): CaptureSummary => ({
  id,
  name: `c${id}`,
  kind: id === 0 ? 'recent' : 'sample',
  packets: 0,
  connections,
  newest: connections,
});

const connection = (number: number, more: Partial<RecognisedConnection>): RecognisedConnection => ({
  number,
  from: '10.1.0.9',
  to: '192.0.2.7',
  service: 'tcp/443',
  packets: 3,
  evidence: [],
  others: [],
  files: [],
  client: '',
  server: '',
  ...more,
});

describe('which connections are shown', () => {
  it('are those of the address, else the recent ones, else of the first that has some', () => {
    const all = [capture(0, 4), capture(1, 39)];
    expect(chosenCapture(all, '1')?.id).toBe(1);
    expect(chosenCapture(all, null)?.id).toBe(0);
    expect(chosenCapture(all, '9')?.id).toBe(0);
    expect(chosenCapture([capture(0, 0), capture(1, 39)], null)?.id).toBe(1);
    expect(chosenCapture([capture(0, 0), capture(1, 39)], '0')?.id).toBe(0);
    expect(chosenCapture([capture(0, 0)], null)?.id).toBe(0);
    expect(chosenCapture([], null)).toBeUndefined();
  });

  it('fit when each word occurs', () => {
    const file = { direction: 'upload', kind: 'PDF', name: 'Tides.pdf', evidence: '' };
    const all = [
      connection(1, { application: 'Gullwire: call', others: ['TLS'] }),
      connection(2, { from: '10.1.0.10' }),
      connection(3, { application: 'Saltbox', files: [file] }),
    ];
    const fits = (filter: string) => connectionsThatFit(all, filter).map((c) => c.number);
    expect(fits('')).toEqual([1, 2, 3]);
    expect(fits(' gull  443 ')).toEqual([1]);
    expect(fits('tls')).toEqual([1]);
    expect(fits('unidentified')).toEqual([2]);
    expect(fits('10.1.0.1')).toEqual([2]);
    expect(fits('tides pdf upload')).toEqual([3]);
    expect(fits('tides gull')).toEqual([]);
  });
});
