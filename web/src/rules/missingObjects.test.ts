import { describe, expect, it } from 'vitest';
import { creating } from './missingObjects';

describe('creating a missing object', () => {
  it('takes what was typed as its members', () => {
    expect(creating({ kind: 'address', name: 'Kiosks' }, '10.4.3.7, 192.0.2.0/24;')).toEqual({
      kind: 'putAddress',
      object: { name: 'Kiosks', members: ['10.4.3.7', '192.0.2.0/24'] },
    });
    expect(creating({ kind: 'zone', name: 'quay' }, '')).toEqual({
      kind: 'putZone',
      object: { name: 'quay', members: [] },
    });
    expect(
      creating({ kind: 'device state', name: 'Fit' }, 'managed, has disk-lock; unknown'),
    ).toEqual({
      kind: 'putDeviceState',
      object: { name: 'Fit', members: ['managed, has disk-lock', 'unknown'] },
    });
  });

  it('takes it as the ceiling of a rate plan, and as the text of a notice', () => {
    expect(creating({ kind: 'rate plan', name: 'Slow' }, ' 20 Mbit/s ')).toEqual({
      kind: 'putRatePlan',
      ratePlan: { name: 'Slow', ceiling: '20 Mbit/s', counted: 'all rules' },
    });
    expect(creating({ kind: 'notice', name: 'Stop' }, 'Not from here.')).toMatchObject({
      notice: { heading: 'Stop', text: 'Not from here.' },
    });
  });
});
