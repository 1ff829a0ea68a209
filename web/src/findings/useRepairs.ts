import { useQueries, useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, Edit, EditEffect } from '../api/types';
import { originsOf } from '../draft/applyEdit';
import { listed, MENDABLE } from '../draft/findings';
import type { Cause } from './causes';

/** One way out, with its effect once that is known. */
export interface Way {
  summary: string;
  edit: Edit;
  effect: EditEffect | undefined;
}

/** The edits that mend several findings of one cause at once. */
function editsOf(cause: Cause, draft: Draft, numbers: Map<string, number>): Omit<Way, 'effect'>[] {
  const origins = originsOf(draft);
  const own = cause.found.filter((one) => !origins.has(one.rule.id));
  if (own.length < 2 || !cause.key.startsWith('taken by')) return [];
  const ids = own.map((one) => one.rule.id);
  const these = listed(ids.map((id) => numbers.get(id) ?? '?'));
  const first = cause.causes[0];
  const out: Omit<Way, 'effect'>[] = [];
  const shadowed = own.filter((one) => one.finding.kind === 'shadowed').map((one) => one.rule.id);
  if (first && !origins.has(first.id) && shadowed.length > 0) {
    out.push({
      summary: `Move ${listed(shadowed.map((id) => numbers.get(id) ?? '?'))} above ${numbers.get(first.id)}`,
      edit: { kind: 'moveRules', ids: shadowed, place: { above: first.id } },
    });
  }
  out.push({ summary: `Delete ${these}`, edit: { kind: 'deleteRules', ids } });
  return out;
}

/** The ways to remove the findings of one cause; nothing until they are known. */
export function useRepairs(
  cause: Cause,
  draft: Draft,
  numbers: Map<string, number>,
  mayEdit: boolean,
): { ways: Way[] | undefined; error: Error | null } {
  const { rule, finding } = cause.found[0]!;
  const joint = mayEdit ? editsOf(cause, draft, numbers) : [];
  const alone = mayEdit && joint.length === 0 && MENDABLE.has(finding.kind);
  const repairs = useQuery({
    queryKey: ['repairs', draft.id, draft.version, rule.id, finding.kind],
    queryFn: ({ signal }) => api.repairs(draft.id, rule.id, finding.kind, signal),
    enabled: alone,
    staleTime: Infinity,
  });
  const effects = useQueries({
    queries: joint.map(({ edit }) => ({
      queryKey: ['effect', draft.id, draft.version, edit],
      queryFn: ({ signal }: { signal: AbortSignal }) => api.effect(draft.id, edit, signal),
      staleTime: Infinity,
    })),
  });
  if (!alone) {
    return {
      ways: joint.map((way, i) => ({ ...way, effect: effects[i]?.data })),
      error: effects.find((one) => one.error)?.error ?? null,
    };
  }
  const many = cause.found.length > 1 ? `Rule ${numbers.get(rule.id)}: ` : '';
  return {
    ways: repairs.data?.map((way) => ({
      summary: many + way.summary,
      edit: way.edit,
      effect: { verdicts: way.verdicts, complete: way.complete, checks: way.checks },
    })),
    error: repairs.error,
  };
}
