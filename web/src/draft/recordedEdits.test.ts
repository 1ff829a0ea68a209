import { describe, expect, it } from 'vitest';
import type { Draft, Edit } from '../api/types';
import { applyEdit } from './applyEdit';
import record from './recordedEdits.json';

type State = Record<string, unknown>;

/** The parts of a draft that an edit can change. */
const comparable = (draft: Draft): State => {
  const { id, name, version, changes, standings, analysisMillis, ...rest } = draft;
  void [id, name, version, changes, standings, analysisMillis];
  return JSON.parse(JSON.stringify(rest)) as State;
};

describe('edits are applied as the server applies them', () => {
  let state: State = record.start;
  for (const [i, { edit, changed }] of record.steps.entries()) {
    const before = state;
    const after: State = { ...before, ...changed };
    for (const [key, value] of Object.entries(changed)) if (value === null) delete after[key];
    it(`${i + 1}: ${edit.kind}`, () => {
      const draft = {
        ...before,
        id: 1,
        name: 'any',
        version: i,
        changes: i,
        standings: {},
        analysisMillis: 0,
      };
      expect(comparable(applyEdit(draft as unknown as Draft, edit as Edit))).toEqual(after);
    });
    state = after;
  }
});
