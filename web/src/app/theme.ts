export type Theme = 'light' | 'dark' | 'system';

const KEY = 'iron-sieve-theme';

export function storedTheme(): Theme {
  const stored = localStorage.getItem(KEY);
  return stored === 'light' || stored === 'dark' ? stored : 'system';
}

const dark = () => matchMedia('(prefers-color-scheme: dark)').matches;

export function applyTheme(theme: Theme) {
  document.documentElement.dataset.theme = theme === 'system' ? (dark() ? 'dark' : 'light') : theme;
  if (theme === 'system') localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, theme);
}

/** Goes from what is seen to the other one. */
export function flipTheme() {
  applyTheme(document.documentElement.dataset.theme === 'dark' ? 'light' : 'dark');
}
