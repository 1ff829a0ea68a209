import { useRef, useState } from 'react';

const MOST = 100;

/**
 * A name in place. Enter and Tab save it, Escape cancels. An invalid name is explained
 * at once; all else is sent while the person goes on.
 */
export function NameEditor({
  label,
  name,
  onDone,
  onEnd,
}: {
  label: string;
  name: string;
  onDone(name: string): void;
  onEnd(go?: 1 | -1): void;
}) {
  const [text, setText] = useState(name);
  const [error, setError] = useState<string | null>(null);
  const over = useRef(false);
  const end = (go?: 1 | -1) => {
    over.current = true;
    onEnd(go);
  };
  const save = (go?: 1 | -1) => {
    if (over.current) return;
    if (!text.trim()) {
      setError('A name has 1 to 100 characters.');
      return;
    }
    if (text.trim() !== name) onDone(text.trim());
    end(go);
  };
  return (
    <span className="min-w-0 flex-1">
      <input
        autoFocus
        aria-label={label}
        aria-invalid={error !== null}
        value={text}
        maxLength={MOST}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setText(e.target.value)}
        onClick={(e) => e.stopPropagation()}
        onBlur={() => save()}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') end();
          if (e.key === 'Enter') save();
          if (e.key === 'Tab') {
            e.preventDefault();
            save(e.shiftKey ? -1 : 1);
          }
        }}
        className="w-full rounded border border-accent px-1 font-semibold"
      />
      {error && <span className="text-[12px] text-drop">{error}</span>}
    </span>
  );
}
