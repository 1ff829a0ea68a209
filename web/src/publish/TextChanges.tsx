import type { Review } from '../api/types';
import { many } from '../draft/Effects';

const SIGN_CLASS = { '-': 'text-drop', '+': 'text-allow', ' ': 'text-dim' };

/** The lines that differ when both states are written as text. */
export function TextChanges({ lines }: { lines: Review['text'] }) {
  const changed = lines.filter((line) => line.sign !== ' ').length;
  if (changed === 0) return null;
  return (
    <details className="mb-4">
      <summary className="cursor-pointer font-semibold">As text: {many(changed, 'line')}</summary>
      <pre
        tabIndex={0}
        aria-label="Changed lines"
        className="mt-2 rounded border border-line bg-panel p-2 font-mono text-[12px] break-words whitespace-pre-wrap"
      >
        {lines.map((line, i) => (
          <span key={i} className={`block ${SIGN_CLASS[line.sign]}`}>
            {line.sign} {line.text}
          </span>
        ))}
      </pre>
    </details>
  );
}
