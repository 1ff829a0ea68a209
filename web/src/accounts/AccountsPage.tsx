import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';

const ROLES = ['viewer', 'editor', 'publisher', 'admin'];

/** The accounts, for admins: add, change the role, disable. */
export default function AccountsPage() {
  const cache = useQueryClient();
  const list = useQuery({ queryKey: ['accounts'], queryFn: api.accounts });
  const [form, setForm] = useState({ name: '', displayName: '', role: 'editor', password: '' });
  const { mutate: run, error } = useMutation({
    mutationFn: (work: () => Promise<unknown>) => work(),
    onSettled: () => cache.invalidateQueries({ queryKey: ['accounts'] }),
  });
  const set = (part: Partial<typeof form>) => setForm({ ...form, ...part });
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-6">
      <h1 className="mb-4 text-[17px] font-semibold">Accounts</h1>
      <Faults error={error ?? list.error} />
      <ul className="mb-6 max-w-[760px] divide-y divide-line border-y border-line">
        {list.data?.map((account) => (
          <li key={account.name} className="flex items-center gap-3 py-1">
            <span className="w-[170px] truncate font-semibold">{account.displayName}</span>
            <span className="w-[170px] truncate text-dim">{account.name}</span>
            <select
              aria-label={`Role of ${account.displayName}`}
              value={account.role}
              onChange={(e) => {
                const role = e.target.value;
                run(() => api.changeAccount(account.name, { role }));
              }}
              className="rounded border border-line px-1 py-px"
            >
              {ROLES.map((role) => (
                <option key={role}>{role}</option>
              ))}
            </select>
            <Button
              small
              className="ml-auto"
              onClick={() =>
                run(() => api.changeAccount(account.name, { disabled: !account.disabled }))
              }
            >
              {account.disabled ? 'Enable' : 'Disable'}
            </Button>
          </li>
        ))}
      </ul>
      <h2 className="mb-2 font-semibold">New account</h2>
      <form
        className="max-w-[360px]"
        onSubmit={(e) => {
          e.preventDefault();
          run(async () => {
            await api.addAccount(form);
            setForm({ name: '', displayName: '', role: 'editor', password: '' });
          });
        }}
      >
        <Field
          label="Name to sign in with"
          required
          value={form.name}
          onChange={(e) => set({ name: e.target.value })}
        />
        <Field
          label="Full name"
          required
          value={form.displayName}
          onChange={(e) => set({ displayName: e.target.value })}
        />
        <label className="mb-3 block text-[12px] font-semibold">
          Role
          <select
            value={form.role}
            onChange={(e) => set({ role: e.target.value })}
            className="mt-1 block rounded border border-dim px-2 py-1 text-[13px] font-normal"
          >
            {ROLES.map((role) => (
              <option key={role}>{role}</option>
            ))}
          </select>
        </label>
        <Field
          label="First password"
          type="password"
          autoComplete="new-password"
          hint="At least 12 characters"
          required
          value={form.password}
          onChange={(e) => set({ password: e.target.value })}
        />
        <Button main type="submit">
          Add the account
        </Button>
      </form>
    </div>
  );
}
