import type { Edit, Rule } from '../api/types';

const many = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/** An edit in a few words, for the history. `nameOf` gives the names of rules that still exist. */
export function describeEdit(edit: Edit, nameOf: (id: string) => string | undefined): string {
  const rules = (edit.rules ?? []) as Rule[];
  const ids = edit.ids ?? [];
  const named = (id: string | undefined) => {
    const name = id && nameOf(id);
    return name ? `"${name}"` : 'a rule that is gone';
  };
  const quoted = rules[0] ? `"${rules[0].name}"` : '';
  switch (edit.kind) {
    case 'insertRules':
      return rules.length === 1 ? `inserted ${quoted}` : `inserted ${many(rules.length, 'rule')}`;
    case 'replaceRules':
      return rules.length === 1 ? `changed ${quoted}` : `changed ${many(rules.length, 'rule')}`;
    case 'deleteRules':
      return ids.length === 1 ? `deleted ${named(ids[0])}` : `deleted ${many(ids.length, 'rule')}`;
    case 'moveRules': {
      const what = ids.length === 1 ? named(ids[0]) : many(ids.length, 'rule');
      const place = edit.place;
      const where = place?.above
        ? `above ${named(place.above)}`
        : place?.below
          ? `below ${named(place.below)}`
          : place?.startOf
            ? 'to the start of a section'
            : 'to the end of a section';
      return `moved ${what} ${where}`;
    }
    case 'insertSection':
      return `started section "${edit.name}"`;
    case 'renameSection':
      return `renamed a section "${edit.name}"`;
    case 'deleteSection':
      return 'deleted a section';
    case 'putZone':
    case 'putAddress':
    case 'putService': {
      const kind = edit.kind.slice(3).toLowerCase();
      const name = edit.object?.name;
      if (!edit.replaces) return `made ${kind} "${name}"`;
      return edit.replaces === name
        ? `changed ${kind} "${name}"`
        : `renamed ${kind} "${edit.replaces}" to "${name}"`;
    }
    case 'deleteObject':
      return `deleted ${edit.objectKind} "${edit.name}"`;
    case 'batch':
      return (edit.edits ?? []).map((part) => describeEdit(part, nameOf)).join(', ');
  }
}
