import { beforeAll, expect, test } from '@jest/globals';
import { freshApp, type FreshApp } from '../../testing/fresh-app';

let fresh: FreshApp;

beforeAll(async () => {
  fresh = await freshApp();
});

const EVERY = Uint8Array.from({ length: 256 }, (_, i) => i);

test.each([
  ['of every value', EVERY],
  ['none at all', new Uint8Array()],
  ['that are a part of others', EVERY.subarray(30, 50)],
  ['in a buffer of Node', Buffer.from(EVERY)],
  ['by the million', new Uint8Array(1_000_000).fill(200)],
])('bytes %s go in and come out as they were', async (_, bytes) => {
  const row = await fresh.database.maybeOne<{ bytes: Uint8Array; count: number; nothing: null }>(
    'select $1::bytea as bytes, length($1) as count, $2::bytea as nothing',
    [bytes, null],
  );
  expect(row?.count).toBe(bytes.length);
  expect(row?.nothing).toBeNull();
  expect(Buffer.compare(Buffer.from(row?.bytes ?? []), Buffer.from(bytes))).toBe(0);
});
