import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client';
import type { Draft, Rule, RulePair } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Working } from '../ui/QuestionProgress';

type Part = RulePair['shared'][number];

/** What two rules share, and what each matches alone, each part with a witness. */
export default function PairDialog({
  pair,
  draft,
  numbers,
  byId,
  onProbe,
  onClose,
}: {
  pair: [string, string];
  draft: Draft;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onProbe(line: string): void;
  onClose(): void;
}) {
  const { data, error } = useQuery({
    queryKey: ['beside', draft.id, draft.version, ...pair],
    queryFn: ({ signal }) => api.beside(draft.id, pair[0], pair[1], signal),
    staleTime: Infinity,
  });
  const nameOf = (id: string) => `${numbers.get(id)} ${byId.get(id)?.name ?? ''}`;
  const parts = (title: string, none: string, list: Part[]) => (
    <section aria-label={title} className="mb-3 border-t border-line pt-2">
      <h3 className="font-semibold">{title}</h3>
      {list.length === 0 && <p className="text-dim">{none}</p>}
      <ul className="max-h-[190px] divide-y divide-line overflow-auto" tabIndex={0}>
        {list.map((part) => (
          <li key={part.witness + part.what.join()} className="py-1">
            <span>{part.what.join(' · ') || 'any connection'}</span>
            <span className="block font-mono text-[12px] break-words text-dim">
              {part.witness}{' '}
              <Button
                small
                className="font-sans"
                onClick={() => {
                  onProbe(part.witness);
                  onClose();
                }}
              >
                Probe
              </Button>
            </span>
            <span className="block text-[12px] text-dim">
              {part.rule
                ? `decided by ${nameOf(part.rule)}: ${part.verdict}`
                : 'dropped by the default rule'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
  const upper = data && byId.get(data.upper);
  const lower = data && byId.get(data.lower);
  return (
    <Modal title="Two rules side by side" onClose={onClose} wide>
      <Faults error={error} />
      {!data && !error && <Working on="What they share" />}
      {data && upper && lower && (
        <>
          <p className="mb-3">
            <b>{nameOf(upper.id)}</b> ({upper.verdict}) stands above <b>{nameOf(lower.id)}</b> (
            {lower.verdict}){data.shared.length > 0 && ', so it wins where both match'}.
          </p>
          {parts('Both match', 'Nothing: the order of the two does not matter.', data.shared)}
          {parts(`Only ${numbers.get(upper.id)} matches`, 'Nothing.', data.upperAlone)}
          {parts(
            `Only ${numbers.get(lower.id)} matches`,
            `Nothing: ${numbers.get(upper.id)} matches all that it does.`,
            data.lowerAlone,
          )}
          {!data.complete && <p className="mb-2 text-dim">There are more parts than are shown.</p>}
        </>
      )}
      <div className="flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Modal>
  );
}
