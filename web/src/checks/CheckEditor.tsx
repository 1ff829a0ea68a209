import { useEffect, useRef } from 'react';
import type { Cell } from './checkRows';
import { VERDICTS } from './pasted';

/** A cell while it is edited: Enter saves and goes down, Tab goes right, Escape leaves it as it was. */
export function CheckEditor({
  cell,
  label,
  text,
  set,
  onText,
  onSave,
  onLeave,
}: {
  cell: Cell;
  label: string;
  text: string;
  /** Whether the check is about a set of connections, which are let through or refused. */
  set: boolean;
  onText(text: string): void;
  onSave(then?: 'down' | 'right'): Promise<void>;
  onLeave(): void;
}) {
  const box = useRef<HTMLInputElement & HTMLTextAreaElement & HTMLSelectElement>(null);
  useEffect(() => {
    box.current?.focus();
    if (cell !== 'verdict') box.current?.select();
  }, [cell]);
  const common = {
    ref: box,
    'aria-label': label,
    value: text,
    onClick: (e: React.MouseEvent) => e.stopPropagation(),
    onKeyDown: (e: React.KeyboardEvent) => {
      e.stopPropagation();
      const then = e.key === 'Enter' ? 'down' : e.key === 'Tab' && !e.shiftKey ? 'right' : null;
      if (e.key === 'Escape') onLeave();
      else if (then) void onSave(then);
      else return;
      e.preventDefault();
    },
    className: 'w-full rounded-sm border border-accent px-1',
  };
  if (cell === 'verdict') {
    const words = set ? (['allow', 'drop'] as const) : VERDICTS;
    return (
      <select {...common} onChange={(e) => onText(e.target.value)}>
        {words.map((word) => (
          <option key={word}>{word}</option>
        ))}
      </select>
    );
  }
  if (cell === 'connection') {
    return (
      <textarea
        {...common}
        rows={Math.max(2, Math.ceil(text.length / 45))}
        maxLength={1000}
        spellCheck={false}
        onChange={(e) => onText(e.target.value.replaceAll('\n', ' '))}
      />
    );
  }
  return (
    <input
      {...common}
      maxLength={cell === 'tags' ? 900 : 100}
      onChange={(e) => onText(e.target.value)}
    />
  );
}
