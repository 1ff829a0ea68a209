import { describe, expect, it } from 'vitest';
import type { Rule } from '../api/types';
import type { RuleActions } from './actions';
import { menuCommands, RULE_COMMANDS, ruleCommand, type RuleView } from './commands';
import { navigate } from './keys';

const RULE = { id: 'r', name: 'R', verdict: 'allow' } as Rule;

const key = (name: string, held: Partial<KeyboardEvent> = {}) => ({
  key: name,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  shiftKey: false,
  ...held,
});

/** Records every call of a method as a line. */
const recorder = <T extends object>(done: string[]) =>
  new Proxy({} as T, {
    get:
      (_, name) =>
      (...args: unknown[]) =>
        done.push([String(name), ...args].join(' ')),
  });

function press(name: string, held: Partial<KeyboardEvent> = {}, mayEdit = true): string[] {
  const done: string[] = [];
  ruleCommand(key(name, held), mayEdit)?.run(
    RULE,
    recorder<RuleActions>(done),
    recorder<RuleView>(done),
  );
  return done;
}

describe('keys on a rule', () => {
  it('go through the list', () => {
    const gone: number[] = [];
    const list = { page: 10, at: 20, last: 99, go: (to: number) => gone.push(to) };
    for (const name of ['ArrowDown', 'ArrowUp', 'PageUp', 'PageDown', 'End', 'Home']) {
      expect(navigate(key(name), list)).toBe(true);
    }
    expect(gone).toEqual([21, 19, 10, 30, 99, 0]);
    expect(navigate(key('ArrowDown', { altKey: true }), list)).toBe(false);
    expect(navigate(key('x'), list)).toBe(false);
  });

  it('run commands on the rule in focus', () => {
    expect(press('Enter', { ctrlKey: true })).toEqual(['insert below r']);
    expect(press('Enter', { ctrlKey: true, shiftKey: true })).toEqual(['insert above r']);
    expect(press('ArrowDown', { altKey: true, shiftKey: true })).toEqual(['clone r']);
    expect(press('ArrowUp', { altKey: true })).toEqual(['step r -1']);
    expect(press('End', { altKey: true })).toEqual(['moveToEdge r bottom']);
    expect(press('/', { ctrlKey: true })).toEqual(['toggle r']);
    expect(press('Delete')).toEqual(['remove r']);
    expect(press('o')).toEqual(['observe r']);
    expect(press('l')).toEqual(['showLog r']);
    expect(press('F2')).toEqual(['startEdit r name']);
    expect(press('s')).toEqual(['startEdit r for']);
    expect(press('v')).toEqual(['focusVerdict r']);
    expect(press('w')).toEqual(['probeWitness r']);
  });

  it('change nothing for people who only view', () => {
    for (const name of ['Enter', 'Delete', 'o', 'f', 't', 's', 'v', 'm']) {
      expect(press(name, {}, false)).toEqual([]);
    }
    expect(press('ArrowUp', { altKey: true }, false)).toEqual([]);
    expect(press('w', {}, false)).toEqual(['probeWitness r']);
    expect(press('l', {}, false)).toEqual(['showLog r']);
  });

  it('leave other keys to the browser', () => {
    expect(press('x')).toEqual([]);
    expect(press('f', { ctrlKey: true })).toEqual([]);
  });

  it('belong to one command each', () => {
    const all = RULE_COMMANDS.flatMap(({ keys }) => keys);
    expect(new Set(all).size).toBe(all.length);
  });

  it('stand in the menu, where a command depends on the rule', () => {
    const words = (rule: Rule) => menuCommands(rule, 'rule').map((c) => c.words(rule));
    expect(words(RULE)).toContain('Disable');
    expect(words({ ...RULE, enabled: false })).toContain('Enable');
    expect(words(RULE)).not.toContain('For any connection');
    expect(words({ ...RULE, unfinished: true })).toContain('For any connection');
  });
});
