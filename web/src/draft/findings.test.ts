import { describe, expect, it } from 'vitest';
import type { Rule } from '../api/types';
import { gravest, has, listed, longFinding, openHoles, shortFinding } from './findings';

const rule: Rule = { id: 'c', name: 'Kiosks', verdict: 'allow' };
const other: Rule = { id: 'b', name: 'Rest', verdict: 'drop' };
const numbers = new Map([
  ['a', 5],
  ['b', 11],
  ['c', 12],
]);
const byId = new Map([
  ['b', other],
  ['c', rule],
]);

describe('findings', () => {
  it('lists as people do', () => {
    expect(listed([])).toBe('');
    expect(listed([5])).toBe('5');
    expect(listed([5, 7, 11])).toBe('5, 7 and 11');
  });

  const shadowed = {
    kind: 'shadowed' as const,
    severity: 'error' as const,
    causes: ['a', 'b'],
    smallest: true,
    decidedBy: 'b',
    witness: 'tcp/443',
  };

  it('says who takes a shadowed rule and who decides the witness', () => {
    expect(shortFinding(shadowed, numbers)).toBe('shadowed by 5 and 11');
    expect(longFinding(rule, shadowed, numbers, byId)).toBe(
      'Rules 5 and 11 together take all of it. No fewer rules do. Rule 11 drops this connection before rule 12 can allow it.',
    );
  });

  it('describes an unmet need and the rules that refuse it', () => {
    const unmet = {
      kind: 'unmet-need' as const,
      severity: 'warning' as const,
      causes: ['a'],
      detail: 'Reel needs Reel sign-in',
      witness: 'tcp/443 application Reel: view',
    };
    expect(longFinding(rule, unmet, numbers, byId)).toBe(
      'Reel needs Reel sign-in, which rule 5 refuses to a source that this rule allows.',
    );
    expect(longFinding(rule, { ...unmet, causes: [] }, numbers, byId)).toContain('no rule allows');
    expect(gravest({ kind: 'decides', share: 1, uncertainty: 0, findings: [unmet] })).toBe(unmet);
  });

  it('says who would do the same without a rule', () => {
    const below = { kind: 'redundant-below' as const, severity: 'warning' as const, causes: ['b'] };
    expect(shortFinding(below, numbers)).toBe('redundant: 11 below does the same');
    expect(longFinding(rule, { ...below, causes: [] }, numbers, byId)).toContain('default rule');
  });

  it('tells the gravest finding on the strip, and no notes', () => {
    const note = { kind: 'correlated' as const, severity: 'note' as const, causes: ['a'] };
    const standing = { kind: 'covered' as const, share: 0, uncertainty: 0 };
    expect(gravest({ ...standing, findings: [note, shadowed] })?.kind).toBe('shadowed');
    expect(gravest({ ...standing, findings: [note] })).toBeUndefined();
    expect(has({ ...standing, findings: [note] }, 'correlated')).toBe(true);
    expect(has(undefined, 'correlated')).toBe(false);
  });

  it('opens all holes or none only where that is exact', () => {
    const decides = (share: number, uncertainty: number) =>
      openHoles({ kind: 'decides', share, uncertainty, findings: [] });
    expect(decides(1, 0)).toBe(10);
    expect(decides(1, 0.02)).toBe(9);
    expect(decides(0, 0.02)).toBe(1);
    expect(decides(0.52, 0.1)).toBe(5);
    expect(openHoles({ kind: 'covered', share: 0, uncertainty: 0, findings: [] })).toBe(0);
    expect(openHoles(undefined)).toBe(0);
  });
});
