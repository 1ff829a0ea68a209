import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Person } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';
import { Front } from './Front';

export function SignIn({ onSignedIn }: { onSignedIn(person: Person): void }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useMutation({
    mutationFn: () => api.signIn(name.trim().toLowerCase(), password),
    onSuccess: onSignedIn,
  });
  return (
    <Front title="Sign in">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          signIn.mutate();
        }}
      >
        <Faults error={signIn.error} />
        <Field
          label="Name"
          autoFocus
          autoComplete="username"
          required
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Field
          label="Password"
          type="password"
          autoComplete="current-password"
          required
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
        <Button main type="submit" disabled={signIn.isPending} className="w-full py-2">
          Sign in
        </Button>
      </form>
    </Front>
  );
}
