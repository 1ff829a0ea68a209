import { Problem } from '../api/client';

/** What went wrong, with every place that the server named. */
export function Faults({ error }: { error: unknown }) {
  if (!error) {
    return null;
  }
  const faults = error instanceof Problem ? (error.body.faults ?? []) : [];
  return (
    <div role="alert" className="mb-3 rounded border border-drop p-2 text-[12px] text-drop">
      {faults.length === 0 ? (
        <p>{error instanceof Error ? error.message : String(error)}</p>
      ) : (
        <ul className="max-h-[200px] overflow-auto">
          {faults.map((fault, i) => (
            <li key={i}>
              <code className="font-mono">{fault.path}</code>: expected {fault.expected}, found{' '}
              {fault.found}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
