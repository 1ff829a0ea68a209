import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../api/client';
import type { Rule } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Working } from '../ui/QuestionProgress';
import AddChecks, { type NewChecks } from './AddChecks';

/** The checks that notice every single mistake in some rules, before they are added. */
export default function RuleChecks({
  rules,
  handle,
  numbers,
  byId,
  onClose,
}: {
  rules: string[];
  handle: DraftHandle;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const { data, error } = useQuery({
    queryKey: ['suggested checks', draft.id, draft.version, rules],
    queryFn: () => api.suggestedChecks(draft.id, rules),
    staleTime: Infinity,
  });
  const title =
    rules.length === 1
      ? `Checks for rule ${numbers.get(rules[0]!) ?? '?'}`
      : `Checks for ${rules.length} rules`;
  const name = (byId.get(rules[0]!)?.name ?? 'Rule').slice(0, 80);
  const from: NewChecks = useMemo(
    () => ({
      title,
      rows: (data?.checks ?? []).map((check, i) => ({
        name: `${name}, case ${i + 1}`,
        connection: check.line,
        expected: check.verdict,
        group: name,
      })),
    }),
    [data, title, name],
  );
  if (data && data.checks.length > 0) {
    return <AddChecks from={from} handle={handle} numbers={numbers} onClose={onClose} />;
  }
  return (
    <Modal title={title} onClose={onClose} wide>
      <Faults error={error} />
      {!data && !error && <Working on="The connections that would notice a mistake" />}
      {data && (
        <p className="mb-3 text-dim">
          No mistake in {rules.length === 1 ? 'this rule' : 'these rules'} changes a verdict, so
          there is nothing to check.
        </p>
      )}
      <div className="flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Modal>
  );
}
