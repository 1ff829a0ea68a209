import type { Draft, Edit, Rule } from '../api/types';
import { allRules, originOf, sectionsOf } from '../draft/applyEdit';

/** A rule that an empty rulebase is offered. */
export interface FirstRule {
  /** Of the rule, once it is taken. */
  id: string;
  name: string;
  why: string;
  /** What it needs and the draft lacks. */
  needs?: string;
  rule: Omit<Rule, 'id' | 'name'>;
  /** Objects that it names and the draft lacks. */
  objects: Edit[];
}

const PREFIX = 'first-';
const INSIDE = 'Inside networks';
const GUESTS = 'guests';
const INSIDE_MEMBERS = ['10.0.0.0/8', '172.16.0.0/12', '192.168.0.0/16', 'fc00::/7'];

/** The rules that are offered, in the order in which they should stand. */
export function firstRules(draft: Draft): FirstRule[] {
  const hasPeople = draft.editions.person !== undefined;
  const hasCatalogue = draft.editions.application !== undefined;
  const catalogue = hasCatalogue ? undefined : 'an edition of the catalogue';
  const inside: Edit[] = draft.addresses.some((one) => one.name === INSIDE)
    ? []
    : [{ kind: 'putAddress', object: { name: INSIDE, members: INSIDE_MEMBERS } }];
  const guests: Edit[] = draft.zones.some((one) => one.name === GUESTS)
    ? []
    : [{ kind: 'putZone', object: { name: GUESTS, members: [] } }];
  return [
    {
      id: `${PREFIX}observe`,
      name: 'Observe everything',
      why: 'decides nothing, and logs each connection: a first look at what is on the wire',
      rule: { verdict: 'allow', observeOnly: true, log: 'both' },
      objects: [],
    },
    {
      id: `${PREFIX}refuse`,
      name: 'No peer-to-peer, anonymisers or remote control',
      why: 'by category, so that a new edition of the catalogue brings new ones',
      needs: catalogue,
      rule: {
        verdict: 'drop',
        log: 'end',
        terms: {
          application: {
            items: ['category peer-to-peer', 'category anonymisers', 'category remote control'],
          },
        },
      },
      objects: [],
    },
    {
      id: `${PREFIX}guests`,
      name: 'Guests stay outside',
      why: `from the zone “${GUESTS}” to your own networks; name their networks in the library`,
      rule: {
        verdict: 'drop',
        log: 'end',
        fromZones: { items: [GUESTS] },
        toAddresses: { items: [INSIDE] },
      },
      objects: [...guests, ...inside],
    },
    {
      id: `${PREFIX}sealed`,
      name: 'Banking and health stay sealed',
      why: 'let through without being opened; it stands above the rule that opens',
      needs: catalogue,
      rule: {
        verdict: 'allow',
        terms: { application: { items: ['category banking', 'category health'] } },
        fromAddresses: { items: [INSIDE] },
      },
      objects: inside,
    },
    {
      id: `${PREFIX}people`,
      name: hasPeople ? 'People who are signed in' : 'Our own networks',
      why: hasPeople
        ? 'from inside, to anywhere, opened for inspection and logged'
        : 'from inside, to anywhere; without a directory everybody counts',
      rule: {
        verdict: 'allow',
        log: 'end',
        opening: 'opened',
        fromAddresses: { items: [INSIDE] },
        ...(hasPeople ? { terms: { person: { items: ['any signed in'] } } } : {}),
      },
      objects: inside,
    },
    {
      id: `${PREFIX}rest`,
      name: 'Refuse the rest',
      why: 'and tell the sender, so that programs need not wait; what else arrives is dropped',
      rule: { verdict: 'reject', log: 'start', fromAddresses: { items: [INSIDE] } },
      objects: inside,
    },
  ];
}

const own = (draft: Draft) => sectionsOf(draft).filter((section) => !originOf(draft, section));

/** The rules that are still offered: while a rulebase has no rules but those that it was offered. */
export function offeredRules(draft: Draft): FirstRule[] {
  if (draft.kind === 'common') return [];
  const mine = own(draft);
  const others = mine.some((section) => section.rules?.some((rule) => !rule.id.startsWith(PREFIX)));
  if (others) return [];
  const taken = new Set(mine.flatMap((section) => section.rules ?? []).map((rule) => rule.id));
  return firstRules(draft).filter((one) => !taken.has(one.id));
}

/** The edit that takes an offered rule, at its place among those that were taken. */
export function takeRule(draft: Draft, offer: FirstRule): Edit {
  const order = firstRules(draft).map((one) => one.id);
  const above = allRules(draft).filter(
    (rule) => order.indexOf(rule.id) >= 0 && order.indexOf(rule.id) < order.indexOf(offer.id),
  );
  const last = above.at(-1);
  const section = own(draft).find((one) => !one.tail)!;
  const insert: Edit = {
    kind: 'insertRules',
    rules: [{ ...offer.rule, id: offer.id, name: offer.name } as Rule],
    place: last ? { below: last.id } : { startOf: section.id },
  };
  return offer.objects.length > 0 ? { kind: 'batch', edits: [...offer.objects, insert] } : insert;
}
