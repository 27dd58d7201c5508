import { describe, expect, test } from '@jest/globals';
import { ticksFromSeconds } from '../../basics/time';
import { apply } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { boundsAt, compileScene, restFrame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { card, key, sceneOf } from '../../testing/scenes';
import { placesIn, setOut, type SetOutWay } from './set-out';

const still = (id: string, width: number, height: number, more: Partial<Layer> = {}): Layer => ({
  ...card(id),
  kind: 'picture',
  source: { type: 'picture', href: 'data:,', width, height },
  ...more,
});
const scene = (layers: readonly Layer[]): Scene => ({
  ...sceneOf(layers),
  width: 1920,
  height: 1080,
  length: ticksFromSeconds(10),
});
const done = (before: Scene, way: Partial<SetOutWay>): Scene => {
  const all: SetOutWay = { places: 1, size: 'whole', hold: null, apart: 0, ...way };
  const result = apply(before, setOut(before, new Set(before.layers.map(({ id }) => id)), all).edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
};
const boxes = (after: Scene) => {
  const compiled = compileScene(after);
  const frame = restFrame(compiled);
  return after.layers.map((_, i) => boundsAt(frame, i));
};

describe('setting out', () => {
  test('rows × replacements: 3 rows × 3 stills of 9 s, rows 3 s apart (common practice): 0, 3 … 24 s, all over at 33 s', () => {
    const nine = scene(Array.from({ length: 9 }, (_, i) => still(`s${i}`, 400, 300)));
    const after = done(nine, { places: 3, hold: ticksFromSeconds(9), apart: ticksFromSeconds(3) });
    const second = ticksFromSeconds(1);
    expect(after.layers.map(({ span }) => span.in / second)).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24]);
    expect(after.layers.every(({ span }) => span.out - span.in === 9 * second)).toBe(true);
    // The scene of 10 s is as long as they need.
    expect(after.length / second).toBe(33);
    const found = boxes(after);
    expect(found[3]).toEqual(found[0]);
    expect(found[5]).toEqual(found[2]);
  });

  test('with other numbers: 2 places × 2 stills of 4 s, 1 s apart: 0, 1, 4, 5 s, over at 9 s; the scene stays as long as it is', () => {
    const four = scene(Array.from({ length: 4 }, (_, i) => still(`s${i}`, 400, 300)));
    const after = done(four, { places: 2, hold: ticksFromSeconds(4), apart: ticksFromSeconds(1) });
    expect(after.layers.map(({ span }) => span.in / ticksFromSeconds(1))).toEqual([0, 1, 4, 5]);
    expect(after.length).toBe(four.length);
  });

  test('many places leave the sides of the frame free, also as many columns as rows', () => {
    const square = { width: 1000, height: 1000 };
    const boxes = placesIn(square, 4, Array(4).fill({ width: 100, height: 100 }));
    // 60 px at each side, and a 25th of each place of 440 px around what stands in it.
    const [first, last] = [boxes[0], boxes[3]];
    expect([first.left, first.top, first.right, first.bottom].map(Math.round)).toEqual([78, 78, 482, 482]);
    expect([last.left, last.top, last.right, last.bottom].map(Math.round)).toEqual([518, 518, 922, 922]);
  });

  test('one place is the frame: a picture stands whole in its middle, or fills it', () => {
    const portrait = scene([still('a', 300, 600)]);
    expect(boxes(done(portrait, {}))[0]).toEqual({ left: 690, top: 0, right: 1230, bottom: 1080 });
    expect(boxes(done(portrait, { size: 'fill' }))[0]).toEqual({ left: 0, top: 0, right: 1920, bottom: 1080 });
  });

  test('a turned layer, with its anchor in a corner and at half its scale, has its middle in the middle of the place', () => {
    const rest = { 'anchor.x': 0, 'anchor.y': 1, rotation: 90, 'scale.x': 0.5, 'scale.y': 0.5 };
    const [box] = boxes(done(scene([still('a', 400, 400, { rest })]), {}));
    expect((box.left + box.right) / 2).toBeCloseTo(960, 9);
    expect((box.top + box.bottom) / 2).toBeCloseTo(540, 9);
    expect(box.right - box.left).toBeCloseTo(1080, 9);
  });

  test.each([
    ['whole', { left: 420, top: 0, right: 1500, bottom: 1080 }],
    ['fill', { left: 0, top: 0, right: 1920, bottom: 1080 }],
  ] as const)('a picture at another scale, mirrored too, is as large as asked for: %s', (size, expected) => {
    const rest = { 'scale.x': -0.5, 'scale.y': 2 };
    const [{ left, top, right, bottom }] = boxes(done(scene([still('a', 400, 400, { rest })]), { size }));
    expect([left, top, right, bottom].map((value) => Math.round(value * 1e6) / 1e6)).toEqual(Object.values(expected));
  });

  test('pictures in groups stand in the places of the frame too, at their size there; their groups last as long as they do', () => {
    const group = (id: string, parent: string | null, rest: Layer['rest']): Layer => ({
      ...card(id),
      kind: 'group',
      source: { type: 'none' },
      look: {},
      parent,
      span: { in: ticksFromSeconds(1), out: ticksFromSeconds(2) },
      rest: { 'position.x': 0, 'position.y': 0, 'size.x': 10, 'size.y': 10, ...rest },
    });
    const before = scene([
      group('all', null, { 'position.x': 300, 'position.y': 90, 'scale.x': 2, 'scale.y': 2 }),
      group('turned', 'all', { 'position.x': -70, rotation: 90 }),
      still('a', 400, 400, { parent: 'all' }),
      still('b', 400, 400, { parent: 'turned' }),
      still('c', 400, 400),
    ]);
    const all: SetOutWay = { places: 3, size: 'whole', hold: ticksFromSeconds(3), apart: ticksFromSeconds(1) };
    const made = setOut(before, new Set(['a', 'b', 'c']), all);
    const result = apply(before, made.edits);
    if (!result.ok) throw new Error(result.problem.code);
    const [, , a, b, c] = boxes(result.scene);
    const wanted = placesIn(before, 3, [{ width: 400, height: 400 }]);
    [a, b, c].forEach((box, i) => {
      expect((box.left + box.right) / 2).toBeCloseTo((wanted[i].left + wanted[i].right) / 2, 6);
      expect((box.top + box.bottom) / 2).toBeCloseTo((wanted[i].top + wanted[i].bottom) / 2, 6);
      expect(box.right - box.left).toBeCloseTo(c.right - c.left, 6);
    });
    const spans = result.scene.layers.map(({ span }) => [span.in, span.out].map((at) => at / ticksFromSeconds(1)));
    expect(spans).toEqual([
      [0, 4],
      [1, 4],
      [0, 3],
      [1, 4],
      [2, 5],
    ]);
    // What is in a group that is set out itself goes with it, and a group without size has no place for anything.
    expect(setOut(before, new Set(['all', 'a', 'b', 'c']), all).starts).toHaveLength(2);
    const flat = scene([group('flat', null, { 'scale.x': 0 }), still('a', 400, 400, { parent: 'flat' })]);
    const kept = apply(flat, setOut(flat, new Set(['a']), all).edits);
    expect(kept.ok && kept.scene.layers[1].rest).toEqual(flat.layers[1].rest);
  });

  test('what is in a group goes along in time: captions show with their picture, and keep their distance from it', () => {
    const s = ticksFromSeconds;
    const groups = [0, 1, 2].flatMap((i): Layer[] => [
      card(`g${i}`, { kind: 'group', source: { type: 'none' }, span: { in: 0, out: s(10) } }),
      still(`s${i}`, 400, 300, { parent: `g${i}`, span: { in: 0, out: s(10) } }),
      card(`c${i}`, {
        parent: `g${i}`,
        span: { in: s(1), out: s(3) },
        tracks: { opacity: [key(25, 0), key(50, 1)] },
      }),
      still(`v${i}`, 400, 300, {
        parent: `g${i}`,
        kind: 'picture',
        source: { type: 'clip', href: 'data:,', width: 4, height: 3, from: 0, length: s(2), pace: 1 },
        span: { in: 0, out: s(2) },
      }),
    ]);
    const before = scene(groups);
    const way: SetOutWay = { places: 1, size: 'whole', hold: s(4), apart: 0 };
    const result = apply(before, setOut(before, new Set(['g0', 'g1', 'g2']), way).edits);
    if (!result.ok) throw new Error(result.problem.code);
    const spanOf = (id: string): number[] => {
      const span = result.scene.layers.find((layer) => layer.id === id)?.span;
      return [(span?.in ?? 0) / s(1), (span?.out ?? 0) / s(1)];
    };
    expect(['g0', 'g1', 'g2'].map(spanOf)).toEqual([
      [0, 4],
      [4, 8],
      [8, 12],
    ]);
    // A still that lasted as long as its group does so again, a caption stands where it stood in it, a clip ends with itself.
    expect(['s1', 'c1', 'v1'].map(spanOf)).toEqual([
      [4, 8],
      [5, 7],
      [4, 6],
    ]);
    const caption = result.scene.layers.find(({ id }) => id === 'c2');
    expect(caption?.tracks.opacity?.map(({ at }) => at / s(1))).toEqual([9, 10]);
    expect(apply(result.scene, result.inverse)).toMatchObject({ ok: true, scene: before });
  });

  test('a group that began later comes earlier with what is in it', () => {
    const s = ticksFromSeconds;
    const group = card('g', { kind: 'group', source: { type: 'none' }, span: { in: s(2), out: s(8) } });
    const caption = card('c', { parent: 'g', span: { in: s(3), out: s(5) }, tracks: { opacity: [key(75, 0)] } });
    const before = scene([group, still('s', 400, 300, { parent: 'g', span: group.span }), caption]);
    const way: SetOutWay = { places: 1, size: 'whole', hold: s(4), apart: 0 };
    const result = apply(before, setOut(before, new Set(['g']), way).edits);
    if (!result.ok) throw new Error(result.problem.code);
    expect(result.scene.layers.map(({ span }) => [span.in / s(1), span.out / s(1)])).toEqual([
      [0, 4],
      [0, 4],
      [1, 3],
    ]);
    expect(result.scene.layers[2].tracks.opacity?.map(({ at }) => at / s(1))).toEqual([1]);
  });

  test('places are laid so that what stands in them is largest, and lie in the frame without touching', () => {
    const frame = { width: 1920, height: 1080 };
    const columns = placesIn(frame, 3, [{ width: 300, height: 600 }]);
    expect(new Set(columns.map(({ top }) => top)).size).toBe(1);
    const rows = placesIn(frame, 3, [{ width: 1800, height: 200 }]);
    expect(new Set(rows.map(({ left }) => left)).size).toBe(1);
    for (const count of [2, 5, 9, 12]) {
      const places = placesIn(frame, count, [{ width: 4, height: 3 }]);
      expect(places).toHaveLength(count);
      places.forEach((a, i) => {
        expect(a.left >= 0 && a.top >= 0 && a.right <= 1920 && a.bottom <= 1080).toBe(true);
        for (const b of places.slice(i + 1)) {
          expect(a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top).toBe(true);
        }
      });
    }
  });

  test('keys go along in time, words keep their size, a clip ends with its length, what is locked stays', () => {
    const word = card('w', {
      source: { type: 'text', text: 'Moon', font: 'Spline Sans', weight: 500, size: 40, align: 'middle' },
    });
    const clip = still('c', 400, 300, {
      source: { type: 'clip', href: 'data:,', width: 400, height: 300, from: 0, length: ticksFromSeconds(1), pace: 1 },
    });
    const keyed = still('k', 400, 300, { tracks: { opacity: [key(0, 0), key(10, 1)] } });
    const before = scene([word, clip, keyed, still('l', 10, 10, { locked: true })]);
    const after = done(before, { places: 1, hold: ticksFromSeconds(2) });
    const [w, c, k, l] = after.layers;
    expect(w.rest['size.x']).toBe(word.rest['size.x']);
    expect(c.span).toEqual({ in: ticksFromSeconds(2), out: ticksFromSeconds(3) });
    expect(k.tracks.opacity?.map(({ at }) => at)).toEqual(
      [0, 10].map((frame) => key(frame, 0).at + ticksFromSeconds(4)),
    );
    expect(l).toBe(before.layers[3]);
  });
});
