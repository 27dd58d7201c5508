import { describe, expect, test } from '@jest/globals';
import type { Key } from '../../scene/layer';
import { card, key } from '../../testing/scenes';
import { applyPatch, joinPatches, keyPatchBetween, patchAt, patchBetween, renamedPatch, splitPatch } from './patch';

const made = (frame: number, value: number, slot = `opacity/${frame}`): Key => ({
  ...key(frame, value),
  by: { run: 'r', slot },
});
const layer = card('a', { tracks: { opacity: [made(0, 0), made(10, 1)] } });
const alive = () => true;
const known = { run: 'r', stored: undefined, isAlive: alive };
const FRAME = key(1, 0).at;

const frames = (keys: readonly Key[] | undefined) => keys?.map(({ at, value }) => [at / FRAME, value]);

describe('a patch', () => {
  const changed = { ...layer, tracks: { opacity: [made(0, 0.5), key(4, 9), { ...made(10, 1), at: 12 * FRAME }] } };
  const patch = patchBetween(layer, changed, known);

  test('gives what stands where the run left the same', () => {
    expect(applyPatch(layer, patch, alive).tracks.opacity?.map(({ at, value, by }) => [at, value, by?.slot])).toEqual(
      changed.tracks.opacity.map(({ at, value, by }) => [at, value, by?.slot]),
    );
    expect(patchBetween(layer, layer, known)).toBeUndefined();
  });

  test('follows its layer in time: keys that were set by hand, and times of those that were changed', () => {
    const later = { ...layer, span: { in: 5 * FRAME, out: layer.span.out + 5 * FRAME } };
    const tracks = { opacity: [made(5, 0, 'opacity/0'), made(15, 1, 'opacity/10')] };
    expect(frames(applyPatch({ ...later, tracks }, patch, alive).tracks.opacity)).toEqual([
      [5, 0.5],
      [9, 9],
      [17, 1],
    ]);
  });

  test('keeps what was not touched by hand with the run', () => {
    const moved = { ...layer, tracks: { opacity: [made(2, 7, 'opacity/0'), made(20, 3, 'opacity/10')] } };
    expect(frames(applyPatch(moved, patch, alive).tracks.opacity)).toEqual([
      [2, 0.5],
      [4, 9],
      [12, 3],
    ]);
  });

  test('counts from another in point without saying anything else', () => {
    const other = patchAt(patch, 3 * FRAME);
    expect(other?.in).toBe(3 * FRAME);
    expect(patchAt(other, 0)).toEqual(patch);
  });

  test('is cut in two by names, and joined again', () => {
    const [own, rest] = splitPatch(patch, (id) => id === 'r/opacity/0');
    expect([own?.tracks?.opacity?.changed?.length, rest?.tracks?.opacity?.changed?.length]).toEqual([1, 1]);
    const joined = own && joinPatches(own, rest);
    expect(applyPatch(layer, joined, alive)).toEqual(applyPatch(layer, patch, alive));
  });

  test('leaves out keys of runs that are switched off, and remembers what was done to them', () => {
    const off = { run: 'r', stored: patch?.tracks?.opacity, isAlive: () => false };
    const bare = { ...layer, tracks: {} };
    expect(frames(applyPatch(bare, patch, () => false).tracks.opacity)).toEqual([[4, 9]]);
    expect(keyPatchBetween([], [key(6, 1)], off)?.changed).toHaveLength(2);
  });

  test('of spans never turns a layer inside out', () => {
    const short = { ...layer, span: { in: 0, out: 2 } };
    const trimmed = { layer: 'a', in: 0, span: { in: 0, out: -5 } };
    expect(applyPatch(short, trimmed, alive).span).toEqual({ in: 0, out: 2 });
  });
});

test('a patch keeps what it says of keys whose names change, and of all others', () => {
  const was = card('a', { tracks: { opacity: [made(0, 0, 'x/0'), made(10, 1, 'x/1'), made(20, 2, 'x/2')] } });
  const byHand = { ...was, tracks: { opacity: [made(0, 5, 'x/0'), key(4, 9), made(20, 2, 'x/2')] } };
  const patch = patchBetween(was, byHand, known);
  const ids = ({ tracks }: NonNullable<typeof patch>) => ({
    changed: tracks?.opacity?.changed?.map(({ id }) => id),
    removed: tracks?.opacity?.removed,
    added: tracks?.opacity?.added?.length,
  });
  if (!patch) throw new Error('no patch');
  const before = ids(patch);
  expect([before.changed?.length, before.removed?.length, before.added]).toEqual([1, 1, 1]);
  const other = new Map([...(before.changed ?? []), ...(before.removed ?? [])].map((id) => [id, `${id}-new`]));
  const after = renamedPatch(patch, other);
  expect(after && ids(after)).toEqual({
    changed: before.changed?.map((id) => `${id}-new`),
    removed: before.removed?.map((id) => `${id}-new`),
    added: 1,
  });
  expect(renamedPatch(patch, new Map([['no such key', 'other']]))).toEqual(patch);
  expect(renamedPatch(patch, new Map())).toBe(patch);
  expect(renamedPatch(undefined, other)).toBeUndefined();
});
