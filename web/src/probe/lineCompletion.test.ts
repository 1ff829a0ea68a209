import { describe, expect, it } from 'vitest';
import type { Draft } from '../api/types';
import { completeLine, completions, lastName, lastWord } from './lineCompletion';

const draft = {
  zones: [{ name: 'terminals' }, { name: 'internet' }],
  addresses: [
    { name: 'Booking front', members: ['192.0.2.10'] },
    { name: 'Kiosks', members: ['10.4.0.0/20'] },
  ],
  services: [
    { name: 'Secure web', members: ['tcp/443'] },
    { name: 'Web', members: ['tcp/80', 'tcp/443'] },
  ],
  editions: { person: 'day 1' },
} as unknown as Draft;

const texts = (line: string) => completeLine(draft, line).map((o) => o.text);

describe('completeLine', () => {
  it('offers what can stand next', () => {
    expect(texts('')).toEqual([
      ...['from', 'to', 'Secure web', 'from port'],
      ...['person', 'file kind', 'device', 'site', 'time'],
    ]);
    expect(texts('person Maya Lind p')).toEqual([]);
    expect(texts('from 10.4.2.9 to ')).toEqual(['in', 'Booking front']);
    expect(texts('from 10.4.2.9 in ter')).toEqual(['terminals']);
    expect(texts('from 10.4.2.9 to 192.0.2.10 S')).toEqual(['Secure web', 'site']);
  });

  it('knows the word at the end', () => {
    expect(lastWord('from 10.4')).toEqual({ word: '10.4', start: 5 });
    expect(lastWord('from ')).toEqual({ word: '', start: 5 });
  });

  it('knows the name at the end, and puts what is chosen in its place', () => {
    expect(lastName('from 10.4.2.9 person Maya L')).toEqual({
      of: 'person',
      text: 'Maya L',
      start: 21,
    });
    expect(lastName('person Maya Lind file kind ')?.of).toBe('file kind');
    expect(lastName('from 10.4.2.9')).toBeNull();
    const term = (name: string, some: string[] = []) => ({
      coordinate: 'person',
      name,
      members: some.length,
      some,
    });
    const found = [term('maydays', ['Maya Lind']), term('Maya Lind')];
    expect(completions(draft, 'tcp/443 person may', found)).toEqual({
      start: 15,
      options: [{ text: 'Maya Lind', detail: 'person' }],
    });
    expect(completions(draft, 'person Maya Lind fr', []).options.map((o) => o.text)).toEqual([
      'from',
      'from port',
    ]);
  });
});
