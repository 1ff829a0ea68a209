import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft, Editioned } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Block, many, MAY_BE_MORE, Verdicts } from './Effects';

const THINGS = { application: ['application', 'applications'], person: ['person', 'people'] };

/** What another edition would change in the draft, before it is taken. */
export function EditionDialog({
  draft,
  of,
  edition,
  mayEdit,
  onClose,
  onRule,
}: {
  draft: Draft;
  of: Editioned;
  edition: string;
  mayEdit: boolean;
  onClose(): void;
  onRule(id: string): void;
}) {
  const [error, setError] = useState<unknown>(null);
  const { data: effect, error: failed } = useQuery({
    queryKey: ['effect', draft.id, draft.version, of, edition],
    queryFn: () => api.effectOfEdition(draft.id, of, edition),
    staleTime: Infinity,
  });
  const take = async () => {
    try {
      await api.takeEdition(draft.id, of, edition, draft.version);
      onClose();
    } catch (e) {
      setError(e);
    }
  };
  const unknown = effect?.rules.filter((rule) => rule.unknown.length > 0) ?? [];
  return (
    <Modal
      title={`${of === 'person' ? 'Snapshot' : 'Edition'} ${edition} instead of ${draft.editions[of]}`}
      onClose={onClose}
      wide
    >
      <Faults error={error ?? failed} />
      {!effect && !failed && <p role="status">Working out what it changes…</p>}
      {effect && (
        <>
          <Verdicts
            verdicts={effect.verdicts}
            open={
              effect.complete
                ? null
                : unknown.length
                  ? 'Not worked out while a rule says what the edition does not know.'
                  : MAY_BE_MORE
            }
          />
          <Block title={`${many(effect.rules.length, 'rule')} change their match`}>
            {effect.rules.map((rule) => (
              <li key={rule.id} className="py-1">
                <button
                  type="button"
                  onClick={() => onRule(rule.id)}
                  className="min-h-[24px] cursor-pointer text-left text-accent underline underline-offset-2"
                >
                  {rule.name}
                </button>{' '}
                {rule.unknown.length > 0 && (
                  <span className="text-drop">says {rule.unknown.join(', ')}, which is gone </span>
                )}
                <span className="text-dim">
                  {[
                    ...rule.gained.map((use) => `+${use}`),
                    ...rule.lost.map((use) => `−${use}`),
                  ].join(', ')}
                </span>
              </li>
            ))}
          </Block>
          <Block
            title={`${effect.added.length} ${THINGS[of][effect.added.length === 1 ? 0 : 1]} new, ${effect.removed.length} gone, ${Object.keys(effect.changed).length} changed`}
          >
            {effect.added.length > 0 && <li className="py-1">new: {effect.added.join(', ')}</li>}
            {effect.removed.length > 0 && (
              <li className="py-1">gone: {effect.removed.join(', ')}</li>
            )}
            {Object.entries(effect.changed).map(([name, what]) => (
              <li key={name} className="py-1">
                {name}: <span className="text-dim">{what.join('; ')}</span>
              </li>
            ))}
          </Block>
        </>
      )}
      <div className="mt-3 flex justify-end gap-2">
        <Button onClick={onClose}>Keep {draft.editions[of]}</Button>
        {mayEdit && (
          <Button main disabled={!effect || unknown.length > 0} onClick={() => void take()}>
            Take {edition} into the draft
          </Button>
        )}
      </div>
    </Modal>
  );
}
