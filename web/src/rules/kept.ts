import type { Rule } from '../api/types';
import type { Kept } from './actions';

export type KeptField = keyof Kept;

/** What people keep about a rule as text for fields. */
export function keptOf(rule: Rule): Record<KeptField, string> {
  return {
    owner: rule.owner ?? '',
    ticket: rule.ticket ?? '',
    tags: (rule.tags ?? []).join(', '),
    start: rule.start ?? '',
    end: rule.end ?? '',
  };
}

/** What people keep about a rule with another text in one field; an empty one takes it away. */
export function withField(rule: Rule, field: KeptField, text: string): Kept {
  const { owner, ticket, tags, start, end } = rule;
  const now: Kept = { owner, ticket, tags, start, end };
  if (field === 'tags') {
    const words = text
      .split(',')
      .map((word) => word.trim())
      .filter(Boolean);
    return { ...now, tags: words.length ? words : undefined };
  }
  return { ...now, [field]: text.trim() || undefined };
}
