import type { Draft, ObjectKind, PinnedFeed, TermOption } from '../api/types';
import type { Coordinate, CriterionName, Part } from '../draft/criteria';

export interface Option {
  criterion: CriterionName;
  text: string;
  /** Its kind and contents. */
  kind: ObjectKind | 'literal' | 'list' | 'country' | 'category' | Coordinate;
  detail: string;
}

const MOST = 40;
const USUAL_PORTS = 'usual ports';
const ADDRESS = /^(\d[\d.]*|[\da-f]*:[\da-f:.]*)(\/\d*)?(-[\da-f.:]*)?$/i;
const SERVICE = /^(tcp|udp|sctp|icmp6|icmp|ip)(\/.*| from .*)?$/i;

const HOST = /^(\*\.[\w.-]+|([\w-]+\.)+[a-z][\w-]*(\/\S*)?)$/i;
const DEVICE_FACT = String.raw`(managed|unmanaged|(platform|has|lacks) +[\w.-]+)`;
const DEVICE = new RegExp(`^${DEVICE_FACT}( *, *${DEVICE_FACT})*$`, 'i');
const TIME =
  /^((daily|weekdays|weekends|mon|tue|wed|thu|fri|sat|sun)([,-][a-z]{3})*( \d\d(:\d\d)?-\d\d(:\d\d)?)?|\d{4}-\d\d-\d\d( to \d{4}-\d\d-\d\d)?)( in \S+)?$/i;

/** The criterion of a literal in each part of a rule; the server checks the literal. */
export function literalOf(part: Part, text: string): CriterionName | null {
  if (part === 'for') {
    return SERVICE.test(text) ? 'services' : TIME.test(text) ? 'time' : null;
  }
  if (ADDRESS.test(text) && /[.:]/.test(text)) {
    return part === 'from' ? 'fromAddresses' : 'toAddresses';
  }
  if (part === 'from') return DEVICE.test(text) ? 'device' : null;
  return HOST.test(text) ? 'site' : null;
}

/** Coordinates whose items rules can contain themselves, unless an edition brings a vocabulary. */
const WRITTEN: CriterionName[] = ['site', 'time', 'device'];

/** What the literals of a criterion are. */
const LITERALS: Partial<Record<CriterionName, ObjectKind>> = {
  fromAddresses: 'address',
  toAddresses: 'address',
  services: 'service',
  site: 'host list',
  time: 'schedule',
  device: 'device state',
};

/** The kind of object that could give a literal a name. */
export const kindOfLiteral = (criterion: CriterionName): ObjectKind =>
  LITERALS[criterion] ?? 'address';

const LITERAL_WORDS: Partial<Record<CriterionName, string>> = {
  services: 'service',
  site: 'host',
  time: 'time',
  device: 'device',
};

/** Whether a rule can say hosts, times or devices itself: not where they come with an edition. */
export function canSay(draft: Draft, criterion: CriterionName | null): criterion is CriterionName {
  return criterion !== null && (!WRITTEN.includes(criterion) || !draft.editions[criterion]);
}

/**
 * What could be meant by `query` in a part, best first: literals, names that start so, others.
 *
 * @param terms names of people, applications and the like that the server found for it
 */
export function complete(
  draft: Draft,
  part: Part,
  query: string,
  terms: TermOption[] = [],
): Option[] {
  const text = query.trim();
  const out: Option[] = [];
  const literal = literalOf(part, text);
  if (canSay(draft, literal)) {
    const detail = LITERAL_WORDS[literal] ?? 'address';
    out.push({ criterion: literal, text, kind: 'literal', detail });
  }
  if (part === 'for') {
    out.push(...ranked(draft.schedules, text, 'time', 'schedule'));
    out.push(...ranked(draft.services, text, 'services', 'service'));
    if (draft.editions.application && rank(USUAL_PORTS, text) < NO_MATCH) {
      out.push({
        criterion: 'services',
        text: USUAL_PORTS,
        kind: 'service',
        detail: 'where the catalogue says that each application listens',
      });
    }
  } else {
    const [zones, addresses]: CriterionName[] =
      part === 'from' ? ['fromZones', 'fromAddresses'] : ['toZones', 'toAddresses'];
    if (part === 'to') {
      out.push(...ranked(draft.hostLists, text, 'site', 'host list'));
      out.push(...fed(draft, text, 'categories', 'site'));
    }
    if (part === 'from') out.push(...ranked(draft.deviceStates, text, 'device', 'device state'));
    out.push(...ranked(draft.zones, text, zones!, 'zone'));
    out.push(...ranked(draft.addresses, text, addresses!, 'address'));
    out.push(...fed(draft, text, 'addresses', addresses!));
    out.push(...fed(draft, text, 'countries', addresses!));
    out.sort((a, b) => rank(a.text, text) - rank(b.text, text));
  }
  const found = terms.map(ofTerm).filter((option) => rank(option.text, text) < NO_MATCH);
  return [...out, ...found]
    .map((option, i) => ({
      option,
      i,
      rank: option.kind === 'literal' ? -1 : rank(option.text, text),
      as: asTyped(option.text, text),
    }))
    .sort((a, b) => a.rank - b.rank || a.as - b.as || a.i - b.i)
    .slice(0, MOST)
    .map(({ option }) => option);
}

const WORDS = { addresses: 'list', countries: 'country', categories: 'category' } as const;

/** The sets of feeds of one kind. */
function fed(
  draft: Draft,
  query: string,
  kind: PinnedFeed['kind'],
  criterion: CriterionName,
): Option[] {
  return draft.feeds
    .filter((feed) => feed.kind === kind)
    .flatMap((feed) => feed.sets)
    .map((set) => ({
      criterion,
      text: set.name,
      kind: WORDS[kind],
      detail: holding(set.entries, set.some),
    }))
    .filter((option) => rank(option.text, query) < NO_MATCH)
    .sort((a, b) => rank(a.text, query) - rank(b.text, query));
}

/** How many members a set has, and the first of them. */
export function holding(members: number, some: string[]): string {
  const more = members - some.length;
  return `${members}: ${some.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

function ofTerm(term: TermOption): Option {
  const coordinate = term.coordinate as Coordinate;
  return {
    criterion: coordinate,
    text: term.name,
    kind: coordinate,
    detail: term.some.length === 0 ? '' : holding(term.members, term.some),
  };
}

function ranked(
  objects: { name?: string; members?: string[] }[],
  query: string,
  criterion: CriterionName,
  kind: Option['kind'],
): Option[] {
  return objects
    .map((o) => ({
      criterion,
      text: o.name ?? '',
      kind,
      detail: (o.members ?? []).join(', ') || 'any address',
    }))
    .filter((option) => rank(option.text, query) < NO_MATCH || holds(option.detail, query))
    .sort((a, b) => rank(a.text, query) - rank(b.text, query) || a.text.localeCompare(b.text));
}

const NO_MATCH = 4;

/** Of names that match alike, the one in the letters that were typed comes first. */
const asTyped = (name: string, query: string) => (name.startsWith(query) ? 0 : 1);

function rank(name: string, query: string): number {
  const n = name.toLowerCase();
  const q = query.toLowerCase();
  if (n === q) return 0;
  if (n.startsWith(q)) return 1;
  if (n.split(/[ .-]/).some((word) => word.startsWith(q))) return 2;
  return n.includes(q) ? 3 : NO_MATCH;
}

/** Whether what an object holds says the query: "10.4" finds the kiosks. */
function holds(detail: string, query: string): boolean {
  return query.length > 1 && detail.toLowerCase().includes(query.toLowerCase());
}
