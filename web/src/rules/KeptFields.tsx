import { useId, useState } from 'react';
import type { Rule } from '../api/types';
import type { Kept, RuleActions } from './actions';
import { keptOf, withField, type KeptField } from './kept';

const FIELDS: { field: KeptField; label: string; type: string; hint: string }[] = [
  { field: 'owner', label: 'Owner', type: 'text', hint: 'the person or team responsible' },
  { field: 'ticket', label: 'Ticket', type: 'text', hint: 'the number of the request' },
  { field: 'tags', label: 'Tags', type: 'text', hint: 'comma-separated words' },
  { field: 'start', label: 'Start date', type: 'date', hint: '' },
  { field: 'end', label: 'End date', type: 'date', hint: '' },
];

/** Owner, ticket, tags and dates of a rule, each saved when it is left. */
export function KeptFields({
  rule,
  mayEdit,
  actions,
}: {
  rule: Rule;
  mayEdit: boolean;
  actions: RuleActions;
}) {
  const id = useId();
  const [typed, setTyped] = useState<{ field: KeptField; text: string } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const said = keptOf(rule);
  if (!mayEdit) {
    const known = FIELDS.filter(({ field }) => said[field]);
    return known.length ? (
      <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-3 text-[12px]">
        {known.map(({ field, label }) => (
          <div key={field} className="contents">
            <dt className="text-dim">{label}</dt>
            <dd className="break-words">{said[field]}</dd>
          </div>
        ))}
      </dl>
    ) : null;
  }
  const save = async () => {
    if (!typed || typed.text === said[typed.field]) {
      setTyped(null);
      return;
    }
    const next: Kept = withField(rule, typed.field, typed.text);
    const refused = await actions.setKept(rule, next);
    setError(refused);
    if (!refused) setTyped(null);
  };
  return (
    <fieldset className="mt-3 grid grid-cols-[auto_minmax(0,1fr)] items-center gap-x-3 gap-y-1">
      <legend className="sr-only">Owner, ticket, tags and dates</legend>
      {FIELDS.map(({ field, label, type, hint }) => (
        <div key={field} className="contents">
          <label htmlFor={`${id}-${field}`} className="text-[12px] text-dim">
            {label}
          </label>
          <input
            id={`${id}-${field}`}
            type={type}
            placeholder={hint}
            maxLength={field === 'tags' ? 400 : 100}
            value={typed?.field === field ? typed.text : said[field]}
            onChange={(e) => setTyped({ field, text: e.target.value })}
            onBlur={() => void save()}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Escape') setTyped(null);
              if (e.key === 'Enter') void save();
            }}
            className="min-w-0 rounded border border-line px-1 py-px text-[13px]"
          />
        </div>
      ))}
      {error && (
        <p role="alert" className="col-span-2 text-[12px] text-drop">
          {error}
        </p>
      )}
    </fieldset>
  );
}
