import type { Criterion, Rule } from '../api/types';

/** The parts of a rule's sentence. */
export type Part = 'from' | 'to' | 'for';
export const PARTS: Part[] = ['from', 'to', 'for'];

/** Coordinates with a vocabulary; a rule stores these criteria together. */
export type Coordinate = 'person' | 'device' | 'site' | 'application' | 'file kind' | 'time';

/** The coordinates that are asked about in each part. */
export const COORDINATES: Record<Part, Coordinate[]> = {
  from: ['person', 'device'],
  to: ['site'],
  for: ['application', 'file kind', 'time'],
};

type OwnCriterion = 'fromZones' | 'fromAddresses' | 'toZones' | 'toAddresses' | 'services';

export type CriterionName = OwnCriterion | Coordinate;

export const CRITERIA: Record<Part, CriterionName[]> = {
  from: ['person', 'device', 'fromZones', 'fromAddresses'],
  to: ['site', 'toZones', 'toAddresses'],
  for: ['application', 'file kind', 'services', 'time'],
};

const OWN: readonly string[] = ['fromZones', 'fromAddresses', 'toZones', 'toAddresses', 'services'];

const isOwn = (criterion: CriterionName): criterion is OwnCriterion => OWN.includes(criterion);

/** The items of one criterion of a rule. */
export function asked(rule: Rule, criterion: CriterionName): Criterion | undefined {
  return isOwn(criterion) ? rule[criterion] : rule.terms?.[criterion];
}

/** The rule asking otherwise by one criterion; undefined for any. */
export function asking(rule: Rule, criterion: CriterionName, next: Criterion | undefined): Rule {
  if (isOwn(criterion)) {
    return { ...rule, [criterion]: next };
  }
  const terms = { ...rule.terms };
  if (next) terms[criterion] = next;
  else delete terms[criterion];
  return { ...rule, terms: Object.keys(terms).length ? terms : undefined };
}

export interface Chip {
  criterion: CriterionName;
  text: string;
  except: boolean;
}

/** The chips of one part, zones before addresses, exceptions behind what they are taken from. */
export function chipsOf(rule: Rule, part: Part): Chip[] {
  return CRITERIA[part].flatMap((criterion) => {
    const said = asked(rule, criterion);
    return [
      ...(said?.items ?? []).map((text) => ({ criterion, text, except: false })),
      ...(said?.except ?? []).map((text) => ({ criterion, text, except: true })),
    ];
  });
}

/** The rule with one chip more; the same rule if it has it already. */
export function withChip(rule: Rule, chip: Chip): Rule {
  const said: Criterion = asked(rule, chip.criterion) ?? {};
  const list = chip.except ? (said.except ?? []) : (said.items ?? []);
  if (list.some((text) => text.toLowerCase() === chip.text.toLowerCase())) {
    return rule;
  }
  const next = [...list, chip.text];
  const asks = asking(
    rule,
    chip.criterion,
    chip.except ? { ...said, except: next } : { ...said, items: next },
  );
  return { ...asks, unfinished: undefined };
}

/** Whether the rule asks for nothing at all. */
export const asksForNothing = (rule: Rule): boolean =>
  PARTS.every((part) => chipsOf(rule, part).length === 0);

/**
 * The rule without one of its chips. Without the last one it is unfinished, rather than for any
 * connection, which nobody said.
 */
export function withoutChip(rule: Rule, chip: Chip): Rule {
  const said: Criterion = asked(rule, chip.criterion) ?? {};
  const kept = (list: string[] | undefined) => {
    const left = list?.filter((text) => text !== chip.text) ?? [];
    return left.length ? left : undefined;
  };
  const next: Criterion = chip.except
    ? { items: said.items, except: kept(said.except) }
    : { items: kept(said.items), except: said.except };
  const left = asking(rule, chip.criterion, next.items || next.except ? next : undefined);
  return asksForNothing(left) ? { ...left, unfinished: true } : left;
}

// Widths in pixels of what a chip is made of, on the generous side.
const CHARACTER = 6;
const MONOSPACED = 6.9;
const LITERAL = /\d[.:/]|^\*|\w\.\w/; // looks like an address, a service, a host
const CHIP = 16;
const NOT = 24;
const ICON = 15;

/**
 * How many chips fit into about `room` pixels; at least one.
 *
 * @param more how many characters stand behind the text of a chip
 */
export function fitting(
  chips: Chip[],
  room: number,
  more: (chip: Chip) => number = () => 0,
): number {
  let used = 0;
  for (let i = 0; i < chips.length; i++) {
    const chip = chips[i]!;
    const character = LITERAL.test(chip.text) ? MONOSPACED : CHARACTER;
    const icon = chip.criterion === 'person' || chip.criterion === 'device' ? ICON : 0;
    used += (chip.text.length + more(chip)) * character + CHIP + icon + (chip.except ? NOT : 0);
    if (used > room && i > 0) {
      return i;
    }
  }
  return chips.length;
}

/** All that a person could look for in a rule, in small letters. */
export function searchText(rule: Rule): string {
  const chips = PARTS.flatMap((part) => chipsOf(rule, part)).map((chip) => chip.text);
  const kept = [rule.owner, rule.ticket, ...(rule.tags ?? []), rule.start, rule.end];
  const state = rule.unfinished ? 'unfinished' : rule.observeOnly ? 'observe only' : '';
  return [rule.name, rule.note ?? '', rule.verdict, state, ...kept, ...chips]
    .filter(Boolean)
    .join('\n')
    .toLowerCase();
}
