import { useMutation, useQuery } from '@tanstack/react-query';
import type { Draft, EditionEffect } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Block, Flips, many, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import { Working } from '../ui/QuestionProgress';

/** An edition that is compared with the one in the draft. */
export interface Compared {
  /** What it is an edition of. */
  of: string;
  /** "Edition" or "Snapshot". */
  word: string;
  edition: string;
  /** The edition in the draft. */
  had: string;
  /** What is in it, one and several. */
  things: [string, string];
  /** Whether it can be taken; not one that waits for a person. */
  mayTake: boolean;
  effect(signal: AbortSignal): Promise<EditionEffect>;
  take(): Promise<unknown>;
}

/** What another edition would change in the draft, before it is taken. */
export function EditionDialog({
  draft,
  compared,
  mayEdit,
  onClose,
  onRule,
}: {
  draft: Draft;
  compared: Compared;
  mayEdit: boolean;
  onClose(): void;
  onRule(id: string): void;
}) {
  const { data: effect, error: failed } = useQuery({
    queryKey: ['effect', draft.id, draft.version, compared.of, compared.edition],
    queryFn: ({ signal }) => compared.effect(signal),
    staleTime: Infinity,
  });
  const adoption = useMutation({ mutationFn: () => compared.take(), onSuccess: onClose });
  const unknown = effect?.rules.filter((rule) => rule.unknown.length > 0) ?? [];
  return (
    <Modal
      title={`${compared.word} ${compared.edition} instead of ${compared.had}`}
      onClose={onClose}
      wide
    >
      <Faults error={adoption.error ?? failed} />
      {!effect && !failed && <Working on="What it changes" />}
      {effect && (
        <>
          <Verdicts
            verdicts={effect.verdicts}
            open={
              effect.complete
                ? null
                : unknown.length
                  ? 'Not computed while a rule uses a name that the edition does not have.'
                  : MAY_BE_MORE
            }
          />
          <Flips flips={effect.checks} of={draft.checks.length} />
          <Block
            title={
              effect.rules.length === 1
                ? '1 rule changes its match'
                : `${effect.rules.length} rules change their match`
            }
          >
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
                  <span className="text-drop">
                    uses {rule.unknown.join(', ')}, which the edition does not have{' '}
                  </span>
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
          {effect.recognised.length > 0 && (
            <Block
              title={`${many(effect.recognised.length, 'connection')} of the captures ${effect.recognised.length === 1 ? 'is' : 'are'} classified differently`}
            >
              {effect.recognised.map((told, i) => (
                <li key={i} className="py-1">
                  <b>
                    {told.before ?? 'unidentified'} becomes {told.after ?? 'unidentified'}
                  </b>{' '}
                  <span className="text-dim">{told.capture}</span>
                  <span className="block font-mono text-[12px]">
                    from {told.from} to {told.to} {told.service}
                  </span>
                </li>
              ))}
            </Block>
          )}
          <Block
            title={`${effect.added.length} ${compared.things[effect.added.length === 1 ? 0 : 1]} new, ${effect.removed.length} gone, ${Object.keys(effect.changed).length} changed`}
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
      <div className="sticky -bottom-4 -mb-4 flex justify-end gap-2 bg-sheet py-3">
        <Button onClick={onClose}>Keep {compared.had}</Button>
        {mayEdit && compared.mayTake && (
          <Button main disabled={!effect || unknown.length > 0} onClick={() => adoption.mutate()}>
            Adopt {compared.edition} in the draft
          </Button>
        )}
      </div>
    </Modal>
  );
}
