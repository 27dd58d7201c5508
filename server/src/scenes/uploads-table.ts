import type { Queries } from '../database';
import type { Prepared, PreparedChunk } from '../packing';
import { insertMany } from './insert-many';
import type { UploadedRun } from './runs-table';

/** A part of a save that is under way, without its bytes. */
export interface UploadPart {
  readonly part: number;
  readonly chunks: readonly PreparedChunk['entries'][];
  readonly runs: readonly UploadedRun[];
}

/** Gives nothing where the part was sent before. */
const INSERT_PART = `insert into upload_parts (upload_id, part, at, chunks, runs)
  values ($1, $2, $3, $4::jsonb, $5::jsonb) on conflict do nothing returning part`;

/** Keeps a part until its save is done; sent again, it takes the place of the first. */
export async function putPart(
  queries: Queries,
  upload: string,
  part: number,
  { chunks, runs }: Prepared,
  when: string,
): Promise<void> {
  let place = chunks.length;
  const uploaded = runs.map(({ row, slices }): UploadedRun => {
    const first = place;
    place += slices.length;
    return { row, first, slices: slices.length };
  });
  const bodies = [...chunks.map(({ body }) => body), ...runs.flatMap(({ slices }) => slices)];
  const values = [upload, part, when, JSON.stringify(chunks.map(({ entries }) => entries)), JSON.stringify(uploaded)];
  if (!(await queries.maybeOne(INSERT_PART, values))) {
    await queries.run('delete from upload_parts where upload_id = $1 and part = $2', [upload, part]);
    await queries.run(INSERT_PART, values);
  }
  await insertMany(
    queries,
    'upload_bodies (upload_id, part, place, body)',
    bodies.map((body, i) => [upload, part, i, body]),
  );
}

/** The parts of an upload in their order. */
export function manyParts(queries: Queries, upload: string): Promise<UploadPart[]> {
  return queries.many<UploadPart>('select part, chunks, runs from upload_parts where upload_id = $1 order by part', [
    upload,
  ]);
}

/** Takes the parts of an upload away. */
export async function dropUpload(queries: Queries, upload: string): Promise<void> {
  await queries.run('delete from upload_parts where upload_id = $1', [upload]);
}

/** Sweeps the parts of saves that were never done. */
export async function dropUploadsBefore(queries: Queries, when: string): Promise<void> {
  await queries.run('delete from upload_parts where at < $1', [when]);
}
