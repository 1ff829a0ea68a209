import type { RecognisedConnection } from '../api/types';
import { dump } from '../catalogue/conditions';

/** One connection: what it is, by what, and how it begins. */
export function Connection({ connection }: { connection: RecognisedConnection }) {
  return (
    <section aria-label="The connection">
      <h2 className="font-semibold">{connection.application ?? 'unidentified'}</h2>
      <p className="text-[12px] text-dim">
        {connection.evidence.join('; ') || 'No signature matches.'}
        {connection.others.length > 0 && ` Wider ones hold too: ${connection.others.join(', ')}.`}
      </p>
      <Files files={connection.files} />
      <Dump title="The client's first bytes" hex={connection.client} />
      <Dump title="The server's" hex={connection.server} />
    </section>
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
