import { Popover } from 'radix-ui';
import { useContext, useId, useState } from 'react';
import type { Rule } from '../api/types';
import type { RuleActions } from './actions';
import { ChipView } from './ChipView';
import { canSay, complete, literalOf, type Option } from './completion';
import { chipsOf, type Part } from '../draft/criteria';
import { DraftContext } from './DraftContext';
import { useTerms } from './useTerms';

const EXCEPT = /^(!|not\s+)/;

const EXAMPLES: Record<Part, string> = {
  from: 'address like 10.4.0.0/16 or device like managed, has disk-lock',
  to: 'address like 10.4.0.0/16 or host like *.quay.example',
  for: 'service like tcp/8443 or time like weekdays 06:00-22:00',
};

/**
 * The chips of one part while they are edited: a box with completion behind them. Every chip is
 * saved at once. "not" or "!" before a name makes an exception.
 */
export function ChipEditor({
  rule,
  number,
  part,
  actions,
}: {
  rule: Rule;
  number: number;
  part: Part;
  actions: RuleActions;
}) {
  const draft = useContext(DraftContext)!;
  const [text, setText] = useState('');
  const [active, setActive] = useState(0);
  const [error, setError] = useState<string | null>(null);
  const list = useId();
  const chips = chipsOf(rule, part);
  const except = EXCEPT.test(text);
  const query = text.replace(EXCEPT, '');
  const typed = query.trim();
  const meant = literalOf(part, typed);
  const literal = canSay(draft, meant) ? meant : null;
  const terms = useTerms(draft, part, query);
  const options = complete(draft, part, query, terms);
  // Behind the options stands the way to give a literal a name.
  const last = options.length - 1 + (literal ? 1 : 0);
  const at = Math.min(active, Math.max(0, last));
  const naming = literal !== null && at === options.length;

  const add = async (option: Option | undefined): Promise<string | null> => {
    if (!option) {
      setError(
        query.trim()
          ? `Nothing is called "${query.trim()}", and it is no ${EXAMPLES[part]}.`
          : null,
      );
      return 'nothing fits';
    }
    // The box is free for the next one at once; what is refused comes back, if it still is.
    const typed = text;
    setText('');
    setActive(0);
    setError(null);
    const { criterion, text: chosen } = option;
    const refused = await actions.addChip(rule, { criterion, text: chosen, except });
    if (refused) {
      setText((now) => now || typed);
      setError(`${chosen}: ${refused}`);
    }
    return refused;
  };

  const nameIt = () => {
    if (literal) actions.nameLiteral(rule, { criterion: literal, text: typed, except });
  };

  const onKeyDown = (e: React.KeyboardEvent) => {
    e.stopPropagation();
    switch (e.key) {
      case 'ArrowDown':
        e.preventDefault();
        setActive(Math.min(at + 1, last));
        break;
      case 'ArrowUp':
        e.preventDefault();
        setActive(Math.max(at - 1, 0));
        break;
      case 'Enter':
        e.preventDefault();
        if (naming) nameIt();
        else if (query.trim()) void add(options[at]);
        else actions.endEdit();
        break;
      case 'Escape':
        actions.endEdit();
        break;
      case 'Tab':
        e.preventDefault();
        if (query.trim()) {
          const go = e.shiftKey ? -1 : 1;
          const chosen = options[at];
          // What exists by name cannot be refused; a literal can, and keeps the box till it is not.
          const added = add(chosen);
          if (chosen && chosen.kind !== 'literal') actions.endEdit(go);
          else void added.then((refused) => refused ?? actions.endEdit(go));
        } else {
          actions.endEdit(e.shiftKey ? -1 : 1);
        }
        break;
      case 'Backspace':
        if (text === '' && chips.length) {
          void actions.removeChip(rule, chips[chips.length - 1]!).then(setError);
        }
        break;
    }
  };

  return (
    <Popover.Root open>
      <Popover.Anchor asChild>
        <div
          data-part={part}
          onClick={(e) => e.stopPropagation()}
          className="flex min-w-0 flex-wrap items-center gap-1 rounded border border-accent bg-sheet px-1 py-px"
        >
          {chips.map((chip) => (
            <ChipView
              key={chip.criterion + chip.text + chip.except}
              chip={chip}
              onRemove={() => void actions.removeChip(rule, chip).then(setError)}
            />
          ))}
          <input
            autoFocus
            role="combobox"
            aria-label={`"${part}" of rule ${number}`}
            aria-expanded={options.length > 0}
            aria-controls={list}
            aria-activedescendant={last >= 0 ? `${list}-${at}` : undefined}
            aria-invalid={error !== null}
            aria-autocomplete="list"
            value={text}
            maxLength={200}
            placeholder={chips.length ? '' : 'any'}
            onChange={(e) => {
              setText(e.target.value);
              setActive(0);
              setError(null);
            }}
            onBlur={() => query.trim() === '' && actions.endEdit()}
            onKeyDown={onKeyDown}
            className="min-w-[60px] flex-1 bg-transparent text-[12px] outline-none"
          />
        </div>
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={3}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
          className="z-40 w-[320px] rounded border border-line bg-sheet shadow-lg"
        >
          {error && (
            <p role="alert" className="border-b border-line px-2 py-1 text-[12px] text-drop">
              {error}
            </p>
          )}
          <ul
            id={list}
            role="listbox"
            aria-label="Completions"
            className="max-h-[260px] overflow-auto py-1"
          >
            {options.map((option, i) => (
              <li
                key={option.kind + option.text}
                id={`${list}-${i}`}
                role="option"
                aria-selected={i === at}
                ref={(node) => {
                  if (i === at) node?.scrollIntoView({ block: 'nearest' });
                }}
                onPointerDown={(e) => {
                  e.preventDefault();
                  void add(option);
                }}
                className={`flex cursor-pointer items-baseline gap-2 px-2 py-[2px] ${i === at ? 'bg-accent-soft' : ''}`}
              >
                {except && <span className="text-[12px] text-drop">not</span>}
                <span
                  className={`shrink-0 ${option.kind === 'literal' ? 'font-mono text-[12px]' : ''}`}
                >
                  {option.text}
                </span>
                <span className="ml-auto truncate text-[12px] text-dim">
                  {option.kind === 'literal'
                    ? option.detail
                    : [option.kind, option.detail].filter(Boolean).join(' · ')}
                </span>
              </li>
            ))}
            {literal && (
              <li
                id={`${list}-${options.length}`}
                role="option"
                aria-selected={naming}
                onPointerDown={(e) => {
                  e.preventDefault();
                  nameIt();
                }}
                className={`cursor-pointer border-t border-line px-2 py-1 text-[12px] text-accent ${naming ? 'bg-accent-soft' : ''}`}
              >
                Create an object of it…
              </li>
            )}
            {options.length === 0 && !literal && (
              <li className="px-2 py-1 text-[12px] text-dim">Nothing fits "{query}".</li>
            )}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
