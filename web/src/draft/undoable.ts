import type { Change } from '../api/types';

/**
 * The change that a person's next undo takes back; nothing if these are none of theirs.
 *
 * @param changes the newest first
 * @param account name of the person
 */
export function nextUndone(changes: Change[], account: string): Change | undefined {
  let undone = 0; // edits further back that are taken back already
  for (const change of changes) {
    if (change.account !== account) continue;
    if (change.kind === 'undo') undone++;
    else if (change.kind === 'redo') undone--;
    else if (undone > 0) undone--;
    else return change;
  }
  return undefined;
}
