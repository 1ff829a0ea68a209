import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Navigate, useSearchParams } from 'react-router';
import { api } from '../api/client';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { OverviewStrip } from './OverviewStrip';
import { ImportDialog } from './ImportDialog';
import { mayEdit, useSession } from '../shell/session';
import { treeOf } from './tree';

/** The first page: straight to the only rulebase, or what needs attention on each. */
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
    <main className="mx-auto max-w-[1080px] p-10">
      <h1 className="text-[20px] font-semibold">What needs attention</h1>
      <Faults error={list.error} />
      {list.data?.length === 0 && (
        <p className="my-4">
          No rulebases yet. Import an RFC 8519 document of a firewall that you have, or start with
          an empty one.
        </p>
      )}
      <ul className="my-4 border-b border-line">
        {treeOf(list.data ?? []).map(({ rulebase, depth }) => (
          <OverviewStrip key={rulebase.id} rulebase={rulebase} depth={depth} />
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
