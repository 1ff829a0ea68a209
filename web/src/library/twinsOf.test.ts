import { expect, it } from 'vitest';
import { twinsOf } from './twinsOf';

it('names the others of each group', () => {
  const twins = twinsOf([{ kind: 'address', names: ['Kiosks', 'Ticket kiosks', 'Pier'] }]);
  expect(twins.get('address:kiosks')).toEqual(['Ticket kiosks', 'Pier']);
  expect(twins.get('address:pier')).toEqual(['Kiosks', 'Ticket kiosks']);
  expect(twins.get('service:kiosks')).toBeUndefined();
});
