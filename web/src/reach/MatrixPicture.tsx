import { useRef } from 'react';
import type { Rule, ZoneMatrix } from '../api/types';
import { Mesh } from '../rules/Mesh';

const MOST_NAMED = 3;

type Cell = ZoneMatrix['cells'][number];

/** The open holes of a cell: none and all only where none or all is open. */
export const holesOf = ({ open, of }: Cell) =>
  open === 0 ? 0 : open === of ? 10 : Math.min(9, Math.max(1, Math.round((open / of) * 10)));

/** A cell in words. */
export function cellWords(
  cell: Cell,
  numbers: Map<string, number>,
  byId: Map<string, Rule>,
): string {
  const proved = cell.exact ? '' : ', perhaps more';
  if (cell.open === 0) return `nothing${proved}`;
  const rules = cell.rules.map((id) => `${numbers.get(id) ?? '?'}`);
  const by =
    rules.length === 1
      ? `by rule ${rules[0]} ${byId.get(cell.rules[0]!)?.name ?? ''}`.trimEnd()
      : `by rules ${rules.slice(0, MOST_NAMED).join(', ')}${
          rules.length > MOST_NAMED ? ` and ${rules.length - MOST_NAMED} more` : ''
        }`;
  const kinds = cell.open === cell.of ? 'every service' : `${cell.open} of ${cell.of} services`;
  return `${kinds}${proved}, ${by}`;
}

/** How much is open from each zone to each other one: a grid that arrow keys move in. */
export function MatrixPicture({
  matrix,
  numbers,
  byId,
  at,
  onMove,
  onAsk,
}: {
  matrix: ZoneMatrix;
  numbers: Map<string, number>;
  byId: Map<string, Rule>;
  /** Row and column of the focused cell. */
  at: [number, number];
  onMove(at: [number, number]): void;
  onAsk(from: string, to: string): void;
}) {
  const { zones } = matrix;
  const table = useRef<HTMLTableElement>(null);
  const move = (row: number, column: number) => {
    const to: [number, number] = [
      Math.max(0, Math.min(zones.length - 1, row)),
      Math.max(0, Math.min(zones.length - 1, column)),
    ];
    onMove(to);
    table.current
      ?.querySelector<HTMLElement>(`[data-cell="${to[0]} ${to[1]}"]`)
      ?.focus({ preventScroll: false });
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    const [row, column] = at;
    const moves: Record<string, () => void> = {
      ArrowDown: () => move(row + 1, column),
      ArrowUp: () => move(row - 1, column),
      ArrowRight: () => move(row, column + 1),
      ArrowLeft: () => move(row, column - 1),
      Home: () => move(row, 0),
      End: () => move(row, zones.length - 1),
      PageUp: () => move(0, column),
      PageDown: () => move(zones.length - 1, column),
    };
    const run = moves[e.key];
    if (!run || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    e.stopPropagation();
    run();
  };
  return (
    <table
      ref={table}
      role="grid"
      aria-label="Zone matrix"
      onKeyDown={onKeyDown}
      className="border-separate border-spacing-0"
    >
      <thead>
        <tr>
          <th className="sticky left-0 bg-paper" />
          {zones.map((zone) => (
            <th key={zone} scope="col" className="h-[92px] w-[54px] min-w-[54px] align-bottom">
              <span className="relative block h-[88px]">
                <span
                  title={zone}
                  className="absolute bottom-1 left-[22px] block max-w-[120px] origin-bottom-left -rotate-[38deg] truncate text-[12px] font-normal text-dim"
                >
                  {zone}
                </span>
              </span>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {zones.map((from, row) => (
          <tr key={from}>
            <th
              scope="row"
              title={from}
              className="sticky left-0 max-w-[120px] truncate bg-paper pr-2 text-right text-[12px] font-normal text-dim"
            >
              {from}
            </th>
            {zones.map((to, column) => {
              const cell = matrix.cells[row * zones.length + column]!;
              const holes = holesOf(cell);
              const focused = at[0] === row && at[1] === column;
              const words = `from ${from} to ${to}: ${cellWords(cell, numbers, byId)}`;
              return (
                <td
                  key={to}
                  role="gridcell"
                  data-cell={`${row} ${column}`}
                  tabIndex={focused ? 0 : -1}
                  aria-selected={focused}
                  aria-label={words}
                  title={words}
                  onFocus={() => !focused && onMove([row, column])}
                  onClick={() => {
                    move(row, column);
                    onAsk(from, to);
                  }}
                  onKeyDown={(e) => {
                    if (e.key !== 'Enter' && e.key !== ' ') return;
                    e.preventDefault();
                    e.stopPropagation();
                    onAsk(from, to);
                  }}
                  className={`h-[30px] cursor-pointer text-center ${focused ? 'bg-accent-soft' : 'hover:bg-band'}`}
                >
                  <Mesh open={holes} hole="var(--allow)" />
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
