import type { LogRow } from '../api/types';
import { size } from '../ui/numbers';

/** A column that the log can have, besides time, verdict and rule. */
export interface Column {
  id: string;
  word: string;
  mono?: boolean;
  /** In pixels; the others share what is left. */
  width?: number;
  of(row: LogRow): string;
}

export const COLUMNS: Column[] = [
  { id: 'person', word: 'person', of: (row) => row.person ?? '' },
  { id: 'from', word: 'source', mono: true, width: 122, of: (row) => row.from },
  { id: 'fromZone', word: 'source zone', of: (row) => row.fromZone },
  { id: 'to', word: 'destination', mono: true, width: 122, of: (row) => row.to },
  { id: 'toZone', word: 'destination zone', of: (row) => row.toZone },
  { id: 'service', word: 'service', mono: true, width: 74, of: (row) => row.service },
  { id: 'application', word: 'application', of: (row) => row.application ?? row.site ?? '' },
  { id: 'gateway', word: 'gateway', of: (row) => row.gateway },
  { id: 'bytes', word: 'size', width: 64, of: (row) => size(row.bytes) },
];

const STORED = 'iron-sieve log columns';
const FIRST = ['person', 'from', 'to', 'service', 'application'];

/** The ids of the columns that this browser shows. */
export function shownColumns(): string[] {
  const stored = localStorage.getItem(STORED)?.split(' ') ?? FIRST;
  const known = stored.filter((id) => COLUMNS.some((column) => column.id === id));
  return known.length ? known : FIRST;
}

export const storeColumns = (ids: string[]) => localStorage.setItem(STORED, ids.join(' '));
