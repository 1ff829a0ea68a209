import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { api } from '../api/client';
import type { Draft, RecognisedConnection } from '../api/types';
import type { Place } from '../app/places';
import { applicationsOf } from '../catalogue/catalogue';
import { EditionDialog } from '../library/EditionDialog';
import { otherEdition } from '../library/otherEdition';
import { LibraryTabs } from '../library/LibraryTabs';
import { Button } from '../ui/Button';
import { Faults } from '../ui/Faults';
import { FileButton } from '../ui/FileButton';
import { PickList } from '../ui/PickList';
import { dump, signatureOf } from './conditions';
import { SignatureEditor, type Writing } from './SignatureEditor';

const NOTHING: Writing = { application: '', feature: '', conditions: [] };

/** Captured connections, what they are recognised as, and a signature that is tried on them. */
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
  const [params, setParams] = useSearchParams();
  const { data: captures = [] } = useQuery({ queryKey: ['captures'], queryFn: api.captures });
  const wanted = Number(params.get('capture'));
  const capture = captures.find((c) => c.id === wanted) ?? captures[0];
  const { data, error } = useQuery({
    queryKey: ['capture', capture?.id, edition],
    queryFn: () => api.recognised(capture!.id, edition!),
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
  const [at, setAt] = useState(0);
  const [writing, setWriting] = useState(NOTHING);
  const [failed, setFailed] = useState<unknown>(null);
  const [made, setMade] = useState<string | null>(null);
  const [name, setName] = useState<string | null>(null);
  const signature = signatureOf(writing.conditions, writing.feature);
  const application = writing.application.trim();
  const { data: tried, error: wrong } = useQuery({
    queryKey: ['try', capture?.id, edition, application || 'new', signature],
    queryFn: () => api.trySignature(capture!.id, edition!, application || 'new', signature!),
    enabled: capture !== undefined && edition !== undefined && signature !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const marks = signature && !wrong ? tried : undefined;
  const [filter, setFilter] = useState('');
  const all = useMemo(
    () => (data?.connections ?? []).map((connection, number) => ({ connection, number })),
    [data],
  );
  const rows = useMemo(() => {
    const words = filter.trim().toLowerCase().split(/\s+/);
    return all.filter(({ connection: c }) => {
      const moved = c.files.flatMap((file) => [file.direction, file.kind, file.name ?? '']);
      const told = [c.application ?? 'unidentified', ...c.others, ...moved];
      const text = [c.from, c.to, c.service, ...told];
      return words.every((word) => text.join('\n').toLowerCase().includes(word));
    });
  }, [all, filter]);
  const chosen = rows.find((row) => row.number === at) ?? rows[0];
  const own = application + (writing.feature.trim() ? `: ${writing.feature.trim()}` : '');
  const newName = name ?? `${edition} with ${application || 'ours'}`;

  const bring = async (file: File) => {
    setFailed(null);
    try {
      const read = await api.readCapture(file);
      await cache.invalidateQueries({ queryKey: ['captures'] });
      setParams({ capture: `${read.id}` }, { replace: true });
      setAt(0);
    } catch (e) {
      setFailed(e);
    }
  };
  const keep = async () => {
    setFailed(null);
    try {
      await api.addSignature(edition!, newName, application, signature!);
      await cache.invalidateQueries({ queryKey: ['editions'] });
      setMade(newName);
    } catch (e) {
      setFailed(e);
    }
  };

  return (
    <div className="flex min-h-0 flex-1 flex-col p-6 pb-0">
      <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <LibraryTabs place="signatures" onGo={onGo} />
        {capture && (
          <select
            aria-label="Capture"
            value={capture.id}
            onChange={(e) => {
              setParams({ capture: e.target.value }, { replace: true });
              setAt(0);
            }}
            className="rounded border border-line bg-sheet px-2 py-1"
          >
            {captures.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name} · {c.connections} connections
              </option>
            ))}
          </select>
        )}
        <input
          type="search"
          aria-label="Search connections"
          placeholder="address, service, application, unidentified"
          value={filter}
          onChange={(e) => setFilter(e.target.value)}
          className="w-[270px] rounded border border-line px-2 py-1"
        />
        {mayEdit && (
          <FileButton accept=".pcap,.pcapng,.cap" onFile={(file) => void bring(file)}>
            Bring in a capture…
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
      {!capture && (
        <p className="text-dim">Bring in a capture (pcap or pcapng) to see what is in it.</p>
      )}
      {data && (
        <div className="flex min-h-0 flex-1 gap-6">
          <PickList
            name="Connections"
            none={filter ? 'No connection fits.' : 'There is no connection in it.'}
            items={rows}
            chosen={chosen}
            keyOf={(row) => `${row.number}`}
            onChoose={(row) => setAt(row.number)}
            className="min-w-0 flex-1"
          >
            {({ connection, number }) => (
              <>
                <span className="w-[118px] shrink-0 truncate font-mono text-[12px]">
                  {connection.from}
                </span>
                <span className="w-[118px] shrink-0 truncate font-mono text-[12px]">
                  {connection.to}
                </span>
                <span className="w-[72px] shrink-0 truncate font-mono text-[12px]">
                  {connection.service}
                </span>
                <span className="min-w-0 flex-1 truncate">
                  {marks?.meant.includes(number) ? (
                    <>
                      <b>{own || 'yours'}</b>
                      {marks.taken.includes(number) && (
                        <span className="text-caution"> instead of {connection.application}</span>
                      )}
                    </>
                  ) : (
                    <>
                      {connection.application ?? <span className="text-dim">unidentified</span>}
                      {connection.files.map((file) => (
                        <span key={file.direction} className="text-dim">
                          , {file.direction} of {file.kind}
                        </span>
                      ))}
                      {marks?.holds.includes(number) && (
                        <span className="text-dim"> (yours holds too, and is wider)</span>
                      )}
                    </>
                  )}
                </span>
              </>
            )}
          </PickList>
          <div className="min-h-0 w-[446px] shrink-0 overflow-y-auto px-1 pb-6">
            {chosen && (
              <section aria-label="The connection">
                <h2 className="font-semibold">{chosen.connection.application ?? 'unidentified'}</h2>
                <p className="text-[12px] text-dim">
                  {chosen.connection.evidence.join('; ') || 'No signature holds.'}
                  {chosen.connection.others.length > 0 &&
                    ` Wider ones hold too: ${chosen.connection.others.join(', ')}.`}
                </p>
                <Files files={chosen.connection.files} />
                <Dump title="The client's first bytes" hex={chosen.connection.client} />
                <Dump title="The server's" hex={chosen.connection.server} />
              </section>
            )}
            {mayEdit && edition && (
              <section aria-label="A signature of your own" className="mt-4">
                <h2 className="mb-1 font-semibold">A signature of your own</h2>
                <SignatureEditor
                  writing={writing}
                  names={names}
                  firstBytes={chosen?.connection.client ?? ''}
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
                      `; ${marks.holds.length - marks.meant.length} more are told by narrower ones`}
                    .
                  </p>
                )}
                {marks && application && (
                  <div className="mt-2 flex items-end gap-2">
                    <label className="min-w-0 flex-1 text-[12px] text-dim">
                      Keep it in a new edition called
                      <input
                        value={newName}
                        onChange={(e) => setName(e.target.value)}
                        className="block w-full rounded border border-line px-2 py-1 text-[13px] text-ink"
                      />
                    </label>
                    <Button main onClick={() => void keep()}>
                      Make it
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
            setMade(null);
            setName(null);
            setWriting(NOTHING);
          }}
          onRule={onRule}
        />
      )}
    </div>
  );
}

/** What a connection moves, and what told its kind. */
function Files({ files }: { files: RecognisedConnection['files'] }) {
  return (
    <ul aria-label="Files that it moves" className="mt-1 text-[12px] empty:hidden">
      {files.map((file) => (
        <li key={file.direction}>
          {file.direction} of{' '}
          {file.name ? <span className="font-mono">{file.name}</span> : 'a file'}:{' '}
          <b>{file.kind}</b> <span className="text-dim">({file.evidence})</span>
        </li>
      ))}
    </ul>
  );
}

function Dump({ title, hex }: { title: string; hex: string }) {
  const rows = dump(hex);
  return (
    <>
      <h3 className="mt-2 text-[12px] text-dim">{rows.length ? title : `${title}: none`}</h3>
      <pre
        tabIndex={0}
        aria-label={title}
        className="overflow-x-auto font-mono text-[11px] empty:hidden"
      >
        {rows.map((row) => `${row.hex.padEnd(48)} ${row.text}`).join('\n')}
      </pre>
    </>
  );
}
