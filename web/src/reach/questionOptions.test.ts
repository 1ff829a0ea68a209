import { describe, expect, it } from 'vitest';
import type { Draft } from '../api/types';
import { namesAt, questionOptions } from './questionOptions';

const draft = {
  zones: [{ name: 'offices' }, { name: 'datacentre' }],
  addresses: [{ name: 'Print servers' }],
  services: [{ name: 'Secure web' }],
} as Draft;
const texts = (line: string, names: string[] = []) =>
  questionOptions(draft, line, names).options.map((option) => option.text);

describe('completions of a question', () => {
  it('begin with the ways to ask', () => {
    expect(texts('')[0]).toBe('who can reach');
    expect(texts('wh')).toContain('what decides between');
  });

  it('offer zones, names and objects at an end', () => {
    expect(texts('who can reach ')).toEqual(['offices', 'datacentre', '"Print servers"']);
    expect(texts('from o', ['crew'])[0]).toBe('offices');
    expect(texts('what can ', ['finance'])).toContain('finance');
    expect(texts('from in ')).toEqual(['offices', 'datacentre']);
    expect(texts('service s')).toEqual(['"Secure web"']);
  });

  it('go on with the words that are missing, and clauses', () => {
    expect(texts('what decides between offices ')[0]).toBe('and');
    expect(texts('what can offices ')[0]).toBe('reach');
    expect(texts('who but finance ')[0]).toBe('can reach');
    expect(texts('who can reach offices fr')).toEqual(['from']);
    expect(texts('from offices, not ')).toContain('datacentre');
  });

  it('ask the server for names of the kind that fits', () => {
    expect(namesAt('who can reach S')).toEqual(['application', 'site']);
    expect(namesAt('from offices person r')).toEqual(['person']);
    expect(namesAt('from offices ')).toEqual([]);
  });
});
