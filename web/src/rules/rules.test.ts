import { describe, expect, it } from 'vitest';
import type { Draft, Rule } from '../api/types';
import { complete, literalOf } from './completion';
import { chipsOf, fitting, withChip, withoutChip, type Chip } from '../draft/criteria';
import { membersOf } from './members';

const rule: Rule = {
  id: 'r',
  name: 'Kiosks',
  verdict: 'allow',
  fromZones: { items: ['terminals'] },
  fromAddresses: { items: ['Kiosks'], except: ['10.4.9.12'] },
};

const draft = {
  editions: {},
  zones: [{ name: 'terminals', members: ['10.4.0.0/16'] }, { name: 'internet' }],
  addresses: [
    { name: 'Kiosks', members: ['10.4.0.0/20'] },
    { name: 'Old terminal', members: ['192.0.2.1'] },
  ],
  services: [{ name: 'Web', members: ['tcp/80', 'tcp/443'] }],
  hostLists: [{ name: 'Weather', members: ['*.tidewatch.example'] }],
  deviceStates: [{ name: 'fit', members: ['managed, has disk-lock'] }],
  schedules: [{ name: 'noon break', members: ['daily 12:00-14:00'] }],
  feeds: [
    {
      name: 'Registry',
      kind: 'countries',
      edition: '1',
      sets: [{ name: 'Vestmark', entries: 9, some: ['203.0.113.0/26'] }],
    },
    {
      name: 'Sorted',
      kind: 'categories',
      edition: '1',
      sets: [{ name: 'Gambling', entries: 2, some: ['a.example', 'b.example'] }],
    },
  ],
} as Draft;

describe('chips', () => {
  it('come zones first, exceptions last', () => {
    expect(chipsOf(rule, 'from').map((c) => (c.except ? '!' : '') + c.text)).toEqual([
      'terminals',
      'Kiosks',
      '!10.4.9.12',
    ]);
    expect(chipsOf(rule, 'for')).toEqual([]);
  });

  it('can be added once and taken away again', () => {
    const chip = { criterion: 'services' as const, text: 'Web', except: false };
    const more = withChip(rule, chip);
    expect(more.services).toEqual({ items: ['Web'] });
    expect(withChip(more, { ...chip, text: 'web' })).toBe(more);
    expect(withoutChip(more, chip).services).toBeUndefined();
    expect(
      withoutChip(rule, { criterion: 'fromAddresses', text: '10.4.9.12', except: true })
        .fromAddresses,
    ).toEqual({ items: ['Kiosks'], except: undefined });
  });

  it('say how many members a set has, and which, as far as the draft knows', () => {
    const of = membersOf(draft, { application: { 'category video': 12 } });
    const chip = (criterion: Chip['criterion'], text: string) =>
      of({ criterion, text, except: false });
    expect(chip('application', 'Category Video')).toEqual({ count: 12 });
    expect(chip('application', 'Gullwire')).toEqual({});
    expect(chip('toAddresses', 'vestmark')).toEqual({
      count: 9,
      words: '9: 203.0.113.0/26 and 8 more',
    });
    expect(chip('site', 'Gambling').count).toBe(2);
    expect(chip('fromAddresses', 'Kiosks')).toEqual({ words: '10.4.0.0/20' });
    expect(chip('fromZones', 'internet').words).toBe('any address');
  });

  it('fold behind the room that they have', () => {
    const chips = chipsOf(rule, 'from');
    expect(fitting(chips, 30)).toBe(1);
    expect(fitting(chips, 140)).toBe(2);
    expect(fitting(chips, 300)).toBe(3);
    expect(fitting(chips, 140, () => 9)).toBe(1);
  });
});

describe('completion', () => {
  const texts = (part: 'from' | 'to' | 'for', query: string) =>
    complete(draft, part, query).map((o) => `${o.kind}:${o.text}`);

  it('ranks names that start so before names that hold it', () => {
    expect(texts('from', 'term')).toEqual(['zone:terminals', 'address:Old terminal']);
  });

  it('finds objects by their contents, and offers the literal first', () => {
    expect(texts('to', '10.4.0.0/20')).toEqual(['literal:10.4.0.0/20', 'address:Kiosks']);
    expect(texts('for', 'tcp/443')).toEqual(['literal:tcp/443', 'service:Web']);
  });

  it('offers usual ports where a catalogue says which they are', () => {
    const withCatalogue = { ...draft, editions: { application: '2026-11' } };
    expect(complete(withCatalogue, 'for', 'usu').map((o) => o.text)).toEqual(['usual ports']);
    expect(complete(draft, 'for', 'usu')).toEqual([]);
  });

  it('offers countries as addresses and categories as hosts', () => {
    expect(complete(draft, 'from', 'vest')).toEqual([
      {
        criterion: 'fromAddresses',
        text: 'Vestmark',
        kind: 'country',
        detail: '9: 203.0.113.0/26 and 8 more',
      },
    ]);
    expect(texts('to', 'gam')).toEqual(['category:Gambling']);
    expect(texts('from', 'gam')).toEqual([]);
  });

  it('offers hosts and times, with names or without', () => {
    expect(texts('to', '*.quay.example')).toEqual(['literal:*.quay.example']);
    expect(texts('to', 'tidewatch')).toEqual(['host list:Weather']);
    expect(texts('for', 'weekdays 06-22')).toEqual(['literal:weekdays 06-22']);
    expect(texts('for', 'noon')).toEqual(['schedule:noon break']);
    expect(texts('for', 'daily 08-12 in Europe/Oslo')).toEqual([
      'literal:daily 08-12 in Europe/Oslo',
    ]);
    const fromOutside = { ...draft, editions: { site: '2026-11' } };
    expect(complete(fromOutside, 'to', '*.quay.example')).toEqual([]);
  });

  it('offers devices by their state, where they come from', () => {
    expect(texts('from', 'managed, has disk-lock')).toEqual([
      'literal:managed, has disk-lock',
      'device state:fit',
    ]);
    expect(texts('from', 'fit')).toEqual(['device state:fit']);
    expect(texts('to', 'fit')).toEqual([]);
    for (const text of ['unmanaged', 'platform kelpos', 'lacks a, has b', 'Managed']) {
      expect(literalOf('from', text), text).toBe('device');
    }
    for (const text of ['managed,', 'has', 'not managed', 'management']) {
      expect(literalOf('from', text), text).toBeNull();
    }
    const fromOutside = { ...draft, editions: { device: '2026-11' } };
    expect(complete(fromOutside, 'from', 'unmanaged')).toEqual([]);
  });

  it('tells literals from names', () => {
    for (const text of ['10.4.2.9', '10.4.0.0/16', '2001:db8::/32', '10.0.0.1-10.0.0.9']) {
      expect(literalOf('from', text), text).toBe('fromAddresses');
    }
    expect(literalOf('from', 'face')).toBeNull();
    expect(literalOf('from', '10')).toBeNull();
    expect(literalOf('for', 'icmp/8')).toBe('services');
    expect(literalOf('for', 'tcp/443 from 1024-65535')).toBe('services');
    expect(literalOf('for', 'tcpdump')).toBeNull();
    expect(literalOf('to', '198.51.100.7')).toBe('toAddresses');
    expect(literalOf('to', 'www.quay.example/forms')).toBe('site');
    expect(literalOf('for', '2026-12-24 to 2026-12-26')).toBe('time');
    expect(literalOf('for', 'sat-sun 22:00-04:00')).toBe('time');
  });

  it('shows the criteria on people and applications, and removes them', () => {
    const asking: Rule = {
      ...rule,
      terms: { person: { items: ['crew'], except: ['Ann'] }, application: { items: ['Quillbox'] } },
    };
    expect(chipsOf(asking, 'from').map((chip) => [chip.criterion, chip.text, chip.except])).toEqual(
      [
        ['person', 'crew', false],
        ['person', 'Ann', true],
        ['fromZones', 'terminals', false],
        ['fromAddresses', 'Kiosks', false],
        ['fromAddresses', '10.4.9.12', true],
      ],
    );
    const quillbox = { criterion: 'application', text: 'Quillbox', except: false } as const;
    expect(chipsOf(asking, 'for')).toEqual([quillbox]);
    const without = withoutChip(asking, quillbox);
    expect(without.terms).toEqual({ person: { items: ['crew'], except: ['Ann'] } });
    expect(withChip(without, quillbox).terms).toEqual(asking.terms);
    const ann = { criterion: 'person', text: 'Ann', except: true } as const;
    const crew = { criterion: 'person', text: 'crew', except: false } as const;
    expect(withoutChip(withoutChip(without, ann), crew).terms).toBeUndefined();
  });
});
