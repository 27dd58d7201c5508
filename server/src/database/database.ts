import { PGlite, types, type QueryOptions, type Transaction } from '@electric-sql/pglite';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** What the tables' modules need: a database or a transaction in it. */
export interface Queries {
  many: <T>(sql: string, values?: readonly unknown[]) => Promise<T[]>;
  /** Like `many`, for thousands of rows with JSON in them: they come as one text, which is read at once. Times come as text. */
  bulk: <T>(sql: string, values?: readonly unknown[]) => Promise<T[]>;
  maybeOne: <T>(sql: string, values?: readonly unknown[]) => Promise<T | null>;
  run: (sql: string, values?: readonly unknown[]) => Promise<void>;
}

/** The application's database: queries, and transactions that take effect whole or not at all. */
export interface Database extends Queries {
  inTransaction: <T>(work: (queries: Queries) => Promise<T>) => Promise<T>;
  close: () => Promise<void>;
}

/**
 * Bytes go in as they are, and come out by the runtime's own reading of hex. The database's way goes byte by byte, which took
 * 17 s for a file of 30 MB.
 */
const BYTES: QueryOptions = {
  serializers: { [types.BYTEA]: (bytes: Uint8Array) => bytes as unknown as string },
  parsers: { [types.BYTEA]: (text: string) => new Uint8Array(Buffer.from(text.slice(2), 'hex')) },
};

function queriesOf(source: Pick<PGlite | Transaction, 'query'>): Queries {
  const many = async <T>(sql: string, values: readonly unknown[] = []): Promise<T[]> =>
    (await source.query<T>(sql, [...values], BYTES)).rows;
  return {
    many,
    bulk: async <T>(sql: string, values?: readonly unknown[]) => {
      const [row] = await many<{ all: string }>(
        `select coalesce(json_agg(rows), '[]')::text as all from (${sql}) as rows`,
        values,
      );
      return JSON.parse(row.all) as T[];
    },
    maybeOne: async <T>(sql: string, values?: readonly unknown[]) => (await many<T>(sql, values))[0] ?? null,
    run: async (sql, values) => void (await many(sql, values)),
  };
}

/** What is done of a migration after its SQL, by the name of its file, in the same transaction. */
export type Upgrades = Readonly<Record<string, (queries: Queries) => Promise<void>>>;

async function migrate(pglite: PGlite, folder: string, upgrades: Upgrades): Promise<void> {
  await pglite.exec('create table if not exists migrations (name text primary key, applied_at timestamptz not null)');
  const { rows } = await pglite.query<{ name: string }>('select name from migrations');
  const applied = new Set(rows.map(({ name }) => name));
  const waiting = readdirSync(folder).filter((name) => name.endsWith('.sql') && !applied.has(name));
  for (const name of waiting.sort()) {
    await pglite.transaction(async (transaction) => {
      await transaction.exec(readFileSync(join(folder, name), 'utf8'));
      await upgrades[name]?.(queriesOf(transaction));
      await transaction.query('insert into migrations (name, applied_at) values ($1, now())', [name]);
    });
  }
}

/** Opens a PGlite database and brings its tables up to date with the SQL files of `migrations` and what belongs to them. */
export async function openDatabase(pglite: PGlite, migrations: string, upgrades: Upgrades): Promise<Database> {
  await pglite.waitReady;
  await migrate(pglite, migrations, upgrades);
  return {
    ...queriesOf(pglite),
    inTransaction: (work) => pglite.transaction((transaction) => work(queriesOf(transaction))),
    close: () => pglite.close(),
  };
}
