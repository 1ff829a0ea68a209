import type { ProbeAnswer, Rule } from '../api/types';
import { asked, type CriterionName } from '../draft/criteria';

export type Unless = ProbeAnswer['unless'][number];

const PART_WORDS: Record<string, string> = {
  fromZones: 'source zone',
  fromAddresses: 'source address',
  toZones: 'destination zone',
  toAddresses: 'destination address',
  services: 'service',
};
const MOST_ITEMS = 3;

/** The name of a part of a connection as people read it. */
export function partWord(part: string): string {
  return PART_WORDS[part] ?? part;
}

/**
 * What has to be so for a rule to decide: the rule's own items for each part that was left unsaid.
 * Empty for a rule that decides whatever no rule above it asks for.
 */
export function conditionOf(unless: Unless, rule: Rule | undefined): string {
  return unless.parts
    .map((part) => {
      const criterion = rule && asked(rule, part as CriterionName);
      const items = criterion?.items ?? [];
      const except = criterion?.except ?? [];
      const shown = items.slice(0, MOST_ITEMS).join(', ') || 'any';
      const more = items.length > MOST_ITEMS ? ` +${items.length - MOST_ITEMS}` : '';
      const but = except.length ? ` not ${except.slice(0, MOST_ITEMS).join(', ')}` : '';
      return `${partWord(part)} ${shown}${more}${but}`;
    })
    .join(' · ');
}
