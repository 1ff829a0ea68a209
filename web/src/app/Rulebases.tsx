import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, Navigate, useSearchParams } from 'react-router';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { ImportDialog } from './ImportDialog';
import { mayEdit, useSession } from '../shell/session';

/** The first page: straight to the only rulebase, or a choice, or what to do when there is none. */
export default function Rulebases() {
  const { person, signOut } = useSession();
  const [params] = useSearchParams();
  const [importing, setImporting] = useState(false);
  const list = useQuery({ queryKey: ['rulebases'], queryFn: api.rulebases });
  if (list.isPending) {
    return null;
  }
  const only = list.data?.length === 1 && !params.has('all') ? list.data[0] : undefined;
  if (only) {
    return <Navigate to={`/rulebases/${only.id}/rules`} replace />;
  }
  return (
    <main className="mx-auto max-w-[640px] p-10">
      <h1 className="text-[20px] font-semibold">Rulebases</h1>
      <Faults error={list.error} />
      {list.data?.length === 0 && (
        <p className="my-4">
          No rulebases yet. Import an RFC 8519 document of a firewall that you have, or start with
          an empty one.
        </p>
      )}
      <ul className="my-4 divide-y divide-line border-y border-line">
        {list.data?.map((rulebase) => (
          <li key={rulebase.id}>
            <Link to={`/rulebases/${rulebase.id}/rules`} className="flex px-2 py-2 hover:bg-band">
              <span className="font-semibold">{rulebase.name}</span>
              <span className="ml-auto text-dim">revision {rulebase.revision}</span>
            </Link>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        {mayEdit(person) && (
          <Button main onClick={() => setImporting(true)}>
            Add a rulebase…
          </Button>
        )}
        <Button onClick={() => void signOut()}>Sign out</Button>
      </div>
      {importing && <ImportDialog onClose={() => setImporting(false)} />}
    </main>
  );
}
