import { api } from '../api/client';
import type { Draft, Editioned } from '../api/types';
import type { Compared } from './EditionDialog';

const THINGS: Record<Editioned, [string, string]> = {
  application: ['application', 'applications'],
  person: ['person', 'people'],
};

/** An edition of the catalogue or of the directory against the one that the draft has. */
export function otherEdition(draft: Draft, of: Editioned, edition: string): Compared {
  return {
    of,
    word: of === 'person' ? 'Snapshot' : 'Edition',
    edition,
    had: draft.editions[of]!,
    things: THINGS[of],
    mayTake: true,
    effect: (signal) => api.effectOfEdition(draft.id, of, edition, signal),
    take: () => api.takeEdition(draft.id, of, edition, draft.version),
  };
}
