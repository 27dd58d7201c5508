/** Creates one migrated database and keeps it as a file that every server test loads; creating one takes seconds. */
const { mkdirSync, readdirSync, readFileSync, writeFileSync, existsSync } = require('node:fs');
const { join } = require('node:path');
const { createHash } = require('node:crypto');

module.exports = async () => {
  const folder = join(__dirname, '../migrations');
  const names = readdirSync(folder).sort();
  const sql = names.map((name) => readFileSync(join(folder, name), 'utf8'));
  const hash = createHash('sha256').update(sql.join('\n')).digest('hex').slice(0, 12);
  const target = join(__dirname, `../dist/testing/migrated-${hash}.tar`);
  process.env.WEXIKINE_MIGRATED = target;
  if (existsSync(target)) return;
  const { PGlite } = await import('@electric-sql/pglite');
  const { dataDir } = await import('@electric-sql/pglite-prepopulatedfs');
  const database = new PGlite({ loadDataDir: await dataDir() });
  await database.exec('create table migrations (name text primary key, applied_at timestamptz not null)');
  for (const [i, name] of names.entries()) {
    await database.exec(sql[i]);
    await database.query('insert into migrations values ($1, now())', [name]);
  }
  const dump = await database.dumpDataDir('none');
  await database.close();
  mkdirSync(join(__dirname, '../dist/testing'), { recursive: true });
  writeFileSync(target, Buffer.from(await dump.arrayBuffer()));
};
