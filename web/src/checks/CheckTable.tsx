import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useId, useRef, useState } from 'react';
import type { Rule, SavedCheck } from '../api/types';
import { isSet } from '../draft/checkSet';
import { usePrinting } from '../ui/usePrinting';
import { CELLS, cellText, type Cell, type CheckRow } from './checkRows';
import { CheckEditor } from './CheckEditor';
import { outcomeOf } from './outcome';

const WIDTHS: Record<Cell | 'result', string> = {
  name: 'w-[190px]',
  connection: 'min-w-0 flex-1',
  verdict: 'w-[74px]',
  rule: 'w-[58px]',
  group: 'w-[92px]',
  tags: 'w-[92px]',
  protected: 'w-[72px]',
  result: 'w-[210px]',
};
const WORDS: Record<Cell, string> = {
  name: 'Name',
  connection: 'Connection',
  verdict: 'Expected',
  rule: 'By rule',
  group: 'Group',
  tags: 'Tags',
  protected: 'Protected',
};

/** What the keys of the table do with checks. */
export interface TableActions {
  /** Sets the text of a cell, in all selected checks if this one is among them. */
  save(check: SavedCheck, cell: Cell, text: string): Promise<boolean>;
  /** Deletes the selected checks, or this one if none is selected. */
  remove(focused?: SavedCheck): void;
  copy(): void;
  paste(text: string): void;
  probe(check: SavedCheck): void;
  select(names: Set<string>): void;
}

/** The checks as a table that is edited in place, like a spreadsheet. */
export function CheckTable({
  rows,
  selected,
  numbers,
  byId,
  mayEdit,
  actions,
  onRule,
}: {
  rows: CheckRow[];
  selected: Set<string>;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  mayEdit: boolean;
  actions: TableActions;
  onRule(id: string): void;
}) {
  const id = useId();
  const [at, setAt] = useState<{ row: number; cell: Cell }>({ row: 0, cell: 'name' });
  const [editing, setEditing] = useState<{ name: string; cell: Cell; text: string } | null>(null);
  const [anchor, setAnchor] = useState<number | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const printing = usePrinting();
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ('heading' in rows[i]! ? 30 : 46),
    getItemKey: (i) => {
      const row = rows[i]!;
      return 'heading' in row ? `group ${row.heading}` : row.check.name;
    },
    overscan: printing ? rows.length : 8,
  });
  useEffect(() => scroller.current?.focus({ preventScroll: true }), []);
  const lines = rows.flatMap((row, i) => ('heading' in row ? [] : [i]));
  const row = lines.includes(at.row)
    ? at.row
    : (lines.find((i) => i >= at.row) ?? lines.at(-1) ?? 0);
  const current = rows[row];
  const check = current && 'check' in current ? current.check : undefined;
  const names = (from: number, to: number) =>
    new Set(
      rows
        .slice(Math.min(from, to), Math.max(from, to) + 1)
        .flatMap((one) => ('check' in one ? [one.check.name] : [])),
    );
  const move = (by: number, extend = false) => {
    const to = lines[Math.max(0, Math.min(lines.length - 1, lines.indexOf(row) + by))];
    if (to === undefined) return;
    if (extend) {
      const start = anchor ?? row;
      setAnchor(start);
      actions.select(names(start, to));
    } else setAnchor(null);
    setAt({ ...at, row: to });
    virtual.scrollToIndex(to, { align: 'auto' });
  };
  const step = (by: number) => {
    const next = CELLS[Math.max(0, Math.min(CELLS.length - 1, CELLS.indexOf(at.cell) + by))]!;
    setAt({ row, cell: next });
  };
  const edit = () => {
    if (!check || !mayEdit) return;
    if (at.cell === 'protected') {
      void actions.save(check, 'protected', check.protected ? '' : 'yes');
      return;
    }
    setEditing({
      name: check.name,
      cell: at.cell,
      text: cellText(check, at.cell, numbers),
    });
  };
  const leave = (then?: 'down' | 'right') => {
    setEditing(null);
    scroller.current?.focus({ preventScroll: true });
    if (then === 'down') move(1);
    if (then === 'right') step(1);
  };
  const keys: Record<string, (shift: boolean) => void> = {
    ArrowDown: (shift) => move(1, shift),
    ArrowUp: (shift) => move(-1, shift),
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
    PageDown: () => move(10),
    PageUp: () => move(-10),
    Home: () => move(-lines.length),
    End: () => move(lines.length),
    Enter: () => edit(),
    F2: () => edit(),
    Delete: () => mayEdit && check && actions.remove(check),
    Escape: () => actions.select(new Set()),
    ' ': () => {
      if (!check) return;
      const next = new Set(selected);
      if (!next.delete(check.name)) next.add(check.name);
      actions.select(next);
    },
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    if (editing || e.target !== e.currentTarget) return;
    if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'a') {
      e.preventDefault();
      actions.select(names(0, rows.length - 1));
      return;
    }
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (e.key === 'w' && check) {
      e.preventDefault();
      actions.probe(check);
      return;
    }
    const run = keys[e.key];
    if (!run) return;
    e.preventDefault();
    e.stopPropagation();
    run(e.shiftKey);
  };
  const focusedId = check ? `${id}-${row}-${at.cell}` : undefined;
  return (
    <div className="flex min-h-0 flex-1 flex-col" data-print>
      <div
        aria-hidden
        className="flex gap-2 border-b border-line bg-band px-6 py-1 text-[12px] text-dim"
      >
        <span className="w-[46px] shrink-0" />
        {CELLS.map((cell) => (
          <span key={cell} className={`shrink-0 ${WIDTHS[cell]}`}>
            {WORDS[cell]}
          </span>
        ))}
        <span className={`shrink-0 ${WIDTHS.result}`}>Got</span>
      </div>
      <div
        ref={scroller}
        tabIndex={0}
        role="grid"
        aria-label="Checks"
        aria-multiselectable
        aria-rowcount={rows.length}
        aria-activedescendant={focusedId}
        data-print
        onKeyDown={onKeyDown}
        onCopy={(e) => {
          if (editing) return;
          e.preventDefault();
          actions.copy();
        }}
        onPaste={(e) => {
          if (editing || !mayEdit) return;
          e.preventDefault();
          actions.paste(e.clipboardData.getData('text/plain'));
        }}
        className="group min-h-0 flex-1 overflow-y-auto focus-visible:outline-none"
      >
        <div
          data-print
          style={{ height: virtual.getTotalSize() }}
          className="relative"
          role="presentation"
        >
          {virtual.getVirtualItems().map((item) => {
            const one = rows[item.index]!;
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                role="row"
                aria-rowindex={item.index + 1}
                aria-selected={'check' in one ? selected.has(one.check.name) : undefined}
                className="absolute inset-x-0 top-0"
                style={{ transform: `translateY(${item.start}px)` }}
              >
                {'heading' in one ? (
                  <h2
                    role="gridcell"
                    className="flex gap-3 border-b border-line bg-band px-6 py-1 text-[12px] font-semibold"
                  >
                    {one.heading || 'No group'}
                    <span className="font-normal text-dim">
                      {one.passing} of {one.of} pass
                    </span>
                  </h2>
                ) : (
                  <div
                    className={`flex items-baseline gap-2 border-b border-line px-6 py-1 ${
                      selected.has(one.check.name) ? 'bg-accent-soft' : ''
                    }`}
                  >
                    <CheckLine
                      row={one}
                      id={`${id}-${item.index}`}
                      at={item.index === row ? at.cell : null}
                      editing={editing?.name === one.check.name ? editing : null}
                      numbers={numbers}
                      byId={byId}
                      onRule={onRule}
                      onProbe={() => actions.probe(one.check)}
                      onCell={(cell, event) => {
                        if (event.shiftKey) {
                          actions.select(names(anchor ?? row, item.index));
                        } else if (event.ctrlKey || event.metaKey) {
                          const next = new Set(selected);
                          if (!next.delete(one.check.name)) next.add(one.check.name);
                          actions.select(next);
                        } else if (item.index === row && cell === at.cell) {
                          edit();
                          return;
                        } else setAnchor(item.index);
                        setAt({ row: item.index, cell });
                        scroller.current?.focus({ preventScroll: true });
                      }}
                      onText={(text) => editing && setEditing({ ...editing, text })}
                      onSave={async (then) => {
                        if (editing && (await actions.save(one.check, editing.cell, editing.text)))
                          leave(then);
                      }}
                      onLeave={() => leave()}
                    />
                  </div>
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

function CheckLine({
  row: { check, state },
  id,
  at,
  editing,
  numbers,
  byId,
  onRule,
  onProbe,
  onCell,
  onText,
  onSave,
  onLeave,
}: {
  row: Extract<CheckRow, { check: SavedCheck }>;
  id: string;
  /** The focused cell, if it is in this row. */
  at: Cell | null;
  editing: { cell: Cell; text: string } | null;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  onRule(id: string): void;
  onProbe(): void;
  onCell(cell: Cell, event: React.MouseEvent): void;
  onText(text: string): void;
  onSave(then?: 'down' | 'right'): Promise<void>;
  onLeave(): void;
}) {
  const outcome = outcomeOf(check, state, numbers);
  const decides = state?.rule && byId.get(state.rule);
  return (
    <>
      <span
        role="gridcell"
        className={`w-[46px] shrink-0 font-semibold ${outcome.fails ? 'text-drop' : 'text-dim'}`}
      >
        {outcome.word}
      </span>
      {CELLS.map((cell) => {
        const focused = at === cell;
        const text = cellText(check, cell, numbers);
        return (
          <span
            key={cell}
            id={`${id}-${cell}`}
            role="gridcell"
            aria-selected={focused || undefined}
            aria-label={`${WORDS[cell]}: ${text || 'nothing'}`}
            onClick={(e) => onCell(cell, e)}
            className={`min-h-[20px] shrink-0 cursor-default rounded-sm break-words ${WIDTHS[cell]} ${
              cell === 'connection' ? 'font-mono text-[12px]' : ''
            } ${cell === 'name' ? 'font-semibold' : ''} ${
              focused && !editing
                ? 'outline-1 outline-dim group-focus-visible:outline-2 group-focus-visible:outline-accent'
                : ''
            }`}
          >
            {editing?.cell === cell ? (
              <CheckEditor
                cell={cell}
                label={`${WORDS[cell]} of ${check.name}`}
                text={editing.text}
                set={isSet(check)}
                onText={onText}
                onSave={onSave}
                onLeave={onLeave}
              />
            ) : (
              text
            )}
          </span>
        );
      })}
      <span role="gridcell" className={`shrink-0 text-[12px] ${WIDTHS.result}`}>
        {outcome.text}{' '}
        {decides && (
          <button
            type="button"
            tabIndex={-1}
            onClick={() => onRule(decides.id)}
            className="min-h-[24px] cursor-pointer text-left text-accent underline underline-offset-2"
          >
            {decides.name}
          </button>
        )}
        {at !== null && (
          <>
            {' '}
            <button
              type="button"
              tabIndex={-1}
              aria-label={`Probe ${check.name}`}
              onClick={onProbe}
              className="min-h-[24px] cursor-pointer text-dim underline underline-offset-2"
            >
              Probe
            </button>
          </>
        )}
      </span>
    </>
  );
}
