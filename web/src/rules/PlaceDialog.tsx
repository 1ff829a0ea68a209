import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft, Edit, Placement, Rule } from '../api/types';
import { Flips, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import type { DraftHandle } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Modal } from '../ui/Modal';
import { Working } from '../ui/QuestionProgress';
import { ownPlaces, placeOf, quietPlaces } from './placement';

interface Choice {
  name: string;
  why: string;
  /** Among the other rules. */
  place: number;
}

/** The places that are worth a look, each once, without the one where the rule stands. */
function choicesOf(draft: Draft, rule: Rule, placement: Placement): Choice[] {
  const { first, last } = ownPlaces(draft, rule.id);
  const { highest, lowest } = quietPlaces(placement);
  const shadowed = draft.standings[rule.id]?.findings.find((one) => one.kind === 'shadowed');
  const above = placement.blocking.find((one) => shadowed?.causes.includes(one.rule));
  const all: Choice[] = [
    {
      name: 'Where it decides everything that it matches',
      why: 'above every rule that matches any of its connections',
      place: placement.decidesAll,
    },
    ...(above
      ? [
          {
            name: 'Right above the rule that takes it',
            why: 'above the first cause of its finding that has another verdict',
            place: above.position,
          },
        ]
      : []),
    {
      name: 'The highest quiet place',
      why: 'as high as it can go without changing a verdict',
      place: highest,
    },
    {
      name: 'The lowest quiet place',
      why: 'as low as it can go without changing a verdict',
      place: lowest,
    },
  ];
  const seen = new Set([placement.place]);
  return all
    .map((one) => ({ ...one, place: Math.min(last, Math.max(first, one.place)) }))
    .filter((one) => !seen.has(one.place) && seen.add(one.place));
}

/** Where a rule could stand, each place with its effect, before it is moved. */
export default function PlaceDialog({
  rule,
  number,
  handle,
  onClose,
}: {
  rule: Rule;
  number: number;
  handle: DraftHandle;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const [chosen, setChosen] = useState(0);
  const { data: placement, error } = useQuery({
    queryKey: ['placement', draft.id, draft.version, rule.id],
    queryFn: ({ signal }) => api.placement(draft.id, rule.id, signal),
    staleTime: Infinity,
  });
  const choices = placement ? choicesOf(draft, rule, placement) : [];
  const choice = choices[chosen];
  const edit: Edit | null = choice
    ? { kind: 'moveRules', ids: [rule.id], place: placeOf(draft, rule.id, choice.place) }
    : null;
  const effect = useQuery({
    queryKey: ['effect', draft.id, draft.version, edit],
    queryFn: ({ signal }) => api.effect(draft.id, edit!, signal),
    enabled: edit !== null,
    staleTime: Infinity,
  });
  const move = useMutation({
    mutationFn: async () => {
      const problem = await handle.edit(edit!, draft.version);
      if (problem) throw problem;
    },
    onSuccess: onClose,
  });
  return (
    <Modal title={`Place rule ${number}, “${rule.name}”`} onClose={onClose} wide>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (edit && !move.isPending) move.mutate();
        }}
      >
        <Faults error={move.error ?? error ?? effect.error} />
        {!placement && !error && <Working on="What each place would change" />}
        {placement && choices.length === 0 && (
          <p className="mb-3 text-dim">
            It decides everything that it matches, and stands at the highest and the lowest quiet
            place.
          </p>
        )}
        {placement && !placement.complete && (
          <p className="mb-2 text-caution">
            Analysis limit reached: a place called quiet may not be.
          </p>
        )}
        <div role="radiogroup" aria-label="Place" className="mb-3">
          {choices.map((one, i) => (
            <label key={one.place} className="flex cursor-pointer items-baseline gap-2 py-1">
              <input
                type="radio"
                name="place"
                autoFocus={i === 0}
                checked={i === chosen}
                onChange={() => setChosen(i)}
              />
              <span>
                <b>{one.name}</b>: number {one.place + 1}
                <span className="block text-[12px] text-dim">{one.why}</span>
              </span>
            </label>
          ))}
        </div>
        {choice && effect.data && (
          <section aria-label="Effect" className="border-t border-line pt-3">
            {effect.data.verdicts.length === 0 && effect.data.complete ? (
              <p className="mb-3 text-dim">Quiet: no connection gets another verdict.</p>
            ) : (
              <Verdicts
                verdicts={effect.data.verdicts}
                open={effect.data.complete ? null : MAY_BE_MORE}
              />
            )}
            <Flips flips={effect.data.checks} of={draft.checks.length} />
          </section>
        )}
        {choice && effect.isFetching && <Working on="What it would change" />}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{choice ? 'Cancel' : 'Close'}</Button>
          {choice && (
            <Button main type="submit" disabled={move.isPending}>
              Move to {choice.place + 1}
            </Button>
          )}
        </div>
      </form>
    </Modal>
  );
}
