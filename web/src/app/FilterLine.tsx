import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api } from '../api/client';
import type { Draft } from '../api/types';
import { completed, filterOptions, NAMED_BY_SERVER, typedOf } from '../rules/filterOptions';
import { useCompletion } from '../ui/useCompletion';

/** The filter of the rules, with completion of its fields and their values. */
export function FilterLine({
  draft,
  filter,
  onFilter,
  onLeave,
}: {
  draft: Draft;
  filter: string;
  onFilter(text: string): void;
  onLeave(): void;
}) {
  const [open, setOpen] = useState(false);
  const { before, typed } = typedOf(filter);
  const of = NAMED_BY_SERVER[before.toLowerCase()];
  const { data: terms } = useQuery({
    queryKey: ['terms', draft.id, draft.editions, before, typed],
    queryFn: () => api.terms(draft.id, of!, typed.replace(/"/g, '')),
    enabled: open && of !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const options = open
    ? filterOptions(
        draft,
        filter,
        (terms ?? []).map((term) => term.name),
      )
    : [];
  const choose = (text: string) => onFilter(completed(filter, text));
  const box = useCompletion({
    options,
    text: filter,
    open: options.length > 0,
    first: false,
    onOpen: setOpen,
    onText: onFilter,
    onChoose: (option) => choose(option.text),
    onKey: (e, highlighted) => {
      switch (e.key) {
        case 'Escape':
          if (open && options.length > 0) {
            setOpen(false);
          } else {
            onFilter('');
            onLeave();
          }
          return true;
        case 'Tab':
          if (!options.length || e.shiftKey) return false;
          choose((highlighted ?? options[0]!).text);
          return true;
        case 'Enter':
          if (highlighted) {
            choose(highlighted.text);
          } else {
            setOpen(false);
            onLeave();
          }
          return true;
        case 'ArrowDown':
          if (options.length > 0) return false;
          onLeave();
          return true;
        default:
          return false;
      }
    },
  });
  return (
    <Popover.Root open={options.length > 0}>
      <Popover.Anchor asChild>
        <input
          {...box.input()}
          data-filter
          type="search"
          aria-label="Filter the rules"
          placeholder="/ filter: words, touches 10.4.2.9, verdict drop"
          className="w-[380px] rounded border border-transparent bg-sheen px-3 py-1 text-on-iron placeholder:text-on-iron-dim"
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={3}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          onInteractOutside={(e) => e.preventDefault()}
          className="z-40 w-[380px] rounded border border-line bg-sheet shadow-lg"
        >
          <ul
            {...box.menu({ 'aria-label': 'Completions' }, { suppressRefError: true })}
            className="max-h-[300px] overflow-auto py-1"
          >
            {options.map((option, i) => (
              <li
                key={option.text}
                {...box.option(i)}
                className={`flex cursor-pointer items-baseline gap-2 px-2 py-[2px] ${i === box.at ? 'bg-accent-soft' : ''}`}
              >
                <span className="shrink-0">{option.text}</span>
                <span className="ml-auto truncate text-[12px] text-dim">{option.detail}</span>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
