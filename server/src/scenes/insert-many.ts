import type { Queries } from '../database';

/** Rows in one statement; the protocol allows 65 535 values. */
const ROWS = 200;

/** Inserts rows, many to a statement. `into` names the table and its columns. */
export async function insertMany(queries: Queries, into: string, rows: readonly (readonly unknown[])[]): Promise<void> {
  for (let from = 0; from < rows.length; from += ROWS) {
    const some = rows.slice(from, from + ROWS);
    let place = 0;
    const values = some.map((row) => `(${row.map(() => `$${++place}`).join(', ')})`).join(', ');
    await queries.run(`insert into ${into} values ${values}`, some.flat());
  }
}
