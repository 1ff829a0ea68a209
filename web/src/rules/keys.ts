import type { RuleActions } from './actions';

/** What a key needs to know of the list of rules. */
export interface KeyContext {
  focus: string | null;
  mayEdit: boolean;
  page: number;
  at: number;
  last: number;
  go(to: number): void;
  actions: RuleActions;
  openVerdict(id: string): void;
  openMenu(id: string): void;
  witness(id: string): void;
}

interface Key {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

/** The keys of the list of rules, for the list of keys. */
export const RULE_KEYS: [string, string][] = [
  ['↑ ↓', 'previous, next rule (with Shift: select)'],
  ['Home End', 'first, last rule'],
  ['Enter or F2', 'edit the name; Tab goes on to from, to, for'],
  ['f t s', 'edit from, to, service'],
  ['v', 'verdict'],
  ['m', 'all actions'],
  ['Ctrl+Enter', 'insert below'],
  ['Ctrl+Shift+Enter', 'insert above'],
  ['Alt+Shift+↓', 'clone'],
  ['Alt+↑ Alt+↓', 'move up, down'],
  ['Alt+Home Alt+End', 'move to the top, to the bottom'],
  ['Ctrl+/', 'disable, enable'],
  ['Delete', 'delete'],
  ['w', 'probe the witness'],
];

/** Does what a key means in the list of rules; false if it means nothing. */
export function ruleKey(e: Key, c: KeyContext): boolean {
  const ctrl = e.ctrlKey || e.metaKey;
  switch (e.key) {
    case 'ArrowDown':
    case 'ArrowUp': {
      const direction = e.key === 'ArrowDown' ? 1 : -1;
      if (!e.altKey) {
        c.go(c.at + direction);
        return true;
      }
      if (!c.focus || !c.mayEdit) return false;
      if (e.shiftKey && direction === 1) c.actions.clone(c.focus);
      else if (!e.shiftKey) c.actions.step(c.focus, direction);
      return true;
    }
    case 'PageDown':
      c.go(c.at + c.page);
      return true;
    case 'PageUp':
      c.go(c.at - c.page);
      return true;
    case 'Home':
    case 'End': {
      const top = e.key === 'Home';
      if (!e.altKey) c.go(top ? 0 : c.last);
      else if (c.focus && c.mayEdit) c.actions.moveToEdge(c.focus, top ? 'top' : 'bottom');
      return true;
    }
  }
  if (!c.focus) return false;
  if (e.key === 'w' && !ctrl && !e.altKey) {
    c.witness(c.focus);
    return true;
  }
  if (!c.mayEdit) return false;
  if (ctrl && e.key === 'Enter') {
    c.actions.insert(e.shiftKey ? 'above' : 'below', c.focus);
    return true;
  }
  if (ctrl && e.key === '/') {
    c.actions.toggle(c.focus);
    return true;
  }
  if (ctrl || e.altKey) return false;
  switch (e.key) {
    case 'Enter':
    case 'F2':
      c.actions.startEdit(c.focus, 'name');
      return true;
    case 'f':
      c.actions.startEdit(c.focus, 'from');
      return true;
    case 't':
      c.actions.startEdit(c.focus, 'to');
      return true;
    case 's':
      c.actions.startEdit(c.focus, 'for');
      return true;
    case 'v':
      c.openVerdict(c.focus);
      return true;
    case 'm':
      c.openMenu(c.focus);
      return true;
    case 'Delete':
      c.actions.remove(c.focus);
      return true;
    default:
      return false;
  }
}
