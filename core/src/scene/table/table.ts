import Papa from 'papaparse';

/** A table as text: the names of its columns, and its rows cell by cell. */
export interface Table {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** A table that was read from text, or what is wrong with it. */
export type TableResult =
  { readonly ok: true; readonly table: Table } | { readonly ok: false; readonly message: string };

const MOST_ROWS = 20_000;
const MOST_COLUMNS = 100;
const MOST_NAME = 60;

/** Names for columns that have none, or that another column has already. */
function columnNames(head: readonly string[]): string[] {
  const taken = new Set<string>();
  return head.map((cell, i) => {
    const base = cell.trim().slice(0, MOST_NAME - 4) || `Column ${i + 1}`;
    let name = base;
    for (let n = 2; taken.has(name); n++) name = `${base} ${n}`;
    taken.add(name);
    return name;
  });
}

/** Reads CSV (RFC 4180) or what a spreadsheet gives to the clipboard; its first line names the columns. */
export function readTable(text: string): TableResult {
  const trimmed = text.replace(/^\uFEFF/, '');
  if (trimmed.trim() === '')
    return {
      ok: false,
      message: 'There is nothing here. Paste cells of a spreadsheet, the names of the columns first.',
    };
  const { data, errors } = Papa.parse<string[]>(trimmed, { skipEmptyLines: 'greedy' });
  const broken = errors.find(({ type }) => type === 'Quotes');
  if (broken)
    return {
      ok: false,
      message: `Row ${(broken.row ?? 0) + 1} has a quotation mark that is not closed. Close it, or take it out.`,
    };
  const [head, ...rows] = data;
  if (rows.length === 0)
    return {
      ok: false,
      message: 'There is only one line. The first line names the columns, the values follow below it.',
    };
  if (rows.length > MOST_ROWS)
    return { ok: false, message: `There are ${rows.length} rows; at most ${MOST_ROWS} can be taken at once.` };
  if (head.length > MOST_COLUMNS)
    return { ok: false, message: `There are ${head.length} columns; at most ${MOST_COLUMNS} can be taken at once.` };
  return {
    ok: true,
    table: {
      columns: columnNames(head.map(unguarded)),
      rows: rows.map((row) => head.map((_, i) => unguarded((row[i] ?? '').trim()))),
    },
  };
}

/** What a spreadsheet would run as a formula, or what was guarded against that. */
const RUNS = /^'*[=+\-@\t\r\uff0b\uff0d\uff1d\uff20]/;
const GUARDED = /^'+[=+\-@\t\r\uff0b\uff0d\uff1d\uff20]/;
const PLAIN_NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;

/** A cell that a spreadsheet takes for text, whatever it begins with; numbers stay numbers. */
function guarded(cell: string): string {
  return RUNS.test(cell) && !PLAIN_NUMBER.test(cell) ? `'${cell}` : cell;
}

/** The text of a cell that may have been guarded. */
function unguarded(cell: string): string {
  return GUARDED.test(cell) ? cell.slice(1) : cell;
}

/** A table as CSV (RFC 4180) whose cells no spreadsheet runs; `readTable` reads back the same texts. */
export function writeTable({ columns, rows }: Table): string {
  const line = (cells: readonly string[]): string[] => cells.map(guarded);
  return `${Papa.unparse([line(columns), ...rows.map(line)])}\r\n`;
}
