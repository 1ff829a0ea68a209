import { useMutation } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useState, useSyncExternalStore } from 'react';
import { api } from '../api/client';
import { hasEnded, onSessionEnd, sessionOpened } from '../api/sessionEnd';
import type { Person } from '../api/types';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { Field } from '../ui/Field';

/** Asks for the password on top of the page when the session has ended; nothing below is lost. */
export function SessionEnded({ person }: { person: Person }) {
  const ended = useSyncExternalStore(onSessionEnd, hasEnded);
  const [password, setPassword] = useState('');
  const signIn = useMutation({
    mutationFn: () => api.signIn(person.name, password),
    onSuccess: () => {
      setPassword('');
      sessionOpened();
    },
  });
  if (!ended) return null;
  return (
    <Dialog.Root open>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-[60] bg-shade" />
        <Dialog.Content
          aria-describedby="session-ended"
          onEscapeKeyDown={(e) => e.preventDefault()}
          onInteractOutside={(e) => e.preventDefault()}
          onKeyDown={(e) => e.stopPropagation()}
          className="fixed top-[18vh] left-1/2 z-[70] w-[380px] max-w-[94vw] -translate-x-1/2 rounded-md border border-line bg-sheet p-4 shadow-xl"
        >
          <Dialog.Title className="mb-2 text-[15px] font-semibold">Sign in again</Dialog.Title>
          <p id="session-ended" className="mb-3 text-dim">
            The session of {person.displayName} has ended. The page stays as it is; changes that
            wait are sent when you have signed in.
          </p>
          <form
            onSubmit={(e) => {
              e.preventDefault();
              if (!signIn.isPending) signIn.mutate();
            }}
          >
            <Faults error={signIn.error} />
            <Field
              label="Password"
              type="password"
              autoFocus
              required
              autoComplete="current-password"
              value={password}
              onChange={(e) => setPassword(e.target.value)}
            />
            <div className="flex justify-end gap-2">
              <Button onClick={() => window.location.assign('/')}>Use another account</Button>
              <Button main type="submit" disabled={signIn.isPending}>
                Sign in
              </Button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
