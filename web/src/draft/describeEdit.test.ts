import { describe, expect, it } from 'vitest';
import { describeEdit } from './describeEdit';

const nameOf = (id: string) => ({ a: 'Kiosks', b: 'Rest' })[id];

describe('describeEdit', () => {
  it('describes the changed parts of a rule', () => {
    const before = {
      id: 'a',
      name: 'Kiosks',
      verdict: 'allow' as const,
      fromZones: { items: ['x', 'y'] },
    };
    const after = {
      id: 'a',
      name: 'Machines',
      verdict: 'drop' as const,
      enabled: false,
      fromZones: { items: ['y'], except: ['z'] },
    };
    expect(
      describeEdit({ kind: 'replaceRules', rules: [after] }, nameOf, {
        kind: 'replaceRules',
        rules: [before],
      }),
    ).toBe('changed "Kiosks": named "Machines", disabled, allow → drop, from +not z −x');
  });

  it('names what was done to what', () => {
    const say = (edit: Parameters<typeof describeEdit>[0]) => describeEdit(edit, nameOf);
    expect(say({ kind: 'moveRules', ids: ['a'], place: { above: 'b' } })).toBe(
      'moved "Kiosks" above "Rest"',
    );
    expect(say({ kind: 'deleteRules', ids: ['x'] })).toBe('deleted a rule that is gone');
    expect(say({ kind: 'deleteRules', ids: ['a', 'b'] })).toBe('deleted 2 rules');
    expect(say({ kind: 'putZone', object: { name: 'piers' }, replaces: 'terminals' })).toBe(
      'renamed zone "terminals" to "piers"',
    );
    const fit = { kind: 'putDeviceState' as const, object: { name: 'fit' } };
    expect(say(fit)).toBe('created device state "fit"');
    expect(say({ ...fit, replaces: 'fit' })).toBe('changed device state "fit"');
    expect(say({ kind: 'putHostList', object: { name: 'a' }, replaces: 'b' })).toBe(
      'renamed host list "b" to "a"',
    );
    expect(say({ kind: 'setTimeZone', name: 'Europe/Oslo' })).toBe(
      'set the time zone to Europe/Oslo',
    );
    const check = { name: 'in', connection: 'tcp/443', verdict: 'allow' as const };
    expect(say({ kind: 'putCheck', check })).toBe('saved check "in"');
    expect(say({ kind: 'putCheck', check, replaces: 'out' })).toBe('changed check "out"');
    expect(say({ kind: 'deleteCheck', name: 'in' })).toBe('deleted check "in"');
    expect(
      say({
        kind: 'batch',
        edits: [
          { kind: 'putAddress', object: { name: 'x' } },
          { kind: 'replaceRules', rules: [{ id: 'a', name: 'Kiosks', verdict: 'drop' }] },
        ],
      }),
    ).toBe('created address "x", changed "Kiosks"');
  });
});
