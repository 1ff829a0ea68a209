import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { CompletionList } from '../ui/CompletionList';
import { useCompletion } from '../ui/useCompletion';
import { namesAt, questionOptions } from './questionOptions';

/** A reach question in one line, with completion. */
export function QuestionLine({
  draft,
  line,
  error,
  onLine,
  onLeave,
}: {
  draft: Draft;
  line: string;
  error: string | null;
  onLine(line: string): void;
  onLeave(): void;
}) {
  const [open, setOpen] = useState(false);
  const of = open ? namesAt(line) : [];
  const typed = /[^\s,]*$/.exec(line)![0];
  const { data: terms } = useQuery({
    queryKey: ['terms', draft.id, draft.editions, of, typed],
    queryFn: () => api.terms(draft.id, of, typed),
    enabled: of.length > 0,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const names = of.length > 0 ? (terms ?? []).map((term) => term.name) : [];
  const { start, options } = open ? questionOptions(draft, line, names) : { start: 0, options: [] };
  const take = (text: string) => onLine(`${line.slice(0, start)}${text} `);
  const box = useCompletion({
    options,
    text: line,
    open: options.length > 0,
    first: false,
    onOpen: setOpen,
    onText: (text) => onLine(text.replaceAll('\n', ' ')),
    onChoose: (option) => take(option.text),
    onKey: (e, highlighted) => {
      if (e.key === 'Tab' && options.length > 0 && !e.shiftKey && line.trim() !== '') {
        take((highlighted ?? options[0]!).text);
        return true;
      }
      if (e.key === 'Enter') {
        if (highlighted) take(highlighted.text);
        else setOpen(false);
        return true;
      }
      if (e.key === 'Escape') {
        if (options.length > 0) setOpen(false);
        else onLeave();
        return true;
      }
      return false;
    },
  });
  return (
    <div>
      <label {...box.label()} className="mb-1 block text-[12px] font-semibold text-dim">
        Question
      </label>
      <textarea
        {...box.input()}
        data-question
        rows={2}
        spellCheck={false}
        maxLength={1000}
        aria-invalid={error !== null}
        aria-describedby={error ? 'question-error' : undefined}
        placeholder="who can reach datacentre from offices"
        onFocus={() => setOpen(true)}
        className="w-full resize-none rounded border border-dim bg-sheet px-2 py-1 font-mono text-[12px] leading-[18px]"
      />
      <CompletionList box={box} options={options} label="Completions of the question" />
      {error && (
        <p id="question-error" role="alert" className="mt-1 text-[12px] text-drop">
          {error}
        </p>
      )}
    </div>
  );
}
