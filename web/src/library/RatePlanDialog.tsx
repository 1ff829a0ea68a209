import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Counted, RatePlan } from '../api/types';
import type { DraftHandle } from '../draft/useDraft';
import { Area, Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { sumWords } from './Capacity';

export const COUNTED: Record<Counted, string> = {
  'all rules': 'all rules together',
  'each rule': 'each rule',
  'each source': 'each source address',
};

const RATE_HINT = 'Such as 20 Mbit/s, 2.5 Gbit/s, 800 kbit/s.';

/** Creates or edits a rate plan. A new name goes to every rule with the old one. */
export function RatePlanDialog({
  plan,
  handle,
  onClose,
}: {
  plan: RatePlan | null;
  handle: DraftHandle;
  onClose(): void;
}) {
  const [seen] = useState(handle.draft!.version);
  const [name, setName] = useState(plan?.name ?? '');
  const [ceiling, setCeiling] = useState(plan?.ceiling ?? '');
  const [floor, setFloor] = useState(plan?.floor ?? '');
  const [counted, setCounted] = useState<Counted>(plan?.counted ?? 'all rules');
  const [most, setMost] = useState(`${plan?.mostAtOnce ?? ''}`);
  const [note, setNote] = useState(plan?.note ?? '');
  const each = counted === 'each source';
  const ratePlan: RatePlan = {
    name,
    ceiling: ceiling.trim() || undefined,
    floor: floor.trim() || undefined,
    counted,
    mostAtOnce: each && most ? Number(most) : undefined,
    note: note || undefined,
  };
  const save = () => handle.edit({ kind: 'putRatePlan', ratePlan, replaces: plan?.name }, seen);
  // An unfinished plan adds nothing; its errors appear on saving.
  const whole = { ...ratePlan, name: name.trim() || 'new', note: undefined };
  const { data: sum, isError } = useQuery({
    queryKey: ['floors with', handle.draft!.id, handle.draft!.version, whole, plan?.name],
    queryFn: () => api.floorsWith(handle.draft!.id, whole, plan?.name),
    enabled: whole.floor !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
  const told = sum && !isError && whole.floor !== undefined ? sumWords(sum) : undefined;
  return (
    <FormDialog
      title={plan ? `Edit ${plan.name}` : 'New rate plan'}
      onSave={save}
      onClose={onClose}
    >
      <Field
        label="Name"
        autoFocus
        required
        maxLength={100}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Field
        label="Ceiling"
        hint={RATE_HINT}
        value={ceiling}
        onChange={(e) => setCeiling(e.target.value)}
      />
      <Field
        label="Floor"
        hint={RATE_HINT}
        value={floor}
        onChange={(e) => setFloor(e.target.value)}
      />
      <label className="mb-3 block text-[12px] font-semibold">
        Applies to
        <select
          value={counted}
          onChange={(e) => setCounted(e.target.value as Counted)}
          className="mt-1 block rounded border border-dim px-2 py-1 text-[13px] font-normal"
        >
          {Object.entries(COUNTED).map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {each && (
        <Field
          label="Source addresses at a time"
          type="number"
          min={1}
          max={1_000_000}
          required
          hint="The floor is reserved for at most so many."
          value={most}
          onChange={(e) => setMost(e.target.value)}
        />
      )}
      {told && (
        <p role="status" className={`mb-3 text-[12px] ${told.over ? 'text-drop' : 'text-dim'}`}>
          With this plan: {told.text}.
        </p>
      )}
      <Area
        label="Note"
        rows={2}
        maxLength={2000}
        value={note}
        onChange={(e) => setNote(e.target.value)}
      />
    </FormDialog>
  );
}
