import { describe, expect, it } from 'vitest';
import type { Change, Draft } from '../api/types';
import { follow } from './useDraft';

const draft = {
  version: 4,
  changes: 2,
  sections: [{ id: 's', name: 'S', rules: [{ id: 'a', name: 'A', verdict: 'drop' }] }],
  standings: { a: { kind: 'decides', share: 1, uncertainty: 0, findings: [] } },
  analysisMillis: 3,
} as unknown as Draft;

const change = (version: number, kind = 'edit'): Change => ({
  version,
  kind,
  by: 'Ruth Okell',
  account: 'ruth.okell',
  at: '2026-11-23T10:00:00Z',
  edit: { kind: 'renameSection', id: 's', name: 'T' },
  standings: { a: { kind: 'empty', share: 0, uncertainty: 0, findings: [] } },
  analysisMillis: 5,
});

describe('follow', () => {
  it('takes over the next change with its standings', () => {
    const next = follow(draft, change(5))!;
    expect(next.version).toBe(5);
    expect(next.changes).toBe(3);
    expect(next.sections[0]?.name).toBe('T');
    expect(next.standings['a']?.kind).toBe('empty');
    expect(next.analysisMillis).toBe(5);
  });

  it('counts an undo back', () => {
    expect(follow(draft, change(5, 'undo'))?.changes).toBe(1);
    expect(follow(draft, change(5, 'redo'))?.changes).toBe(3);
  });

  it('passes over what it has, and knows when something is missing', () => {
    expect(follow(draft, change(4))).toBe(draft);
    expect(follow(draft, change(6))).toBeUndefined();
  });
});
