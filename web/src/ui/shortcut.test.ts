import { expect, test } from 'vitest';
import { isPressed, type KeyPress } from './shortcut';

const press = (key: string, held: Partial<KeyPress> = {}): KeyPress => ({
  key,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
});

test('a shortcut needs exactly its modifiers', () => {
  expect(isPressed(press('Enter', { ctrlKey: true }), 'Ctrl+Enter')).toBe(true);
  expect(isPressed(press('Enter', { metaKey: true }), 'Ctrl+Enter')).toBe(true);
  expect(isPressed(press('Enter', { ctrlKey: true, shiftKey: true }), 'Ctrl+Enter')).toBe(false);
  expect(isPressed(press('Enter'), 'Ctrl+Enter')).toBe(false);
  expect(isPressed(press('ArrowDown', { altKey: true, shiftKey: true }), 'Alt+Shift+↓')).toBe(true);
  expect(isPressed(press('ArrowDown', { altKey: true }), 'Alt+Shift+↓')).toBe(false);
});

test('a letter is itself in either case, a sign may need Shift', () => {
  expect(isPressed(press('Z', { ctrlKey: true, shiftKey: true }), 'Ctrl+Shift+Z')).toBe(true);
  expect(isPressed(press('f'), 'f')).toBe(true);
  expect(isPressed(press('F', { shiftKey: true }), 'f')).toBe(false);
  expect(isPressed(press('?', { shiftKey: true }), '?')).toBe(true);
  expect(isPressed(press('/', { ctrlKey: true }), 'Ctrl+/')).toBe(true);
});
