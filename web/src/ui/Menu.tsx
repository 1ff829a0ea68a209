import { Check } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { createContext, use, useCallback, useRef, type ReactNode } from 'react';
import { flushSync } from 'react-dom';
import { focusRules } from './focus';

/** Takes the action of the chosen item. It runs once the menu is closed: it may move the focus. */
const Choose = createContext<(action: () => void) => void>(() => undefined);

/** The box of a drop-down menu. With `inList` the keys go back to the list of rules behind it. */
export function Menu({
  children,
  wide,
  inList,
}: {
  children: ReactNode;
  wide?: boolean;
  inList?: boolean;
}) {
  const chosen = useRef<(() => void) | null>(null);
  const choose = useCallback((action: () => void) => {
    chosen.current = action;
  }, []);
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="end"
        sideOffset={4}
        onClick={(e) => e.stopPropagation()}
        onCloseAutoFocus={(e) => {
          if (inList) {
            e.preventDefault();
            focusRules();
          }
          const action = chosen.current;
          chosen.current = null;
          // At once, so that no key meant for what it opens reaches the list of rules before.
          if (action) queueMicrotask(() => flushSync(action));
        }}
        onKeyDown={(e) => e.stopPropagation()}
        className={`z-40 rounded border border-line bg-sheet py-1 shadow-lg ${wide ? 'min-w-[280px]' : 'min-w-[210px]'}`}
      >
        <Choose value={choose}>{children}</Choose>
      </DropdownMenu.Content>
    </DropdownMenu.Portal>
  );
}

export function MenuItem({
  children,
  keys,
  checked,
  onSelect,
}: {
  children: ReactNode;
  keys?: string;
  checked?: boolean;
  onSelect(): void;
}) {
  const choose = use(Choose);
  return (
    <DropdownMenu.Item
      onSelect={() => choose(onSelect)}
      className="flex cursor-pointer items-baseline gap-3 px-3 py-[3px] outline-none data-[highlighted]:bg-accent-soft"
    >
      {checked !== undefined && (
        <Check size={13} aria-hidden className={`self-center ${checked ? '' : 'opacity-0'}`} />
      )}
      {children}
      {keys && <kbd className="ml-auto pl-6 font-sans text-[12px] text-dim">{keys}</kbd>}
    </DropdownMenu.Item>
  );
}

export function MenuLine() {
  return <DropdownMenu.Separator className="my-1 h-px bg-line" />;
}
