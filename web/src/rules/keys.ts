import type { KeyPress } from '../ui/shortcut';

/** The list of rules, for navigation by key. */
export interface RuleList {
  page: number;
  /** Index of the focused rule; -1 for none. */
  at: number;
  last: number;
  go(to: number): void;
}

/** The keys of navigation, for the list of keys. */
export const NAVIGATION_KEYS: [string, string][] = [
  ['↑ ↓', 'Previous, next rule (with Shift: select)'],
  ['Home End', 'First, last rule'],
  ['PageUp PageDown', 'One page up, down'],
];

/** Moves through the list of rules; false if the key press is none of navigation. */
export function navigate(press: KeyPress, list: RuleList): boolean {
  if (press.altKey) return false;
  switch (press.key) {
    case 'ArrowDown':
      list.go(list.at + 1);
      return true;
    case 'ArrowUp':
      list.go(list.at - 1);
      return true;
    case 'PageDown':
      list.go(list.at + list.page);
      return true;
    case 'PageUp':
      list.go(list.at - list.page);
      return true;
    case 'Home':
      list.go(0);
      return true;
    case 'End':
      list.go(list.last);
      return true;
    default:
      return false;
  }
}
