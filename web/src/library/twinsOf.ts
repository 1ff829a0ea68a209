import type { AlikeObjects } from '../api/types';

/** The other objects that mean the same as each, by "kind:name". */
export function twinsOf(groups: AlikeObjects[]): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const { kind, names } of groups) {
    for (const name of names) {
      out.set(
        `${kind}:${name.toLowerCase()}`,
        names.filter((other) => other !== name),
      );
    }
  }
  return out;
}
