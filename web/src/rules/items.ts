import type { Draft, Rule, Section } from '../api/types';
import { originOf, sectionsOf } from '../draft/applyEdit';

/** A row of the list of rules. */
export type Item =
  | { type: 'section'; section: Section; count: number; origin: string | undefined }
  | { type: 'rule'; rule: Rule; number: number; origin: string | undefined }
  | { type: 'below' }
  | { type: 'default' };

export interface Items {
  items: Item[];
  /** Ids of the rules that are shown, in order. */
  order: string[];
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
}

/**
 * The rows of a draft.
 *
 * @param shows whether a filter shows a rule; null without a filter
 * @param closed ids of folded sections
 * @param fresh ids of rules that are shown whatever the filter
 */
export function itemsOf(
  draft: Draft,
  shows: ((rule: Rule, number: number) => boolean) | null,
  closed: Set<string>,
  fresh: Set<string>,
): Items {
  const items: Item[] = [];
  const order: string[] = [];
  const numbers = new Map<string, number>();
  const byId = new Map<string, Rule>();
  let number = 0;
  let headsOnly = draft.kind === 'common' && !shows;
  for (const section of sectionsOf(draft)) {
    const origin = originOf(draft, section);
    if (headsOnly && section.tail) {
      items.push({ type: 'below' });
      headsOnly = false;
    }
    const inside: Extract<Item, { type: 'rule' }>[] = [];
    for (const rule of section.rules ?? []) {
      numbers.set(rule.id, ++number);
      byId.set(rule.id, rule);
      if (!shows || fresh.has(rule.id) || shows(rule, number)) {
        inside.push({ type: 'rule', rule, number, origin });
      }
    }
    if (inside.length || !shows) {
      items.push({ type: 'section', section, count: section.rules?.length ?? 0, origin });
      if (shows || !closed.has(section.id)) {
        items.push(...inside);
        order.push(...inside.map((item) => item.rule.id));
      }
    }
  }
  if (headsOnly) items.push({ type: 'below' });
  items.push({ type: 'default' });
  return { items, order, numbers, byId };
}
