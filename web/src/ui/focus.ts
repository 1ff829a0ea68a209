const focus = (selector: string) =>
  document.querySelector<HTMLElement>(selector)?.focus({ preventScroll: true });

/** Gives the keys back to the rules, after a menu or a button that had them. */
export const focusRules = () => focus('[data-grid]');

/** Goes to the line of the probe. */
export const focusProbe = () => focus('[data-probe-line]');

/** Goes to the filter of the rules. */
export const focusFilter = () => focus('[data-filter]');
