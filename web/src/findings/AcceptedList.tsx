import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from '../api/client';
import type { AcceptedFinding, Draft, Rule } from '../api/types';
import { FINDING_WORDS, type FindingKind } from '../draft/findings';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';

/** The accepted findings of a draft, each with its reason. */
export function AcceptedList({
  accepted,
  draft,
  numbers,
  byId,
  mayEdit,
  onRule,
}: {
  accepted: AcceptedFinding[];
  draft: Draft;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  onRule(id: string): void;
}) {
  const queries = useQueryClient();
  const withdraw = useMutation({
    mutationFn: ({ rule, kind }: AcceptedFinding) => api.withdrawAccepted(draft.id, rule, kind),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['accepted', draft.id] }),
  });
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-paper">
      <Faults error={withdraw.error} />
      <ul>
        {accepted.map((one) => (
          <li
            key={`${one.rule} ${one.kind}`}
            className="flex items-start gap-3 border-b border-line px-4 py-2"
          >
            <span className="w-[30px] shrink-0 text-right text-dim">{numbers.get(one.rule)}</span>
            <div className="min-w-0 flex-1">
              <button
                type="button"
                onClick={() => onRule(one.rule)}
                className="max-w-full cursor-pointer truncate font-semibold hover:underline"
              >
                {byId.get(one.rule)?.name ?? one.rule}
              </button>
              <span className="pl-2 text-[12px] text-dim">
                {FINDING_WORDS[one.kind as FindingKind] ?? one.kind}
              </span>
              <p className="break-words whitespace-pre-wrap">{one.reason}</p>
              <p className="text-[12px] text-dim">
                accepted by {one.by} on {new Date(one.at).toLocaleDateString()}
                {one.askAgain && ` · asked again on ${new Date(one.askAgain).toLocaleDateString()}`}
              </p>
            </div>
            {mayEdit && (
              <Button small disabled={withdraw.isPending} onClick={() => withdraw.mutate(one)}>
                Count it again
              </Button>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
