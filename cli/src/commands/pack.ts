import {
  checkRecords,
  counted,
  describePackProblem,
  frontOf,
  planImport,
  readPack,
  withNeeds,
  writePack,
  type ImportEntry,
  type ItemRecord,
} from '@wexikine/core';
import { Failure } from '../failure';
import { readBytes, readRecords, starterRecords } from '../files';

/** What the command line gives to `pack`. */
export interface PackOptions {
  readonly items?: string;
}

/** Items of several files; of an id that is there twice the later one counts. Without files the starter library. */
function gather(paths: readonly string[]): ItemRecord[] {
  if (paths.length === 0) return starterRecords();
  const byId = new Map(paths.flatMap(readRecords).map((record) => [record.id, record]));
  return [...byId.values()];
}

function chosenIds(records: readonly ItemRecord[], wanted: string | undefined): string[] {
  if (wanted === undefined) return records.map(({ id }) => id);
  return wanted.split(',').map((text) => {
    const name = text.trim();
    const found = records.find((record) => record.id === name || frontOf(record).name === name);
    if (found) return found.id;
    throw new Failure(`--items “${name}”: There is no such item. Give ids or names, with commas between.`);
  });
}

/** `wexikine pack`: items, with all that they need, as a pack; and what it says about it. */
export function packCommand(
  paths: readonly string[],
  { items }: PackOptions,
): { readonly bytes: Uint8Array; readonly report: string } {
  const records = gather(paths);
  const wanted = new Set(withNeeds(records, chosenIds(records, items)));
  const chosen = records.filter(({ id }) => wanted.has(id));
  const problems = checkRecords(chosen, []);
  if (problems.length > 0) throw new Failure(`Nothing was written.\n${problems.map(describePackProblem).join('\n')}`);
  const names = chosen.map((record) => `  ${record.id}  ${frontOf(record).name}`);
  return { bytes: writePack(chosen), report: `A pack of ${counted(chosen.length, 'item')}:\n${names.join('\n')}\n` };
}

function entryLines(entries: readonly ImportEntry[]): string[] {
  return entries.map(({ id, status, facts }) => `  ${status.padEnd(8)}  ${id}  (${facts})`);
}

/** Checks a pack, and says how its items stand to a library; without one to an empty one. */
export function validatePack(path: string, library: string | undefined): string {
  const read = readPack(readBytes(path));
  if (!read.ok) throw new Failure(`${path}: A broken pack.\n  ${read.problems.map(describePackProblem).join('\n  ')}`);
  const { report } = planImport(library === undefined ? [] : readRecords(library), read.records);
  if (report.problems.length > 0) throw new Failure(`${path}: A broken pack.\n  ${report.problems.join('\n  ')}`);
  return [
    `${path}: a valid pack of ${counted(report.entries.length, 'item')}.`,
    ...entryLines(report.entries),
    '',
  ].join('\n');
}
