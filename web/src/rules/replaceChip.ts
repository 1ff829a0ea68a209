import type { Rule } from '../api/types';
import {
  asked,
  asking,
  chipsOf,
  PARTS,
  withChip,
  withoutChip,
  type Chip,
  type CriterionName,
} from '../draft/criteria';

/** A chip that some of the selected rules have. */
export interface UsedChip extends Chip {
  /** How many of them have it. */
  rules: number;
}

/** What the criteria are called, by where they stand in the sentence of a rule. */
export const CRITERION_WORDS: Record<CriterionName, string> = {
  person: 'person',
  device: 'device',
  fromZones: 'source zone',
  fromAddresses: 'source address',
  site: 'site',
  toZones: 'destination zone',
  toAddresses: 'destination address',
  application: 'application',
  'file kind': 'file kind',
  services: 'service',
  time: 'time',
};

const keyOf = (chip: Chip) => `${chip.criterion} ${chip.except} ${chip.text.toLowerCase()}`;

/** The chips of some rules, the most used first. */
export function usedChips(rules: Rule[]): UsedChip[] {
  const out = new Map<string, UsedChip>();
  for (const rule of rules) {
    for (const chip of PARTS.flatMap((part) => chipsOf(rule, part))) {
      const known = out.get(keyOf(chip));
      if (known) known.rules++;
      else out.set(keyOf(chip), { ...chip, rules: 1 });
    }
  }
  return [...out.values()].sort((a, b) => b.rules - a.rules || (a.text < b.text ? -1 : 1));
}

/**
 * The rules that change if a chip is replaced by another, or removed; each keeps its order of
 * chips.
 */
export function replaced(rules: Rule[], chip: Chip, by: string | null): Rule[] {
  return rules.flatMap((rule) => {
    const said = asked(rule, chip.criterion);
    const list = (chip.except ? said?.except : said?.items) ?? [];
    const own = list.find((text) => text.toLowerCase() === chip.text.toLowerCase());
    if (own === undefined) return [];
    if (by === null) return [withoutChip(rule, { ...chip, text: own })];
    const next = list.flatMap((text) => (text === own ? [by] : [text]));
    const once = next.filter(
      (text, i) => next.findIndex((other) => other.toLowerCase() === text.toLowerCase()) === i,
    );
    const criterion = chip.except ? { ...said, except: once } : { ...said, items: once };
    return [asking(rule, chip.criterion, criterion)];
  });
}

/** The rules that change if they get a chip. */
export const added = (rules: Rule[], chip: Chip): Rule[] =>
  rules.flatMap((rule) => {
    const next = withChip(rule, chip);
    return next === rule ? [] : [next];
  });
