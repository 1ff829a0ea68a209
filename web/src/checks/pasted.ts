import { parse } from 'papaparse';
import type { SavedCheck, Verdict } from '../api/types';

/** What a column of a pasted table holds. */
export const COLUMNS = [
  'name',
  'connection',
  'expected',
  'rule',
  'group',
  'tags',
  'protected',
] as const;
export type Column = (typeof COLUMNS)[number];

export const VERDICTS: Verdict[] = ['allow', 'drop', 'reject', 'caution'];

const HEADERS: Record<Column, string[]> = {
  name: ['name', 'check', 'title'],
  connection: ['connection', 'line', 'probe'],
  expected: ['expected', 'verdict', 'expected verdict'],
  rule: ['rule', 'only by', 'by rule'],
  group: ['group'],
  tags: ['tags', 'tag'],
  protected: ['protected'],
};
const CONNECTION = /(^|\s)(from|to|all)(\s|$)|^(tcp|udp|icmp|sctp)(\/|$)/i;
const MOST = 10_000;

/** The cells of a text: tabs between them, as a spreadsheet copies, or CSV. */
export function readTable(text: string): string[][] {
  const first = text.split('\n', 1)[0]!;
  const { data } = parse<string[]>(text.trimEnd(), {
    delimiter: first.includes('\t')
      ? '\t'
      : first.includes(';') && !first.includes(',')
        ? ';'
        : ',',
    skipEmptyLines: 'greedy',
  });
  return data.slice(0, MOST).map((row) => row.map((cell) => cell.trim()));
}

/** The meaning of each column, by its heading or else by its cells; null if unknown. */
export function guessColumns(table: string[][]): { header: boolean; columns: (Column | null)[] } {
  const width = Math.max(0, ...table.map((row) => row.length));
  const headings = Array.from({ length: width }, (_, i) => headingOf(table[0]?.[i] ?? ''));
  if (headings.filter(Boolean).length >= Math.min(2, width)) {
    return {
      header: true,
      columns: headings.map((one, i) => (headings.indexOf(one) === i ? one : null)),
    };
  }
  const columns: (Column | null)[] = Array.from({ length: width }, () => null);
  const cells = (i: number) => table.map((row) => row[i] ?? '').filter(Boolean);
  const mostly = (i: number, fits: (cell: string) => boolean) =>
    cells(i).length > 0 && cells(i).filter(fits).length > cells(i).length / 2;
  const take = (column: Column, fits: (cell: string) => boolean) => {
    const at = columns.findIndex((known, i) => known === null && mostly(i, fits));
    if (at >= 0) columns[at] = column;
  };
  take('expected', (cell) => verdictOf(cell) !== null);
  take('connection', (cell) => CONNECTION.test(cell));
  take('protected', (cell) => /^(yes|no|true|false|protected)$/i.test(cell));
  take('rule', (cell) => /^\d+$/.test(cell));
  take('name', () => true);
  take('group', () => true);
  take('tags', () => true);
  return { header: false, columns };
}

const headingOf = (cell: string) =>
  COLUMNS.find((column) => HEADERS[column].includes(cell.toLowerCase())) ?? null;

/** The verdict that a word of a table stands for. */
export function verdictOf(cell: string): Verdict | null {
  const word = cell.toLowerCase();
  return VERDICTS.find((verdict) => verdict === word) ?? null;
}

/** A row of a table that may become a check. */
export interface PastedRow {
  name: string;
  connection: string;
  /** The verdict of the row; null to expect the verdict that the connection gets now. */
  expected: Verdict | null;
  rule?: string;
  group?: string;
  tags?: string[];
  protected?: boolean;
  fault?: string;
}

/**
 * The rows of a table.
 *
 * @param byNumber ids of rules
 */
export function rowsOf(
  table: string[][],
  header: boolean,
  columns: (Column | null)[],
  byNumber: Map<string, string>,
): PastedRow[] {
  return table.slice(header ? 1 : 0).map((cells) => {
    const cell = (column: Column) => cells[columns.indexOf(column)] ?? '';
    const said = cell('expected');
    const number = cell('rule');
    const expected = verdictOf(said);
    const connection = cell('connection');
    const faults = [
      !connection && 'no connection',
      said !== '' && !expected && `expected one of ${VERDICTS.join(', ')}, found “${said}”`,
      number !== '' && !byNumber.has(number) && `there is no rule ${number}`,
    ].filter(Boolean);
    return {
      name: (cell('name') || connection).slice(0, 100),
      connection,
      expected,
      rule: byNumber.get(number),
      group: cell('group') || undefined,
      tags: cell('tags')
        ? cell('tags')
            .split(/[,;]\s*/)
            .filter(Boolean)
        : undefined,
      protected: /^(yes|true|protected)$/i.test(cell('protected')) || undefined,
      fault: faults.length > 0 ? faults.join('; ') : undefined,
    };
  });
}

/** The rows with names of their own: a number follows a name that another row has. */
export function withOwnNames(rows: PastedRow[]): PastedRow[] {
  const taken = new Map<string, number>();
  return rows.map((row) => {
    const key = row.name.toLowerCase();
    const before = taken.get(key) ?? 0;
    taken.set(key, before + 1);
    return before === 0 ? row : { ...row, name: `${row.name.slice(0, 94)} (${before + 1})` };
  });
}

/** The heading and the cells of checks, as they are exported and copied. */
export function tableOf(checks: SavedCheck[], numbers: Map<string, number>): string[][] {
  return [
    [...COLUMNS],
    ...checks.map((check) => [
      check.name,
      check.connection,
      check.verdict,
      check.rule ? `${numbers.get(check.rule) ?? ''}` : '',
      check.group ?? '',
      (check.tags ?? []).join(', '),
      check.protected ? 'yes' : '',
    ]),
  ];
}
