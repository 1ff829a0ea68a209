import { describe, expect, it } from 'vitest';
import { dump, freeKind, signatureOf, wordsOf } from './conditions';

describe('a signature as it is typed', () => {
  it('is the document of its conditions', () => {
    expect(
      signatureOf(
        [
          { member: 'client', text: ' 4b 53 ' },
          { member: 'services', text: 'tcp/443, udp/443' },
          { member: 'clientPattern', text: '^USER ' },
          { member: 'alpn', text: '  ' },
        ],
        ' post ',
      ),
    ).toEqual({
      feature: 'post',
      client: '4b 53',
      services: ['tcp/443', 'udp/443'],
      clientPattern: '^USER ',
    });
  });

  it('is nothing while nothing is typed', () => {
    expect(signatureOf([{ member: 'client', text: ' ' }], 'post')).toBeNull();
  });

  it('has a text form', () => {
    expect(wordsOf({ services: ['tcp/53', 'udp/53'], speaks: 'DNS', feature: 'ask' })).toBe(
      'service is tcp/53 or udp/53, client speaks DNS',
    );
  });

  it('has each kind of condition once', () => {
    expect(freeKind([{ member: 'client', text: '' }])).toBe('server');
  });
});

describe('first bytes', () => {
  it('stand in rows of sixteen with their text', () => {
    expect(dump('53 53 48 2d 00 ff')).toEqual([{ hex: '53 53 48 2d 00 ff', text: 'SSH-..' }]);
    expect(dump(Array(17).fill('41').join(' '))[1]).toEqual({ hex: '41', text: 'A' });
    expect(dump('')).toEqual([]);
  });
});
