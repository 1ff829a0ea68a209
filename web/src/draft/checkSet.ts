import type { Edit, SavedCheck } from '../api/types';

/** The word that begins a set of connections in a check; a reach question follows. */
const SET = 'all';

/** Whether a check is about a set of connections. */
export const isSet = ({ connection }: Pick<SavedCheck, 'connection'>) =>
  connection === SET || connection.startsWith(`${SET} `);

/** The reach question of a set. */
export const questionOf = ({ connection }: SavedCheck) => connection.slice(SET.length).trim();

/** The connection of a check about the set of a reach question. */
export const setOf = (question: string) => `${SET} ${question}`.trim();

/** Whether an edit may give something another name, which a set of connections can contain. */
export function mayRename(edit: Edit): boolean {
  if (edit.kind === 'batch') return edit.edits.some(mayRename);
  return 'object' in edit && edit.replaces !== undefined && edit.replaces !== edit.object.name;
}
