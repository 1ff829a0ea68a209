import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { Front } from './Front';

/** Making the first admin, once, with the link that the server printed. */
export default function SetUp() {
  const [params] = useSearchParams();
  const [form, setForm] = useState({ name: '', displayName: '', password: '' });
  const set = (part: Partial<typeof form>) => setForm({ ...form, ...part });
  const setUp = useMutation({
    mutationFn: () => api.setUp({ token: params.get('token') ?? '', ...form }),
    onSuccess: () => window.location.assign('/'),
  });
  return (
    <Front title="Create the first admin">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          setUp.mutate();
        }}
      >
        <Faults error={setUp.error} />
        <Field
          label="Name to sign in with"
          hint="Small letters, digits, dots: ada.cole"
          autoFocus
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
        <Field
          label="Password"
          hint="At least 12 characters"
          type="password"
          autoComplete="new-password"
          required
          value={form.password}
          onChange={(e) => set({ password: e.target.value })}
        />
        <Button main type="submit" className="w-full py-2">
          Create the account
        </Button>
      </form>
    </Front>
  );
}
