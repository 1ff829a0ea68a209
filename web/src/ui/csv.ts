import { unparse } from 'papaparse';

/** Rows as CSV (RFC 4180). A cell that a spreadsheet would compute gets an apostrophe before it. */
export const csvOf = (rows: string[][]) => unparse(rows, { escapeFormulae: true });
