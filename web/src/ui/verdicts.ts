import type { Verdict } from '../api/types';

export const letsThrough = (verdict: Verdict) => verdict === 'allow' || verdict === 'caution';

export const VERDICT_CLASS: Record<Verdict, string> = {
  allow: 'text-allow',
  drop: 'text-drop',
  reject: 'text-reject',
  caution: 'text-caution',
};

/** The length of a hold: "15 min", "4 h". */
export const holdWords = (minutes: number) =>
  minutes % 60 === 0 ? `${minutes / 60} h` : `${minutes} min`;
