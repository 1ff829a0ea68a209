/** A key press, as far as shortcuts depend on it. */
export interface KeyPress {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

const ARROWS: Record<string, string> = { '↑': 'arrowup', '↓': 'arrowdown' };

/** Whether a key press is a shortcut such as "Ctrl+Shift+Enter", "Alt+↓" or "?". */
export function isPressed(press: KeyPress, shortcut: string): boolean {
  const parts = shortcut.split('+');
  const name = parts.pop()!.toLowerCase();
  const key = press.key.toLowerCase();
  // Some layouts need Shift for a sign such as "?".
  const isSign = /^[!-@[-`]$/.test(name);
  return (
    key === (ARROWS[name] ?? name) &&
    (press.ctrlKey || press.metaKey) === parts.includes('Ctrl') &&
    press.altKey === parts.includes('Alt') &&
    (isSign || press.shiftKey === parts.includes('Shift'))
  );
}
