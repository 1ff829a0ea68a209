import { describe, expect, it, vi } from 'vitest';
import type { RuleActions } from './actions';
import { ruleKey, type KeyContext } from './keys';

function press(key: string, more: Partial<KeyboardEvent> = {}, context: Partial<KeyContext> = {}) {
  const done: string[] = [];
  const actions = new Proxy({} as RuleActions, {
    get:
      (_, name) =>
      (...args: unknown[]) =>
        done.push([String(name), ...args].join(' ')),
  });
  const handled = ruleKey(
    { key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more },
    {
      focus: 'r',
      mayEdit: true,
      page: 10,
      at: 20,
      last: 99,
      go: (to) => done.push(`go ${to}`),
      actions,
      openVerdict: (id) => done.push(`verdict ${id}`),
      openMenu: (id) => done.push(`menu ${id}`),
      witness: (id) => done.push(`witness ${id}`),
      ...context,
    },
  );
  return { handled, done };
}

describe('keys on a rule', () => {
  it('go through the list', () => {
    expect(press('ArrowDown').done).toEqual(['go 21']);
    expect(press('PageUp').done).toEqual(['go 10']);
    expect(press('End').done).toEqual(['go 99']);
    expect(press('Home').done).toEqual(['go 0']);
  });

  it('act on the rule in focus', () => {
    expect(press('Enter', { ctrlKey: true }).done).toEqual(['insert below r']);
    expect(press('Enter', { ctrlKey: true, shiftKey: true }).done).toEqual(['insert above r']);
    expect(press('ArrowDown', { altKey: true, shiftKey: true }).done).toEqual(['clone r']);
    expect(press('ArrowUp', { altKey: true }).done).toEqual(['step r -1']);
    expect(press('End', { altKey: true }).done).toEqual(['moveToEdge r bottom']);
    expect(press('/', { ctrlKey: true }).done).toEqual(['toggle r']);
    expect(press('Delete').done).toEqual(['remove r']);
    expect(press('F2').done).toEqual(['startEdit r name']);
    expect(press('s').done).toEqual(['startEdit r for']);
  });

  it('change nothing for those who may only look', () => {
    for (const key of ['Enter', 'Delete', 'f', 't', 's', 'v', 'm']) {
      expect(press(key, {}, { mayEdit: false })).toEqual({ handled: false, done: [] });
    }
    expect(press('ArrowUp', { altKey: true }, { mayEdit: false }).done).toEqual([]);
    expect(press('w', {}, { mayEdit: false }).done).toEqual(['witness r']);
  });

  it('leave to the browser what they do not mean', () => {
    expect(press('x').handled).toBe(false);
    expect(press('f', { ctrlKey: true }).handled).toBe(false);
    const spy = vi.fn();
    expect(press('Delete', {}, { focus: null, go: spy }).handled).toBe(false);
    expect(spy).not.toHaveBeenCalled();
  });
});
