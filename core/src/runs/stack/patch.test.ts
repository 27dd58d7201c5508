import { describe, expect, test } from '@jest/globals';
import type { Key, Layer } from '../../scene/layer';
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

  test('of nothing but keys that went, or values that changed, says no more than that', () => {
    const gone = keyPatchBetween(layer.tracks.opacity ?? [], [made(0, 0)], known);
    expect(gone && Object.keys(gone)).toEqual(['removed']);
    const brighter = keyPatchBetween(layer.tracks.opacity ?? [], [made(0, 0.5), made(10, 1)], known);
    expect(brighter && Object.keys(brighter)).toEqual(['changed']);
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

describe('what is done by hand over a run', () => {
  const was = card('a', {
    rest: { rotation: 4, opacity: 0.5 },
    look: { fill: '#ffffff', shadow: '#000000' },
    data: { team: 'North' },
    tracks: { opacity: [made(0, 0), made(10, 1)], skew: [made(0, 3, 'skew/0')] },
  });
  const after = (more: Partial<Layer>): void => {
    const now = { ...was, ...more };
    const patch = patchBetween(was, now, known);
    expect(patch).toBeDefined();
    expect(applyPatch(was, patch, alive)).toEqual(now);
    // Looked at again, nothing was done since.
    expect(patchBetween(was, now, { ...known, stored: patch })).toEqual(patch);
  };

  test.each<[string, Partial<Layer>]>([
    ['a rest value that is set', { rest: { rotation: 9, opacity: 0.5 } }],
    ['one that is taken away', { rest: { rotation: 4 } }],
    ['one that comes', { rest: { rotation: 4, opacity: 0.5, skew: 1 } }],
    ['another span', { span: { in: 3 * FRAME, out: 40 * FRAME } }],
    ['a look that loses a part and changes one', { look: { fill: '#123456' } }],
    ['data that come and go', { data: { score: '3' } }],
    ['a channel without its keys', { tracks: { opacity: was.tracks.opacity } }],
    ['a channel that comes', { tracks: { ...was.tracks, rotation: [{ ...key(1, 5), id: 'r@1' } as Key] } }],
    ['a value', { tracks: { ...was.tracks, opacity: [made(0, 0), made(10, 0.7)] } }],
    ['a time', { tracks: { ...was.tracks, opacity: [made(0, 0), { ...made(10, 1), at: 12 * FRAME }] } }],
    ['an easing', { tracks: { ...was.tracks, opacity: [{ ...made(0, 0), ease: { type: 'hold' } }, made(10, 1)] } }],
  ])('is kept and comes back: %s', (_, more) => after(more));

  test('a copy of a key of the run is a key by hand, each with a name of its own', () => {
    const copied = [made(0, 0), { ...made(0, 0), at: 4 * FRAME }, made(10, 1), { ...made(10, 1), at: 14 * FRAME }];
    const patch = keyPatchBetween(was.tracks.opacity ?? [], copied, known);
    expect(patch?.added?.map(({ key: own }) => [own.at / FRAME, own.by])).toEqual([
      [4, undefined],
      [14, undefined],
    ]);
    expect(new Set(patch?.added?.map(({ id }) => id)).size).toBe(2);
    expect([patch?.changed, patch?.removed]).toEqual([undefined, undefined]);
    // A name that is taken already is made another one.
    const stored = { added: [{ id: `r@${9 * FRAME}`, key: key(2, 5) }] };
    const again = keyPatchBetween([], [key(2, 5), key(9, 6)], { ...known, stored });
    expect(again?.added?.map(({ id }) => id)).toEqual([`r@${9 * FRAME}`, `r@${9 * FRAME}+`]);
  });

  test('a key of a run that is not made at present is kept with all that it says', () => {
    const other: Key = { ...made(5, 2), by: { run: 'other', slot: 'opacity/5' } };
    const patch = keyPatchBetween([made(0, 0)], [made(0, 0), other], known);
    expect(patch?.changed?.map(({ key: own }) => own.at / FRAME)).toEqual([5]);
    const met = [made(0, 0)];
    expect(keyPatchBetween(met, met, known)).toBeNull();
    // A key of another run in its place is no key of this one.
    const swapped = [{ ...made(0, 0), by: { run: 'other', slot: 'opacity/0' } }];
    expect(keyPatchBetween(met, swapped, known)).not.toBeNull();
    expect(keyPatchBetween(met, [{ ...made(0, 0), by: { run: 'r', slot: 'opacity/1' } }], known)).not.toBeNull();
  });
});
