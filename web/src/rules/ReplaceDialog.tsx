import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft, Edit, Rule } from '../api/types';
import type { CriterionName } from '../draft/criteria';
import { Flips, many, MAY_BE_MORE, Verdicts } from '../draft/Effects';
import type { DraftHandle } from '../draft/useDraft';
import { Faults } from '../ui/Faults';
import { FormDialog } from '../ui/FormDialog';
import { Working } from '../ui/QuestionProgress';
import { added, CRITERION_WORDS, replaced, usedChips } from './replaceChip';

type How = 'replace' | 'remove' | 'add';

const CRITERIA = Object.keys(CRITERION_WORDS) as CriterionName[];
const LABEL = 'mb-3 block text-[12px] text-dim';
const BOX = 'mt-1 block w-full rounded border border-dim bg-sheet px-2 py-1 text-[13px] text-ink';

/** Names of the draft that a criterion may have. */
function namesOf(draft: Draft, criterion: CriterionName): string[] {
  switch (criterion) {
    case 'fromZones':
    case 'toZones':
      return draft.zones.map((zone) => zone.name);
    case 'fromAddresses':
    case 'toAddresses':
      return draft.addresses.map((object) => object.name);
    case 'services':
      return draft.services.map((object) => object.name);
    default:
      return [];
  }
}

/** Replaces, removes or adds one chip in several rules, with its effect before it is applied. */
export default function ReplaceDialog({
  rules,
  handle,
  onClose,
}: {
  rules: Rule[];
  handle: DraftHandle;
  onClose(): void;
}) {
  const draft = handle.draft!;
  const chips = usedChips(rules);
  const [how, setHow] = useState<How>(chips.length ? 'replace' : 'add');
  const [at, setAt] = useState(0);
  const [criterion, setCriterion] = useState<CriterionName>('fromAddresses');
  const [text, setText] = useState('');
  const said = text.trim();
  const chip = chips[at];
  const changed =
    how === 'add'
      ? said
        ? added(rules, { criterion, text: said, except: false })
        : []
      : chip && (how === 'remove' || said)
        ? replaced(rules, chip, how === 'remove' ? null : said)
        : [];
  const edit: Edit | null = changed.length ? { kind: 'replaceRules', rules: changed } : null;
  const effect = useQuery({
    queryKey: ['effect', draft.id, draft.version, edit],
    queryFn: ({ signal }) => api.effect(draft.id, edit!, signal),
    enabled: edit !== null,
    staleTime: Infinity,
    retry: false,
  });
  const names = namesOf(draft, how === 'add' ? criterion : (chip?.criterion ?? 'time'));
  return (
    <FormDialog
      title={`Chips of ${many(rules.length, 'selected rule')}`}
      save={edit ? `Change ${many(changed.length, 'rule')}` : 'Change'}
      wide
      onSave={async () => (edit ? handle.edit(edit, draft.version) : null)}
      onClose={onClose}
    >
      <div role="radiogroup" aria-label="What to do" className="mb-3 flex gap-4">
        {(['replace', 'remove', 'add'] as const).map((one) => (
          <label key={one} className="flex cursor-pointer items-center gap-1">
            <input
              type="radio"
              name="how"
              autoFocus={one === how}
              disabled={one !== 'add' && chips.length === 0}
              checked={one === how}
              onChange={() => setHow(one)}
            />
            {one}
          </label>
        ))}
      </div>
      {how === 'add' ? (
        <label className={LABEL}>
          Criterion
          <select
            value={criterion}
            onChange={(e) => setCriterion(e.target.value as CriterionName)}
            className={BOX}
          >
            {CRITERIA.map((one) => (
              <option key={one} value={one}>
                {CRITERION_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
      ) : (
        <label className={LABEL}>
          Chip
          <select value={at} onChange={(e) => setAt(Number(e.target.value))} className={BOX}>
            {chips.map((one, i) => (
              <option key={i} value={i}>
                {one.except ? 'not ' : ''}
                {one.text}: {CRITERION_WORDS[one.criterion]} in {many(one.rules, 'rule')}
              </option>
            ))}
          </select>
        </label>
      )}
      {how !== 'remove' && (
        <label className={LABEL}>
          {how === 'add' ? 'What to add' : 'Replace it by'}
          <input
            value={text}
            maxLength={200}
            list="chip-names"
            onChange={(e) => setText(e.target.value)}
            className={BOX}
          />
          <datalist id="chip-names">
            {names.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </label>
      )}
      {edit && <Faults error={effect.error} />}
      {edit && effect.data && (
        <section aria-label="Effect" className="border-t border-line pt-3">
          {effect.data.verdicts.length === 0 && effect.data.complete ? (
            <p className="mb-3 text-dim">No connection gets another verdict.</p>
          ) : (
            <Verdicts
              verdicts={effect.data.verdicts}
              open={effect.data.complete ? null : MAY_BE_MORE}
            />
          )}
          <Flips flips={effect.data.checks} of={draft.checks.length} />
        </section>
      )}
      {edit && effect.isFetching && <Working on="What it would change" />}
    </FormDialog>
  );
}
