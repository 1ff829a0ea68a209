import { useState } from 'react';

/** A name in place. Enter and Tab save it, Escape leaves it as it was. */
export function NameEditor({
  label,
  name,
  onDone,
  onEnd,
}: {
  label: string;
  name: string;
  onDone(name: string): Promise<string | null>;
  onEnd(go?: 1 | -1): void;
}) {
  const [text, setText] = useState(name);
  const [error, setError] = useState<string | null>(null);
  const save = async (go?: 1 | -1) => {
    const refused = text.trim() === name ? null : await onDone(text);
    if (refused) setError(refused);
    else onEnd(go);
  };
  return (
    <span className="min-w-0 flex-1">
      <input
        autoFocus
        aria-label={label}
        aria-invalid={error !== null}
        value={text}
        maxLength={100}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setText(e.target.value)}
        onClick={(e) => e.stopPropagation()}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') onEnd();
          if (e.key === 'Enter') void save();
          if (e.key === 'Tab') {
            e.preventDefault();
            void save(e.shiftKey ? -1 : 1);
          }
        }}
        className="w-full rounded border border-accent px-1 font-semibold"
      />
      {error && <span className="text-[12px] text-drop">{error}</span>}
    </span>
  );
}
