/** Gives the keys back to the rules, where a menu or a button that had them is gone. */
export const focusRules = () =>
  document.querySelector<HTMLElement>('[data-grid]')?.focus({ preventScroll: true });
