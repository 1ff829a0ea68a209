import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { many } from '../draft/Effects';
import { draftKey } from '../draft/useDraft';
import { Button } from '../ui/Button';
import { FormDialog } from '../ui/FormDialog';

/** Takes the draft back to the revision in force; the changes stay in the history. */
export function Discard({ draft }: { draft: Draft }) {
  const cache = useQueryClient();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button small className="mt-2 w-full" onClick={() => setAsking(true)}>
        Discard all changes…
      </Button>
      {asking && (
        <FormDialog
          title={`Discard ${many(draft.changes, 'change')}?`}
          save="Discard"
          onSave={async () => {
            await api.discard(draft.id, draft.version);
            await cache.invalidateQueries({ queryKey: draftKey(draft.id) });
          }}
          onClose={() => setAsking(false)}
        >
          <p className="mb-3">
            The draft becomes equal to revision {draft.revision}, also where colleagues changed it.
            Every change stays in the history.
          </p>
        </FormDialog>
      )}
    </>
  );
}
