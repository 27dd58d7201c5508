import { PGlite } from '@electric-sql/pglite';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeEmptyDatabase } from './empty-folder';

let root: string;
let folder: string;
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), 'wexikine-empty-'));
  folder = join(root, 'data/database');
});
afterEach(() => rmSync(root, { recursive: true, force: true }));

describe('an empty database', () => {
  test('is put where there is none, and opened with nothing in it', async () => {
    await makeEmptyDatabase(folder);
    expect(readdirSync(join(root, 'data'))).toEqual(['database']);
    const database = new PGlite(folder);
    const tables = await database.query(`select 1 from pg_tables where schemaname = 'public'`);
    expect(tables.rows).toEqual([]);
    await database.close();
  });

  test('takes the place of one that was broken off while it was unpacked', async () => {
    mkdirSync(join(root, 'data/database.new/base'), { recursive: true });
    writeFileSync(join(root, 'data/database.new/base/half'), 'half');
    mkdirSync(folder);
    await makeEmptyDatabase(folder);
    expect(existsSync(join(folder, 'base/half'))).toBe(false);
    expect(existsSync(join(folder, 'PG_VERSION'))).toBe(true);
    expect(readdirSync(join(root, 'data'))).toEqual(['database']);
  });

  test('leaves alone what is there already', async () => {
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, 'PG_VERSION'), 'mine');
    await makeEmptyDatabase(folder);
    expect(readdirSync(folder)).toEqual(['PG_VERSION']);
    expect(readFileSync(join(folder, 'PG_VERSION'), 'utf8')).toBe('mine');
  });
});
