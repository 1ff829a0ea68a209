import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { draftKey } from '../draft/useDraft';
import { FormDialog } from '../ui/FormDialog';

/** Chooses the common rulebase whose rules stand around those of the draft. */
export function CommonDialog({ draft, onClose }: { draft: Draft; onClose(): void }) {
  const cache = useQueryClient();
  const { data } = useQuery({ queryKey: ['rulebases'], queryFn: api.rulebases });
  const common = (data ?? []).filter((one) => one.kind === 'common' && one.id !== draft.id);
  const now = common.find((one) => one.name === draft.common?.rulebase)?.id;
  const [chosen, setChosen] = useState<number | null | undefined>(undefined);
  const picked = chosen === undefined ? (now ?? null) : chosen;
  const save = async () => {
    await api.chooseCommon(draft.id, draft.version, picked ?? undefined);
    await cache.invalidateQueries({ queryKey: draftKey(draft.id) });
    await cache.invalidateQueries({ queryKey: ['rulebases'] });
  };
  const option = (id: number | null, name: string, says: string) => (
    <label key={id ?? 'none'} className="flex cursor-pointer items-baseline gap-2 py-1">
      <input type="radio" name="common" checked={picked === id} onChange={() => setChosen(id)} />
      <span className="font-semibold">{name}</span>
      <span className="text-[12px] text-dim">{says}</span>
    </label>
  );
  return (
    <FormDialog title="Common rules" onSave={save} onClose={onClose} wide>
      <p className="mb-3">
        The head rules of a common rulebase stand above the rules of {draft.name}, its tail rules
        below them. They are edited in the common rulebase only.
      </p>
      <fieldset className="mb-4 border-y border-line py-1">
        <legend className="sr-only">Common rulebase</legend>
        {option(null, 'None', '')}
        {common.map((one) => option(one.id, one.name, `revision ${one.revision}`))}
      </fieldset>
      {data && common.length === 0 && (
        <p className="mb-3 text-dim">
          There is no common rulebase yet. Create one with <b>Import…</b>, <b>New rulebase</b>.
        </p>
      )}
    </FormDialog>
  );
}
