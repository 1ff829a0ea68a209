import { describe, expect, it } from 'vitest';
import type { Draft } from '../api/types';
import { completeLine, lastWord } from './lineCompletion';

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
} as Draft;

const texts = (line: string) => completeLine(draft, line).map((o) => o.text);

describe('completeLine', () => {
  it('offers what can stand next', () => {
    expect(texts('')).toEqual(['from', 'to', 'Secure web', 'from port']);
    expect(texts('from 10.4.2.9 to ')).toEqual(['in', 'Booking front']);
    expect(texts('from 10.4.2.9 in ter')).toEqual(['terminals']);
    expect(texts('from 10.4.2.9 to 192.0.2.10 S')).toEqual(['Secure web']);
  });

  it('knows the word at the end', () => {
    expect(lastWord('from 10.4')).toEqual({ word: '10.4', start: 5 });
    expect(lastWord('from ')).toEqual({ word: '', start: 5 });
  });
});
