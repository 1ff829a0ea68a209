import { describe, expect, it } from 'vitest';
import type { PersonEntry, Rule } from '../api/types';
import { saidOf } from './people';

const ben: PersonEntry = {
  id: 'ben.holm',
  name: 'Ben Holm',
  attributes: { title: ['clerk'] },
  groups: [
    { name: 'help desk', through: [] },
    { name: 'IT', through: ['help desk'] },
  ],
};

const asking = (...items: string[]): Rule => ({
  id: 'r',
  name: 'R',
  verdict: 'allow',
  terms: { person: { items } },
});

describe('the items of a rule that mention a person', () => {
  it('is their name, their groups near and far, and what the directory says of them', () => {
    expect(
      saidOf(ben, asking('ben holm', 'it', 'finance', 'title is clerk', 'title is set')),
    ).toEqual(['ben holm', 'it', 'title is clerk', 'title is set']);
    expect(saidOf(ben, asking('any signed in'))).toEqual(['any signed in']);
  });

  it('is nothing where the rule asks for nobody or for others', () => {
    expect(saidOf(ben, { id: 'r', name: 'R', verdict: 'drop' })).toEqual([]);
    expect(saidOf(ben, asking('Maya Lind'))).toEqual([]);
  });
});
