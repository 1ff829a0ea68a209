import { describe, expect, it } from 'vitest';
import type { Draft, Edit, Rule } from '../api/types';
import { allRules, applyEdit } from './applyEdit';

const rule = (id: string, more: Partial<Rule> = {}): Rule => ({
  id,
  name: `rule ${id}`,
  verdict: 'allow',
  ...more,
});

const draft: Draft = {
  id: 1,
  kind: 'traffic',
  name: 'test',
  revision: 1,
  version: 0,
  changes: 0,
  zones: [{ name: 'inside' }],
  addresses: [
    { name: 'hosts', members: ['10.0.0.1'] },
    { name: 'group', members: ['Hosts'] },
  ],
  services: [],
  hostLists: [],
  schedules: [],
  deviceStates: [],
  timeZone: 'UTC',
  tooBroad: { counting: ['people'], addresses: 1 },
  checks: [],
  editions: { application: '2026-11' },
  feeds: [],
  ratePlans: [{ name: 'Calls', floor: '1 Mbit/s', counted: 'each rule' }],
  notices: [],
  sections: [
    {
      id: 's',
      name: 'First',
      rules: [rule('a', { fromAddresses: { items: ['HOSTS'] } }), rule('b'), rule('c')],
    },
    { id: 't', name: 'Second', rules: [rule('d')] },
  ],
  standings: {},
  analysisMillis: 0,
};

const order = (d: Draft) =>
  d.sections.map((s) => `${s.id}:${(s.rules ?? []).map((r) => r.id).join('')}`).join(' ');

describe('applyEdit', () => {
  it('inserts relative to rules and sections', () => {
    const rules = [rule('x'), rule('y')];
    const at = (place: object) => order(applyEdit(draft, { kind: 'insertRules', rules, place }));
    expect(at({ above: 'b' })).toBe('s:axybc t:d');
    expect(at({ below: 'c' })).toBe('s:abcxy t:d');
    expect(at({ startOf: 't' })).toBe('s:abc t:xyd');
    expect(at({ endOf: 't' })).toBe('s:abc t:dxy');
  });

  it('moves in the order that is named, across sections', () => {
    const move = (ids: string[], place: object) =>
      order(applyEdit(draft, { kind: 'moveRules', ids, place }));
    expect(move(['c', 'a'], { endOf: 't' })).toBe('s:b t:dca');
    expect(move(['a'], { below: 'b' })).toBe('s:bac t:d');
    expect(move(['d'], { above: 'a' })).toBe('s:dabc t:');
  });

  it('replaces and deletes, and keeps untouched sections the same objects', () => {
    const next = applyEdit(draft, { kind: 'replaceRules', rules: [rule('b', { name: 'new' })] });
    expect(allRules(next)[1]?.name).toBe('new');
    expect(next.sections[1]).toBe(draft.sections[1]);
    expect(order(applyEdit(draft, { kind: 'deleteRules', ids: ['a', 'd'] }))).toBe('s:bc t:');
  });

  it('renames an object wherever it is mentioned, in whatever case', () => {
    const next = applyEdit(draft, {
      kind: 'putAddress',
      object: { name: 'kiosks', members: ['10.0.0.2'] },
      replaces: 'hosts',
    });
    expect(next.addresses).toEqual([
      { name: 'kiosks', members: ['10.0.0.2'] },
      { name: 'group', members: ['kiosks'] },
    ]);
    expect(allRules(next)[0]?.fromAddresses?.items).toEqual(['kiosks']);
  });

  it('makes, renames and deletes host lists and schedules', () => {
    const made = applyEdit(draft, {
      kind: 'batch',
      edits: [
        { kind: 'putSchedule', object: { name: 'late', members: ['daily 22-06'] } },
        {
          kind: 'replaceRules',
          rules: [rule('b', { terms: { time: { items: ['Late'] }, person: { items: ['crew'] } } })],
        },
      ],
    });
    const renamed = applyEdit(made, {
      kind: 'putSchedule',
      object: { name: 'night', members: ['daily 22-06'] },
      replaces: 'late',
    });
    expect(renamed.schedules).toEqual([{ name: 'night', members: ['daily 22-06'] }]);
    expect(allRules(renamed)[1]?.terms).toEqual({
      time: { items: ['night'] },
      person: { items: ['crew'] },
    });
    const list = applyEdit(draft, {
      kind: 'putHostList',
      object: { name: 'weather', members: ['*.tidewatch.example'] },
    });
    const device = applyEdit(draft, {
      kind: 'putDeviceState',
      object: { name: 'fit', members: ['managed'] },
    });
    expect(device.deviceStates).toEqual([{ name: 'fit', members: ['managed'] }]);
    expect(applyEdit(draft, { kind: 'setTimeZone', name: 'Europe/Oslo' }).timeZone).toBe(
      'Europe/Oslo',
    );
    const check = { name: 'in', connection: 'tcp/443', verdict: 'allow' as const };
    const checked = applyEdit(draft, { kind: 'putCheck', check });
    expect(checked.checks).toEqual([check]);
    expect(applyEdit(checked, { kind: 'deleteCheck', name: 'IN' }).checks).toEqual([]);
    const zoned = {
      ...draft,
      zones: [{ name: 'north' }, { name: 'north pier' }],
      checks: [
        { ...check, connection: 'from 10.0.0.1 in north to 10.0.0.2 in north pier tcp/443' },
      ],
    };
    const moved = applyEdit(zoned, {
      kind: 'putZone',
      object: { name: 'upper' },
      replaces: 'North',
    });
    expect(moved.checks[0]!.connection).toBe(
      'from 10.0.0.1 in upper to 10.0.0.2 in north pier tcp/443',
    );
    const gone = { kind: 'deleteObject' as const, objectKind: 'host list' as const };
    expect(applyEdit(list, { ...gone, name: 'Weather' }).hostLists).toEqual([]);
  });

  it('follows which edition is pinned', () => {
    const next = applyEdit(draft, {
      kind: 'putVocabulary',
      vocabulary: { coordinate: 'application', edition: '2026-12', values: ['x'] },
    });
    expect(next.editions).toEqual({ application: '2026-12' });
    expect(applyEdit(next, { kind: 'deleteVocabulary', name: 'application' }).editions).toEqual({});
  });

  it('makes, renames and deletes sections, and applies batches in order', () => {
    const next = applyEdit(draft, {
      kind: 'batch',
      edits: [
        { kind: 'insertSection', id: 'u', name: 'Between', before: 't' },
        { kind: 'moveRules', ids: ['d'], place: { startOf: 'u' } },
        { kind: 'deleteSection', id: 't' },
        { kind: 'renameSection', id: 'u', name: 'Renamed' },
        { kind: 'deleteObject', objectKind: 'zone', name: 'Inside' },
      ],
    });
    expect(order(next)).toBe('s:abc u:d');
    expect(next.sections[1]?.name).toBe('Renamed');
    expect(next.zones).toEqual([]);
  });

  it('renames a rate plan in the rules that say it', () => {
    const said = applyEdit(draft, {
      kind: 'replaceRules',
      rules: [rule('b', { ratePlan: 'CALLS' })],
    });
    const next = applyEdit(said, {
      kind: 'putRatePlan',
      replaces: 'calls',
      ratePlan: { name: 'Voices', floor: '2 Mbit/s', counted: 'each rule' },
    });
    expect(next.ratePlans.map((plan) => plan.name)).toEqual(['Voices']);
    expect(allRules(next)[1]!.ratePlan).toBe('Voices');
    const none = applyEdit(next, { kind: 'deleteObject', objectKind: 'rate plan', name: 'VOICES' });
    expect(none.ratePlans).toEqual([]);
    expect(applyEdit(draft, { kind: 'setLineCapacity', capacity: '1 Gbit/s' }).lineCapacity).toBe(
      '1 Gbit/s',
    );
  });

  it('keeps feeds in the order of their names, each in one edition', () => {
    const feed = (name: string, edition: string): Edit => ({
      kind: 'putFeed',
      pinned: { name, kind: 'addresses', edition, sets: [] },
    });
    const two = applyEdit(applyEdit(draft, feed('watch', '1')), feed('Block', '1'));
    const next = applyEdit(two, feed('watch', '2'));
    expect(next.feeds.map((f) => `${f.name} ${f.edition}`)).toEqual(['Block 1', 'watch 2']);
    expect(applyEdit(next, { kind: 'deleteFeed', name: 'BLOCK' }).feeds).toHaveLength(1);
  });
});
