import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useUrlState } from '../shell/useUrlState';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import type { Place } from '../shell/places';
import { applicationsOf } from '../catalogue/catalogue';
import { EditionDialog } from '../library/EditionDialog';
import { otherEdition } from '../library/otherEdition';
import { LibraryTabs } from '../library/LibraryTabs';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { FileButton } from '../ui/FileButton';
import { PickList } from '../ui/PickList';
import { Connection } from './Connection';
import { ConnectionRow } from './ConnectionRow';
import { chosenCapture, connectionsThatFit } from './captures';
import { signatureOf } from '../catalogue/conditions';
import { Mistakes } from './Mistakes';
import { SignatureEditor, type Writing } from './SignatureEditor';

const LOOK_AGAIN = 5_000; // ms
const NOTHING: Writing = { application: '', feature: '', conditions: [] };

/** Recent and captured connections, what they are, and a signature that is tried on them. */
export default function SignatureBench({
  draft,
  mayEdit,
  onRule,
  onGo,
}: {
  draft: Draft;
  mayEdit: boolean;
  onRule(id: string): void;
  onGo(place: Place): void;
}) {
  const cache = useQueryClient();
  const edition = draft.editions.application;
  const { values, set, step } = useUrlState('signatures', ['capture', 'q', 'connection']);
  const { data: captures = [] } = useQuery({
    queryKey: ['captures'],
    queryFn: api.captures,
    refetchInterval: LOOK_AGAIN,
  });
  const capture = chosenCapture(captures, values.capture);
  const [until, setUntil] = useState(0); // the newest of the recent log that is shown
  const upTo = (capture?.kind === 'recent' && until) || (capture?.newest ?? 0);
  if (until === 0 && capture?.kind === 'recent' && capture.newest > 0) {
    setUntil(capture.newest); // what comes after it moves nothing until it is asked for
  }
  const newer = capture ? capture.newest - upTo : 0;
  const { data, error } = useQuery({
    queryKey: ['capture', capture?.id, upTo, edition],
    queryFn: () => api.recognised(capture!.id, upTo, edition!),
    placeholderData: (previous) => (previous?.id === capture?.id ? previous : undefined),
    enabled: capture !== undefined && edition !== undefined,
    staleTime: Infinity,
  });
  const { data: catalogue } = useQuery({
    queryKey: ['edition', edition],
    queryFn: () => api.edition(edition!),
    enabled: edition !== undefined,
    staleTime: Infinity,
  });
  const names = useMemo(
    () => (catalogue ? applicationsOf(catalogue).map((a) => a.name) : []),
    [catalogue],
  );
  const [writing, setWriting] = useState(NOTHING);
  const [name, setName] = useState<string | null>(null);
  const signature = signatureOf(writing.conditions, writing.feature);
  const application = writing.application.trim();
  const { data: tried, error: wrong } = useQuery({
    queryKey: ['try', capture?.id, upTo, edition, application || 'new', signature],
    queryFn: () => api.trySignature(capture!.id, upTo, edition!, application || 'new', signature!),
    enabled: capture !== undefined && edition !== undefined && signature !== null,
    placeholderData: (previous, query) =>
      query?.queryKey[1] === capture?.id ? previous : undefined,
    retry: false,
  });
  const marks = signature && !wrong ? tried : undefined;
  const filter = values.q;
  const all = data?.connections ?? [];
  const rows = useMemo(() => connectionsThatFit(data?.connections ?? [], filter), [data, filter]);
  const chosen = rows.find((row) => `${row.number}` === values.connection) ?? rows[0];
  const own = application + (writing.feature.trim() ? `: ${writing.feature.trim()}` : '');
  const newName = name ?? `${edition} with ${application || 'ours'}`;

  const bring = useMutation({
    mutationFn: (file: File) => api.readCapture(file),
    onSuccess: async (read) => {
      await cache.invalidateQueries({ queryKey: ['captures'] });
      step({ capture: `${read.id}`, connection: '' });
    },
  });
  const keep = useMutation({
    mutationFn: async () => {
      await api.addSignature(edition!, newName, application, signature!);
      await cache.invalidateQueries({ queryKey: ['editions'] });
      return newName;
    },
  });
  const made = keep.data ?? null;
  const failed = bring.error ?? keep.error;

  return (
    <div className="flex min-h-0 flex-1 flex-col p-6 pb-0">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <LibraryTabs place="signatures" onGo={onGo} />
        {capture && (
          <select
            aria-label="Where connections come from"
            value={capture.id}
            onChange={(e) => {
              step({ capture: e.target.value, connection: '' });
              setUntil(0);
            }}
            className="w-[210px] rounded border border-dim bg-sheet px-2 py-1"
          >
            {captures.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
                {c.kind === 'sample' && ', a sample'} · {c.connections}
              </option>
            ))}
          </select>
        )}
        <input
          type="search"
          aria-label="Search connections"
          placeholder="address, service, application, unidentified"
          value={filter}
          onChange={(e) => set({ q: e.target.value })}
          className="min-w-[150px] flex-1 rounded border border-dim px-2 py-1"
        />
        {newer > 0 && <Button onClick={() => setUntil(capture!.newest)}>{newer} newer</Button>}
        {mayEdit && (
          <FileButton accept=".pcap,.pcapng,.cap" onFile={(file) => bring.mutate(file)}>
            Import a capture…
          </FileButton>
        )}
      </div>
      <Faults error={error ?? failed} />
      {data?.remarks.map((remark) => (
        <p key={remark} className="mb-1 text-[12px] text-caution">
          {remark}
        </p>
      ))}
      {!edition && (
        <p className="text-dim">This rulebase has no catalogue yet, so nothing is recognised.</p>
      )}
      {data && (
        <div className="flex min-h-0 flex-1 gap-6">
          <PickList
            name="Connections"
            none={
              filter
                ? 'No connection matches.'
                : capture?.kind === 'recent'
                  ? 'No tap has reported a connection yet.'
                  : 'The capture has no connections.'
            }
            items={rows}
            chosen={chosen}
            keyOf={(row) => `${row.number}`}
            onChoose={(row, passing) => (passing ? set : step)({ connection: `${row.number}` })}
            className="min-w-0 flex-1"
          >
            {(connection) => (
              <ConnectionRow connection={connection} marks={marks} own={own || 'yours'} />
            )}
          </PickList>
          <div className="min-h-0 w-[446px] shrink-0 overflow-y-auto px-1 pb-6">
            {chosen && <Connection connection={chosen} />}
            {mayEdit && edition && (
              <section aria-label="A signature of your own" className="mt-4">
                <h2 className="mb-1 font-semibold">A signature of your own</h2>
                <SignatureEditor
                  writing={writing}
                  names={names}
                  firstBytes={chosen?.client ?? ''}
                  onChange={setWriting}
                />
                {signature && <Faults error={wrong} />}
                {marks && (
                  <p role="status" className="mt-2">
                    Recognises {marks.meant.length} of {all.length}
                    {marks.taken.length > 0 && (
                      <b className="text-caution">
                        , {marks.taken.length} of them other signatures’
                      </b>
                    )}
                    {marks.holds.length > marks.meant.length &&
                      `; ${marks.holds.length - marks.meant.length} more match narrower signatures`}
                    .
                  </p>
                )}
                {marks && <Mistakes mistakes={marks.mistakes} />}
                {marks && application && (
                  <div className="mt-2 flex items-end gap-2">
                    <label className="min-w-0 flex-1 text-[12px] text-dim">
                      Name of the new edition
                      <input
                        value={newName}
                        onChange={(e) => setName(e.target.value)}
                        className="block w-full rounded border border-dim px-2 py-1 text-[13px] text-ink"
                      />
                    </label>
                    <Button main onClick={() => keep.mutate()}>
                      Create
                    </Button>
                  </div>
                )}
              </section>
            )}
          </div>
        </div>
      )}
      {made && (
        <EditionDialog
          draft={draft}
          compared={otherEdition(draft, 'application', made)}
          mayEdit={mayEdit}
          onClose={() => {
            keep.reset();
            setName(null);
            setWriting(NOTHING);
          }}
          onRule={onRule}
        />
      )}
    </div>
  );
}
