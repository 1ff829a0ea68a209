import { useSyncExternalStore } from 'react';
import type { Part } from '../draft/criteria';

// Pixels of a page beside the chips of its rules: navigation, numbers, verdicts, the panel.
const BESIDE = 620;
const SHARE: Record<Part, number> = { from: 0.364, to: 0.345, for: 0.367 };

const LABEL = 30; // pixels of the word before them

const subscribe = (changed: () => void) => {
  window.addEventListener('resize', changed);
  return () => window.removeEventListener('resize', changed);
};

/** How many pixels the chips of one part of a rule have on the page, as wide as it is. */
export function useChipRoom(part: Part): number {
  const width = useSyncExternalStore(subscribe, () => window.innerWidth);
  return (width - BESIDE) * SHARE[part] - LABEL;
}
