import { useEffect, useRef } from 'react';
import type { LogRow } from '../api/types';
import { VERDICT_CLASS } from '../ui/verdicts';
import { timeIn } from '../ui/times';
import type { Column } from './columns';

/** The list of records, the newest first; arrow keys go through it. */
export function Records({
  rows,
  columns,
  zone,
  focused,
  onFocus,
  onKey,
}: {
  rows: LogRow[];
  columns: Column[];
  zone: string;
  /** Cursor of the record whose details are shown. */
  focused: string;
  onFocus(cursor: string): void;
  /** Takes the other keys; true if it knows one. */
  onKey(key: string, row: LogRow): boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  const now = new Date();
  const at = rows.findIndex((row) => row.cursor === focused);
  useEffect(() => {
    box.current?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' });
  }, [focused]);
  const go = (to: number) => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, to))];
    if (row) onFocus(row.cursor);
  };
  return (
    <div ref={box} className="min-h-0 flex-1 overflow-auto border-y border-line">
      <table
        role="grid"
        aria-label="Log records"
        aria-rowcount={rows.length}
        aria-activedescendant={at >= 0 ? `record-${at}` : undefined}
        tabIndex={0}
        data-records
        onKeyDown={(e) => {
          if (e.ctrlKey || e.metaKey || e.altKey) return;
          const steps: Record<string, number> = {
            ArrowDown: at + 1,
            ArrowUp: at - 1,
            PageDown: at + 15,
            PageUp: at - 15,
            Home: 0,
            End: rows.length - 1,
          };
          const row = rows[Math.max(0, at)];
          if (e.key in steps) go(steps[e.key]!);
          else if (!row || !onKey(e.key, row)) return;
          e.preventDefault();
          e.stopPropagation();
        }}
        className="w-full table-fixed border-collapse"
      >
        <thead className="sticky top-0 bg-sheet">
          <tr role="row" className="text-left text-[12px] text-dim">
            <Head word="time" className="w-[84px] pl-3" />
            {columns.map((column) => (
              <Head key={column.id} word={column.word} width={column.width} />
            ))}
            <Head word="verdict" className="w-[66px]" />
            <Head word="decided by" className="w-[24%]" />
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr
              key={row.cursor}
              id={`record-${i}`}
              role="row"
              aria-selected={row.cursor === focused}
              onClick={() => onFocus(row.cursor)}
              className={`cursor-pointer border-t border-line ${
                row.cursor === focused ? 'bg-accent-soft' : 'bg-sheet'
              }`}
            >
              <Cell mono className="pl-3">
                {timeIn(zone, row.at, now)}
              </Cell>
              {columns.map((column) => (
                <Cell key={column.id} mono={column.mono}>
                  {column.of(row)}
                </Cell>
              ))}
              <Cell className={`font-semibold ${VERDICT_CLASS[row.verdict]}`}>{row.verdict}</Cell>
              <Cell>
                {row.rule ? `${row.ruleNumber ?? ''} ${row.ruleName ?? row.rule}` : 'Default rule'}
              </Cell>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Head({
  word,
  width,
  className = '',
}: {
  word: string;
  width?: number;
  className?: string;
}) {
  return (
    <th
      scope="col"
      role="columnheader"
      style={{ width }}
      className={`truncate py-1 pr-2 font-normal ${className}`}
    >
      {word}
    </th>
  );
}

function Cell({
  children,
  mono,
  className = '',
}: {
  children: React.ReactNode;
  mono?: boolean;
  className?: string;
}) {
  return (
    <td
      role="gridcell"
      className={`truncate py-[3px] pr-2 ${mono ? 'font-mono text-[12px]' : ''} ${className}`}
    >
      {children}
    </td>
  );
}
