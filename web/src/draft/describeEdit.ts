import { rulesIn, type Edit, type Rule } from '../api/types';
import { chipsOf, PARTS } from './criteria';

const many = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/** What differs between two wordings of a rule: "disabled", "from +terminals −offices". */
export function describeRuleChange(before: Rule, after: Rule): string {
  const out: string[] = [];
  if (before.name !== after.name) out.push(`named "${after.name}"`);
  if ((before.enabled === false) !== (after.enabled === false)) {
    out.push(after.enabled === false ? 'disabled' : 'enabled');
  }
  if (before.verdict !== after.verdict) out.push(`${before.verdict} → ${after.verdict}`);
  if ((before.opening ?? 'sealed') !== (after.opening ?? 'sealed')) {
    out.push(after.opening ?? 'sealed');
  }
  if ((before.log ?? 'off') !== (after.log ?? 'off')) out.push(`log ${after.log ?? 'off'}`);
  if (before.ratePlan !== after.ratePlan) {
    out.push(after.ratePlan ? `rate plan ${after.ratePlan}` : 'no rate plan');
  }
  if (before.hold !== after.hold) out.push(after.hold ? `hold ${after.hold} min` : 'no hold');
  if (before.notice !== after.notice) {
    out.push(after.notice ? `notice ${after.notice}` : 'no notice');
  }
  for (const part of PARTS) {
    const texts = (rule: Rule) =>
      chipsOf(rule, part).map((chip) => (chip.except ? `not ${chip.text}` : chip.text));
    const was = texts(before);
    const is = texts(after);
    const marks = [
      ...is.filter((text) => !was.includes(text)).map((text) => `+${text}`),
      ...was.filter((text) => !is.includes(text)).map((text) => `−${text}`),
    ];
    if (marks.length) out.push(`${part} ${marks.join(' ')}`);
  }
  if ((before.note ?? '') !== (after.note ?? '')) out.push('note');
  return out.join(', ');
}

/**
 * An edit in a few words, for the history.
 *
 * @param nameOf names of rules, also of those that are gone where they are known
 * @param inverse what takes it back, which tells how things were
 */
export function describeEdit(
  edit: Edit,
  nameOf: (id: string) => string | undefined,
  inverse?: Edit,
): string {
  const rules = rulesIn(edit);
  const ids = 'ids' in edit ? edit.ids : [];
  const named = (id: string | undefined) => {
    const name = id && nameOf(id);
    return name ? `"${name}"` : 'a rule that is gone';
  };
  const quoted = rules[0] ? `"${rules[0].name}"` : '';
  switch (edit.kind) {
    case 'insertRules':
      return rules.length === 1 ? `inserted ${quoted}` : `inserted ${many(rules.length, 'rule')}`;
    case 'replaceRules':
      if (rules.length === 1) {
        const before = inverse && rulesIn(inverse).find((rule) => rule.id === rules[0]!.id);
        const what = before ? describeRuleChange(before, rules[0]!) : '';
        return `changed ${before ? `"${before.name}"` : quoted}${what && `: ${what}`}`;
      }
      return `changed ${many(rules.length, 'rule')}`;
    case 'deleteRules':
      return ids.length === 1 ? `deleted ${named(ids[0])}` : `deleted ${many(ids.length, 'rule')}`;
    case 'moveRules': {
      const what = ids.length === 1 ? named(ids[0]) : many(ids.length, 'rule');
      const { place } = edit;
      const where = place.above
        ? `above ${named(place.above)}`
        : place.below
          ? `below ${named(place.below)}`
          : place.startOf
            ? 'to the start of a section'
            : 'to the end of a section';
      return `moved ${what} ${where}`;
    }
    case 'insertSection':
      return `added section "${edit.name}"`;
    case 'renameSection':
      return `renamed a section "${edit.name}"`;
    case 'moveSection':
      return 'moved a section';
    case 'deleteSection':
      return 'deleted a section';
    case 'putZone':
    case 'putAddress':
    case 'putService':
    case 'putHostList':
    case 'putSchedule':
    case 'putDeviceState': {
      const kind = edit.kind
        .slice(3)
        .replace(/\B[A-Z]/, ' $&')
        .toLowerCase();
      const { name } = edit.object;
      if (!edit.replaces) return `created ${kind} "${name}"`;
      return edit.replaces === name
        ? `changed ${kind} "${name}"`
        : `renamed ${kind} "${edit.replaces}" to "${name}"`;
    }
    case 'putRatePlan':
    case 'putNotice': {
      const kind = edit.kind === 'putNotice' ? 'notice' : 'rate plan';
      const { name } = edit.kind === 'putNotice' ? edit.notice : edit.ratePlan;
      if (!edit.replaces) return `created ${kind} "${name}"`;
      return edit.replaces === name
        ? `changed ${kind} "${name}"`
        : `renamed ${kind} "${edit.replaces}" to "${name}"`;
    }
    case 'setLineCapacity':
      return edit.capacity
        ? `set the line capacity to ${edit.capacity}`
        : 'removed the line capacity';
    case 'setTimeZone':
      return `set the time zone to ${edit.name}`;
    case 'setBreadth':
      return 'changed the settings of “too broad”';
    case 'putCheck':
      return edit.replaces
        ? `changed check "${edit.replaces}"`
        : `saved check "${edit.check.name}"`;
    case 'deleteCheck':
      return `deleted check "${edit.name}"`;
    case 'deleteObject':
      return `deleted ${edit.objectKind} "${edit.name}"`;
    case 'putVocabulary':
      return `adopted edition ${edit.vocabulary.edition} of the ${edit.vocabulary.coordinate} vocabulary`;
    case 'deleteVocabulary':
      return `deleted the ${edit.name} vocabulary`;
    case 'putFeed':
      return `adopted edition ${edit.pinned.edition} of the feed "${edit.pinned.name}"`;
    case 'deleteFeed':
      return `deleted the feed "${edit.name}"`;
    case 'putCommon':
      return edit.common
        ? `adopted revision ${edit.common.revision} of the common rules of ${edit.common.rulebase}`
        : 'removed the common rules';
    case 'restore':
      return `went back to ${edit.name}`;
    case 'batch':
      return edit.edits.map((part) => describeEdit(part, nameOf)).join(', ');
  }
}
