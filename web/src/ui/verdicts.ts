import type { Verdict } from '../api/types';

export const letsThrough = (verdict: Verdict) => verdict === 'allow' || verdict === 'caution';

export const VERDICT_CLASS: Record<Verdict, string> = {
  allow: 'text-allow',
  drop: 'text-drop',
  reject: 'text-reject',
  caution: 'text-caution',
};
