import { useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../api/client';
import type { Draft, Rule, RuleHits } from '../api/types';
import { useSettled } from '../ui/useSettled';
import {
  askedKey,
  askedOf,
  fits,
  parseFilter,
  sameText,
  type AskedField,
  type RuleFilter,
} from './ruleFilter';

/** The ids of the rules that match what a field asks for. */
async function find(draft: Draft, field: AskedField, value: string, signal: AbortSignal) {
  switch (field) {
    case 'touches':
      return (await api.rulesWith(draft.id, 'address', value, signal)).rules;
    case 'service':
      return (await api.rulesWith(draft.id, 'service', value, signal)).rules;
    case 'person':
      return (await api.rulesOfPerson(draft.id, value, signal)).rules.map((rule) => rule.id ?? '');
    case 'application':
      return (await api.rulesOfApplication(draft.id, value, signal)).rules.map(
        (rule) => rule.id ?? '',
      );
  }
}

export interface UsedFilter {
  filter: RuleFilter;
  /** Whether a rule is shown; nothing if every rule is. */
  shows: ((rule: Rule, number: number) => boolean) | null;
  /** What is wrong with the filter or with an answer, in a sentence. */
  fault: string | null;
}

/**
 * A filter with the answers that it needs from the server.
 *
 * @param past whether the rules are those of a revision
 */
export function useRuleFilter(
  draft: Draft,
  text: string,
  hits: Map<string, RuleHits> | undefined,
  past = false,
): UsedFilter {
  const filter = useMemo(() => parseFilter(text), [text]);
  const settled = useSettled(filter);
  const questions = useMemo(() => (past ? [] : askedOf(settled)), [settled, past]);
  const pastFault =
    past && askedOf(filter).length > 0
      ? `"${askedOf(filter)[0]!.field}" can be asked of the draft only.`
      : null;
  const revisions = useMemo(
    () => [
      ...new Set(
        filter.terms.flatMap((term) =>
          term.field === 'changed' ? [term.revision ?? draft.revision] : [],
        ),
      ),
    ],
    [filter, draft.revision],
  );
  const found = useQueries({
    queries: questions.map(({ field, value }) => ({
      queryKey: ['rules with', draft.id, draft.version, field, value],
      queryFn: ({ signal }: { signal: AbortSignal }) => find(draft, field, value, signal),
      staleTime: Infinity,
      retry: false,
    })),
    combine: (results) => ({
      data: results.map((one) => one.data),
      error: results.find((one) => one.error)?.error ?? null,
    }),
  });
  const earlier = useQueries({
    queries: revisions.map((number) => ({
      queryKey: ['revision document', draft.id, number],
      queryFn: () => api.revision(draft.id, number),
      staleTime: Infinity,
      retry: false,
    })),
    combine: (results) => ({
      data: results.map((one) => one.data),
      error: results.find((one) => one.error)?.error ?? null,
    }),
  });
  const shows = useMemo(() => {
    if (!filter.terms.length) return null;
    const asked = new Map<string, Set<string>>();
    questions.forEach(({ field, value }, i) => {
      const ids = found.data[i];
      if (ids) asked.set(askedKey(field, value), new Set(ids));
    });
    const before = new Map<number, Map<string, string>>();
    revisions.forEach((number, i) => {
      const document = earlier.data[i];
      if (!document) return;
      const rules = (document.sections ?? []).flatMap((section) => section.rules ?? []) as Rule[];
      const texts = new Map(rules.map((rule) => [rule.id, sameText(rule)]));
      before.set(number, texts);
      if (number === draft.revision) before.set(0, texts);
    });
    const context = {
      standings: draft.standings,
      hits,
      now: new Date(),
      asked,
      revisions: before,
    };
    return (rule: Rule, number: number) => fits(filter, rule, number, context);
  }, [filter, questions, revisions, found.data, earlier.data, draft, hits]);
  return {
    filter,
    shows,
    fault: filter.fault ?? pastFault ?? found.error?.message ?? earlier.error?.message ?? null,
  };
}
