import { expect, test } from 'vitest';
import type { AcceptedFinding, Draft } from '../api/types';
import { withoutAccepted } from './accepted';

const draft = {
  standings: {
    a: { findings: [{ kind: 'shadowed' }, { kind: 'mergeable' }] },
    b: { findings: [{ kind: 'shadowed' }] },
  },
} as unknown as Draft;

test('accepted findings are left out, and nothing else', () => {
  const accepted = [
    { rule: 'a', kind: 'shadowed' },
    { rule: 'gone', kind: 'empty' },
  ] as AcceptedFinding[];
  expect(withoutAccepted(draft, accepted).standings).toEqual({
    a: { findings: [{ kind: 'mergeable' }] },
    b: { findings: [{ kind: 'shadowed' }] },
  });
  expect(withoutAccepted(draft, [])).toBe(draft);
});
