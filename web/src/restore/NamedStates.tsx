import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { GoBack } from './GoBack';

/** The named states of a draft, with buttons to add, restore and delete them. */
export function NamedStates({ draft, mayEdit }: { draft: Draft; mayEdit: boolean }) {
  const cache = useQueryClient();
  const key = ['states', draft.id];
  const [naming, setNaming] = useState(false);
  const [name, setName] = useState('');
  const { data: states, error } = useQuery({
    queryKey: key,
    queryFn: () => api.states(draft.id),
  });
  const refresh = () => cache.invalidateQueries({ queryKey: key });
  const remove = useMutation({
    mutationFn: (gone: string) => api.deleteState(draft.id, gone),
    onSettled: refresh,
  });
  if (!mayEdit && !states?.length) return null;
  return (
    <section aria-labelledby="states" className="mb-6 max-w-[720px]">
      <div className="mb-1 flex items-baseline gap-3">
        <h2 id="states" className="font-semibold">
          Named states
        </h2>
        {mayEdit && (
          <Button small onClick={() => setNaming(true)}>
            Name the present state…
          </Button>
        )}
      </div>
      <Faults error={error ?? remove.error} />
      {states?.length === 0 && (
        <p className="text-[12px] text-dim">
          Give the draft as it is now a name before a large change: you can go back to it later,
          also after a publish.
        </p>
      )}
      {states && states.length > 0 && (
        <ul className="divide-y divide-line border-y border-line">
          {states.map((state) => (
            <li key={state.name} className="flex items-baseline gap-3 py-1">
              <b className="min-w-0 break-words">{state.name}</b>
              <span className="ml-auto shrink-0 text-[12px] text-dim">
                {state.by} ·{' '}
                {new Date(state.at).toLocaleString(undefined, {
                  dateStyle: 'medium',
                  timeStyle: 'short',
                  hour12: false,
                })}
              </span>
              {mayEdit && (
                <>
                  <GoBack
                    draft={draft}
                    to={{ state: state.name }}
                    link="go back"
                    label={`Go back to ${state.name}`}
                    title={`Go back to “${state.name}”?`}
                  >
                    Rules, objects, checks and editions of the draft become what they were, also
                    where colleagues changed them.
                  </GoBack>
                  <button
                    type="button"
                    aria-label={`Delete the state ${state.name}`}
                    onClick={() => remove.mutate(state.name)}
                    className="min-h-[24px] cursor-pointer text-[12px] text-dim underline underline-offset-2"
                  >
                    delete
                  </button>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {naming && (
        <FormDialog
          title="Name the present state"
          onSave={async () => {
            await api.nameState(draft.id, draft.version, name);
            setName('');
            await refresh();
          }}
          onClose={() => setNaming(false)}
        >
          <Field
            label="Name"
            value={name}
            maxLength={100}
            autoFocus
            onChange={(e) => setName(e.target.value)}
          />
        </FormDialog>
      )}
    </section>
  );
}
