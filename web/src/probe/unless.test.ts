import { describe, expect, it } from 'vitest';
import type { Rule } from '../api/types';
import { conditionOf, partWord } from './unless';

const rule = {
  id: 'r',
  name: 'R',
  verdict: 'allow',
  terms: { person: { items: ['ann', 'ben', 'cat', 'dot'], except: ['eve'] } },
  services: { items: ['tcp/443'] },
} as unknown as Rule;

describe('what a decision depends on', () => {
  it('says the items that the rule asks for, and how many more there are', () => {
    const unless = {
      verdict: 'allow' as const,
      rule: 'r',
      parts: ['person', 'services'],
      line: '',
    };
    expect(conditionOf(unless, rule)).toBe('person ann, ben, cat +1 not eve · service tcp/443');
  });

  it('is empty for a rule that asks for nothing that was left unsaid', () => {
    expect(conditionOf({ verdict: 'drop', parts: [], line: '' }, undefined)).toBe('');
  });

  it('names parts as engineers do', () => {
    expect(partWord('fromZones')).toBe('source zone');
    expect(partWord('device')).toBe('device');
  });
});
