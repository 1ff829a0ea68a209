import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { GatewaySummary } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { FormDialog } from '../ui/FormDialog';
import { Modal } from '../ui/Modal';
import { RolloutState } from './RolloutState';
import { steps } from './steps';

const LOOK_AGAIN = 2000;

/** Which revision is where: a line for each gateway along the newest revisions. */
export function Gateways({
  id,
  newest,
  admin,
  mayPublish,
}: {
  id: number;
  newest: number;
  admin: boolean;
  mayPublish: boolean;
}) {
  const [adding, setAdding] = useState(false);
  const { data: gateways, error } = useQuery({
    queryKey: ['gateways', id, newest],
    queryFn: () => api.gateways(id),
    refetchInterval: LOOK_AGAIN,
  });
  return (
    <section aria-labelledby="gateways" className="mb-6">
      <div className="mb-1 flex items-baseline">
        <h2 id="gateways" className="font-semibold">
          Gateways
        </h2>
        {admin && (
          <Button small className="ml-auto" onClick={() => setAdding(true)}>
            Add a gateway…
          </Button>
        )}
      </div>
      <RolloutState id={id} mayPublish={mayPublish} />
      <Faults error={error} />
      {gateways?.length === 0 && (
        <p className="text-[12px] text-dim">
          No gateway follows these rules yet. {admin ? 'Add one.' : 'An admin can add one.'}
        </p>
      )}
      <ul className="divide-y divide-line border-y border-line empty:hidden">
        {gateways?.map((gateway) => (
          <Line key={gateway.id} rulebase={id} gateway={gateway} published={newest} admin={admin} />
        ))}
      </ul>
      {adding && <AddGateway id={id} onClose={() => setAdding(false)} />}
    </section>
  );
}

function Line({
  rulebase,
  gateway,
  published,
  admin,
}: {
  rulebase: number;
  gateway: GatewaySummary;
  /** The newest revision, which this gateway may have to wait for. */
  published: number;
  admin: boolean;
}) {
  const cache = useQueryClient();
  const revocation = useMutation({
    mutationFn: () => api.revokeGateway(rulebase, gateway.id),
    onSettled: () => cache.invalidateQueries({ queryKey: ['gateways', rulebase] }),
  });
  const { state, inForce, newest } = gateway;
  const alarming = state === 'refused' || state === 'silent' || state === 'behind';
  return (
    <li aria-label={gateway.name} className="group py-2">
      <p className="flex items-baseline gap-2">
        <span className="min-w-0 truncate font-semibold">{gateway.name}</span>
        <span className={`ml-auto shrink-0 text-[12px] ${alarming ? 'text-drop' : 'text-dim'}`}>
          {words(gateway)}
          {newest < published && ` · waits for ${published}`}
        </span>
      </p>
      <ol aria-hidden className="relative mt-1 flex h-[16px] items-center justify-between">
        <span className="absolute inset-x-0 top-1/2 h-px bg-line" />
        {steps(published).map((step) => (
          <li key={step} className="relative flex flex-col items-center" title={`Revision ${step}`}>
            {step === inForce ? (
              <span
                className={`block h-[10px] w-[10px] rounded-full ${step === newest ? 'bg-allow' : 'bg-drop'}`}
              />
            ) : (
              <span
                className={`block h-[10px] w-[10px] rounded-full border bg-panel ${step === newest ? 'border-dashed border-iron' : 'border-line'}`}
              />
            )}
          </li>
        ))}
      </ol>
      {gateway.reason && state === 'refused' && (
        <p className="text-[12px] break-words text-drop">{gateway.reason}</p>
      )}
      {admin && state !== 'revoked' && (
        <button
          type="button"
          className="min-h-[24px] cursor-pointer text-[12px] text-dim underline underline-offset-2 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100"
          onClick={() => revocation.mutate()}
        >
          Revoke {gateway.name}
        </button>
      )}
      <Faults error={revocation.error} />
    </li>
  );
}

function words({ state, inForce }: GatewaySummary): string {
  switch (state) {
    case 'in force':
      return `revision ${inForce} in force`;
    case 'behind':
      return `behind: revision ${inForce} in force`;
    default:
      return state;
  }
}

/** Adds a gateway, and then shows its token, once. */
function AddGateway({ id, onClose }: { id: number; onClose(): void }) {
  const cache = useQueryClient();
  const [name, setName] = useState('');
  const [token, setToken] = useState<string | null>(null);
  if (token) {
    return (
      <Modal title={`Enrol ${name}`} onClose={onClose} wide>
        <p>Start the gateway with this token. It is shown once and valid once.</p>
        <pre
          tabIndex={0}
          className="my-3 overflow-x-auto rounded border border-line bg-panel p-2 font-mono text-[12px]"
        >
          {`./iron-sieve gateway --server ${window.location.origin} --data FOLDER --token ${token}`}
        </pre>
        <div className="flex justify-end">
          <Button main onClick={onClose}>
            Close
          </Button>
        </div>
      </Modal>
    );
  }
  const save = async () => {
    const added = await api.addGateway(id, name);
    await cache.invalidateQueries({ queryKey: ['gateways', id] });
    setToken(added.token);
  };
  return (
    <FormDialog
      title="Add a gateway"
      save="Add"
      onSave={save}
      onSaved={() => undefined} // the token is shown by then
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
    </FormDialog>
  );
}
