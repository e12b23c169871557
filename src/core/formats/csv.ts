/** Comma-separated values, in and out: cells that a spreadsheet would run as a formula are made harmless, and read back as they were. */
import Papa from 'papaparse';

/** A cell that begins like a formula (OWASP, "CSV injection"), or like one that has been made harmless. */
const formulaLike = /^'*[=+\-@\t\r]/;

const harmless = (cell: string): string => (formulaLike.test(cell) && !isNumber(cell) ? `'${cell}` : cell);
const asItWas = (cell: string): string => (cell.startsWith("'") && formulaLike.test(cell) ? cell.slice(1) : cell);
const isNumber = (cell: string): boolean => /^[+-]?\d+([.,]\d+)?$/.test(cell);

/** Rows as text: comma, CRLF, quoted where needed (RFC 4180). */
export function writeCsv(rows: readonly (readonly string[])[]): string {
  return `${Papa.unparse(
    rows.map((row) => row.map(harmless)),
    { newline: '\r\n' }
  )}\r\n`;
}

export interface CsvRead {
  readonly header: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Most columns read of a table: more would be no table anybody made. */
export const maxColumns = 200;

/**
 * Reads text of any usual separator; empty rows are left out. Says why it cannot be read. It stops at the first row that is
 * too wide and at the first row too many, however long the text is.
 */
export function readCsv(text: string, mostRows: number): CsvRead | string {
  const data: string[][] = [];
  let broken: number | null = null;
  let widest = 0;
  Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    // One more than may be, to know that there are more; the first is the header.
    preview: mostRows + 2,
    step: ({ data: row, errors }, parser) => {
      if (errors.some((error) => error.type === 'Quotes')) broken ??= data.length + 1;
      widest = Math.max(widest, row.length);
      if (widest > maxColumns || broken !== null) parser.abort();
      else data.push(row.map((cell) => asItWas(cell.trim())));
    }
  });
  if (broken !== null) return `Row ${String(broken)} has a quotation mark that is never closed.`;
  if (widest > maxColumns) return `The file has more than ${maxColumns} columns.`;
  const [header, ...rows] = data;
  if (!header || rows.length === 0) return 'The file has no rows under its heading.';
  if (rows.length > mostRows) return `The file has more than ${mostRows} rows; a job holds ${mostRows} setups.`;
  return { header, rows };
}

/** The text of a file in whatever encoding it was written: UTF-8, UTF-16 with its mark, else Windows-1252. */
export function decoded(bytes: Uint8Array): { readonly text: string; readonly encoding: string } {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (first === 0xfe && second === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}
