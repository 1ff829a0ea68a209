import { useVirtualizer } from '@tanstack/react-virtual';
import { useId, useRef, type ReactNode } from 'react';

const ROW = 26;
const PAGE = 12;

/** A long list of which one is chosen, by pointer or by the arrow keys. */
export function PickList<T>({
  name,
  none,
  items,
  chosen,
  keyOf,
  onChoose,
  className = 'w-[420px] shrink-0',
  children,
}: {
  name: string;
  none: string;
  items: T[];
  chosen: T | undefined;
  keyOf(item: T): string;
  /** `passing`: by an arrow key, which may go on to the next. */
  onChoose(item: T, passing: boolean): void;
  className?: string;
  children(item: T): ReactNode;
}) {
  const id = useId();
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: PAGE,
  });
  const at = chosen === undefined ? -1 : items.indexOf(chosen);
  const step = (to: number) => {
    const next = Math.max(0, Math.min(items.length - 1, to));
    onChoose(items[next]!, true);
    rows.scrollToIndex(next);
  };
  if (items.length === 0) {
    return <p className={`${className} text-dim`}>{none}</p>;
  }
  return (
    <div
      ref={box}
      role="listbox"
      tabIndex={0}
      aria-label={name}
      aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
      onKeyDown={(e) => {
        const to = { ArrowDown: at + 1, ArrowUp: at - 1, PageDown: at + PAGE, PageUp: at - PAGE }[
          e.key
        ];
        if (to !== undefined) {
          e.preventDefault();
          step(to);
        }
      }}
      className={`${className} overflow-y-auto border-t border-line`}
    >
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map((row) => {
          const item = items[row.index]!;
          return (
            <div
              key={keyOf(item)}
              id={`${id}-${row.index}`}
              role="option"
              aria-selected={item === chosen}
              onClick={() => onChoose(item, false)}
              style={{ height: ROW, transform: `translateY(${row.start}px)` }}
              className={`absolute inset-x-0 flex cursor-pointer items-center gap-2 border-b border-line px-2 ${
                item === chosen ? 'bg-accent-soft' : 'hover:bg-band'
              }`}
            >
              {children(item)}
            </div>
          );
        })}
      </div>
    </div>
  );
}
