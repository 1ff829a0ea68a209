import { Check } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { focusRules } from './focusRules';

/**
 * The box of a drop-down menu. With `inList` the keys go back to the list of rules behind it; with
 * `keepFocus` they stay where an item put them, as with one that starts editing.
 */
export function Menu({
  children,
  wide,
  inList,
  keepFocus,
}: {
  children: ReactNode;
  wide?: boolean;
  inList?: boolean;
  keepFocus?: boolean;
}) {
  return (
    <DropdownMenu.Portal>
      <DropdownMenu.Content
        align="end"
        sideOffset={4}
        onClick={(e) => e.stopPropagation()}
        onCloseAutoFocus={(e) => {
          const editing = keepFocus && document.activeElement instanceof HTMLInputElement;
          if (editing) e.preventDefault();
          if (!inList) return;
          e.preventDefault();
          focusRules();
        }}
        onKeyDown={(e) => e.stopPropagation()}
        className={`z-40 rounded border border-line bg-sheet py-1 shadow-lg ${wide ? 'min-w-[280px]' : 'min-w-[210px]'}`}
      >
        {children}
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
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
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
