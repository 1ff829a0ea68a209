import type { CheckState, SavedCheck } from '../api/types';

/** A row of the table of checks. */
export type CheckRow =
  | { heading: string; passing: number; of: number }
  | { check: SavedCheck; state: CheckState | undefined };

/** The columns of the table that can be edited, in their order. */
export const CELLS = [
  'name',
  'connection',
  'verdict',
  'rule',
  'group',
  'tags',
  'protected',
] as const;
export type Cell = (typeof CELLS)[number];

/** The checks that fit, under the headings of their groups if there are any. */
export function checkRows(
  checks: SavedCheck[],
  states: Map<string, CheckState>,
  query: string,
  onlyFailing: boolean,
): CheckRow[] {
  const words = query.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const shown = checks.filter((check) => {
    const text =
      `${check.name}\n${check.connection}\n${check.verdict}\n${check.group ?? ''}\n${(check.tags ?? []).join('\n')}`.toLowerCase();
    return (
      words.every((word) => text.includes(word)) &&
      (!onlyFailing || states.get(check.name)?.holds === false)
    );
  });
  const row = (check: SavedCheck) => ({ check, state: states.get(check.name) });
  if (!shown.some((check) => check.group)) return shown.map(row);
  const groups = new Map<string, SavedCheck[]>();
  for (const check of shown) {
    const group = check.group ?? '';
    groups.set(group, [...(groups.get(group) ?? []), check]);
  }
  const ungrouped = groups.get('');
  groups.delete('');
  if (ungrouped) groups.set('', ungrouped); // last
  return [...groups].flatMap(([heading, members]) => [
    {
      heading,
      passing: members.filter((check) => states.get(check.name)?.holds).length,
      of: members.length,
    },
    ...members.map(row),
  ]);
}

/** The text of a cell, as it is edited. */
export function cellText(check: SavedCheck, cell: Cell, numbers: Map<string, number>): string {
  switch (cell) {
    case 'rule':
      return check.rule ? `${numbers.get(check.rule) ?? check.rule}` : '';
    case 'tags':
      return (check.tags ?? []).join(', ');
    case 'protected':
      return check.protected ? 'yes' : '';
    default:
      return check[cell] ?? '';
  }
}

/** The check with another text in a cell, or what is wrong with that text. */
export function withCell(
  check: SavedCheck,
  cell: Cell,
  text: string,
  byNumber: Map<string, string>,
): SavedCheck | string {
  const said = text.trim();
  switch (cell) {
    case 'name':
    case 'connection':
      return said ? { ...check, [cell]: said } : `The ${cell} must not be empty.`;
    case 'verdict': {
      const verdict = said as SavedCheck['verdict'];
      const isProtected =
        verdict === 'allow' || verdict === 'caution' ? check.protected : undefined;
      return { ...check, verdict, protected: isProtected };
    }
    case 'rule': {
      const rule = byNumber.get(said) ?? (said === check.rule ? said : undefined);
      if (said && !rule) return `There is no rule ${said}.`;
      return { ...check, rule };
    }
    case 'group':
      return { ...check, group: said || undefined };
    case 'tags': {
      const tags = said.split(/[,;]\s*/).filter(Boolean);
      return { ...check, tags: tags.length > 0 ? tags : undefined };
    }
    case 'protected':
      return { ...check, protected: said ? true : undefined };
  }
}
