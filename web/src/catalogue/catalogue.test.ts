import { describe, expect, it } from 'vitest';
import type { Application, Rule } from '../api/types';
import { familyOf, saidOf, search, whomOf } from './catalogue';

const application = (name: string, more: Partial<Application> = {}): Application => ({
  name,
  summary: 'What it is.',
  category: 'chat',
  risk: 3,
  usefulness: 2,
  ...more,
});

const gullwire = application('Gullwire', {
  tags: ['cloud'],
  features: [{ name: 'post' }],
  needs: ['Gullwire sign-in'],
  carries: ['TLS'],
});
const signIn = application('Gullwire sign-in', { category: 'directory and sign-in', risk: 1 });
const tls = application('TLS', { category: 'web protocols', risk: 2, ports: ['tcp/443'] });
const all = [tls, signIn, gullwire];

const rule = (id: string, items: string[], except?: string[]) =>
  ({ id, name: id, verdict: 'allow', terms: { application: { items, except } } }) as Rule;

describe('search', () => {
  it('finds by any property, names that begin so first', () => {
    expect(search(all, 'gullwire').map((a) => a.name)).toEqual(['Gullwire', 'Gullwire sign-in']);
    expect(search(all, 'feature post')).toEqual([gullwire]);
    expect(search(all, 'tcp/443 web')).toEqual([tls]);
    expect(search(all, 'tag cloud')).toEqual([gullwire]);
    expect(search(all, 'nothing of the kind')).toEqual([]);
  });

  it('narrows by category and risk', () => {
    expect(search(all, '', 'chat')).toEqual([gullwire]);
    expect(search(all, '', '', 2).map((a) => a.name)).toEqual(['Gullwire', 'TLS']);
    expect(search(all, '', '', 5)).toEqual([]);
  });
});

describe('the items of a rule that mention an application', () => {
  it('knows every way in which a rule can mean an application', () => {
    const rules = [
      rule('a', ['Gullwire: post']),
      rule('b', ['category chat'], ['GULLWIRE']),
      rule('c', ['risk 3 or more', 'tag cloud']),
      rule('d', ['risk 4 or more', 'Gullwire sign-in']),
      { id: 'e', name: 'e', verdict: 'drop' } as Rule,
    ];
    expect(rules.map((rule) => [rule.id, ...saidOf(gullwire, rule)])).toEqual([
      ['a', 'Gullwire: post'],
      ['b', 'category chat', 'not GULLWIRE'],
      ['c', 'risk 3 or more', 'tag cloud'],
      ['d'],
      ['e'],
    ]);
  });

  it('and its people', () => {
    const asking = (items: string[], except: string[] = []) =>
      ({ id: 'a', name: 'a', terms: { person: { items, except } } }) as unknown as Rule;
    expect(whomOf(asking(['deck crews', 'Ben Holm']))).toEqual(['for deck crews, Ben Holm']);
    expect(whomOf(asking(['any signed in'], ['contractors']))).toEqual([
      'for any signed in, not contractors',
    ]);
    expect(whomOf(rule('b', ['Gullwire']))).toEqual([]);
  });
});

describe('familyOf', () => {
  it('lists the dependencies and dependants of an application', () => {
    expect(familyOf(gullwire, all)).toEqual({
      needs: ['Gullwire sign-in'],
      carries: ['TLS'],
      neededBy: [],
      carriedBy: [],
    });
    expect(familyOf(signIn, all).neededBy).toEqual(['Gullwire']);
    expect(familyOf(tls, all).carriedBy).toEqual(['Gullwire']);
  });
});
