import { useState } from 'react';

/** Which sections are folded, kept in this browser for each rulebase. */
export function useFolded(draft: number): [Set<string>, (next: Set<string>) => void] {
  const key = `folded-${draft}`;
  const [folded, setFolded] = useState<Set<string>>(() => {
    try {
      return new Set(JSON.parse(localStorage.getItem(key) ?? '[]') as string[]);
    } catch {
      return new Set();
    }
  });
  return [
    folded,
    (next) => {
      localStorage.setItem(key, JSON.stringify([...next]));
      setFolded(next);
    },
  ];
}
