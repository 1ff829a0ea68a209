import { expect, it } from 'vitest';
import type { Draft, Rule } from '../api/types';
import { usersOf } from './usersOf';

it('finds users through groups, once each', () => {
  const rule: Rule = {
    id: 'r',
    name: 'Booking',
    verdict: 'allow',
    toZones: { items: ['booking'] },
    toAddresses: { items: ['All'], except: ['Front'] },
  };
  const draft = {
    addresses: [
      { name: 'all', members: ['Front', '10.0.0.1'] },
      { name: 'front', members: ['192.0.2.10'] },
      { name: 'lone', members: ['192.0.2.11'] },
    ],
    services: [],
  } as unknown as Draft;
  const users = usersOf(draft, [rule]);
  expect(users.get('address:all')).toEqual([rule]);
  expect(users.get('address:front')).toEqual([rule]);
  expect(users.get('zone:booking')).toEqual([rule]);
  expect(users.get('address:lone')).toBeUndefined();
});
