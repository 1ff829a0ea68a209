import { Popover } from 'radix-ui';
import { useContext, useState } from 'react';
import type { Rule } from '../api/types';
import type { RuleActions } from './actions';
import { ChipView } from './ChipView';
import { canSay, complete, literalOf, type Option } from './completion';
import { chipsOf, type Part } from '../draft/criteria';
import { DraftContext } from './DraftContext';
import { useCompletion } from '../ui/useCompletion';
import { useTerms } from './useTerms';

const EXCEPT = /^(!|not\s+)/;
const NAME_IT = 'name it';

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
  const [error, setError] = useState<string | null>(null);
  const chips = chipsOf(rule, part);
  const except = EXCEPT.test(text);
  const query = text.replace(EXCEPT, '');
  const typed = query.trim();
  const meant = literalOf(part, typed);
  const literal = canSay(draft, meant) ? meant : null;
  const terms = useTerms(draft, part, query);
  const options = complete(draft, part, query, terms);
  // After the options comes the way to give a literal a name.
  const items: (Option | typeof NAME_IT)[] = literal ? [...options, NAME_IT] : options;

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

  const choose = (item: Option | typeof NAME_IT | undefined) => {
    if (item === NAME_IT) nameIt();
    else void add(item);
  };
  const box = useCompletion({
    options: items,
    text,
    open: true,
    first: true,
    onText: (next) => {
      setText(next);
      setError(null);
    },
    onChoose: choose,
    onKey: (e, highlighted) => {
      switch (e.key) {
        case 'Enter':
          if (highlighted === NAME_IT || typed) choose(highlighted);
          else actions.endEdit();
          return true;
        case 'Escape':
          actions.endEdit();
          return false;
        case 'Tab': {
          const go = e.shiftKey ? -1 : 1;
          if (!typed) {
            actions.endEdit(go);
            return true;
          }
          const chosen = highlighted === NAME_IT ? undefined : highlighted;
          // What exists by name cannot be refused; a literal can, and keeps the box till it is not.
          const added = add(chosen);
          if (chosen && chosen.kind !== 'literal') actions.endEdit(go);
          else void added.then((refused) => refused ?? actions.endEdit(go));
          return true;
        }
        case 'Backspace':
          if (text === '' && chips.length) {
            void actions.removeChip(rule, chips[chips.length - 1]!).then(setError);
          }
          return false;
        default:
          return false;
      }
    },
  });

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
            {...box.input()}
            autoFocus
            aria-label={`"${part}" of rule ${number}`}
            aria-invalid={error !== null}
            maxLength={200}
            placeholder={chips.length ? '' : 'any'}
            onBlur={() => typed === '' && actions.endEdit()}
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
            {...box.menu({ 'aria-label': 'Completions' }, { suppressRefError: true })}
            className="max-h-[260px] overflow-auto py-1"
          >
            {options.map((option, i) => (
              <li
                key={option.kind + option.text}
                {...box.option(i)}
                className={`flex cursor-pointer items-baseline gap-2 px-2 py-[2px] ${i === box.at ? 'bg-accent-soft' : ''}`}
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
                {...box.option(options.length)}
                className={`cursor-pointer border-t border-line px-2 py-1 text-[12px] text-accent ${box.at === options.length ? 'bg-accent-soft' : ''}`}
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
