import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { frameTicks } from '../../basics/time';
import { sampleTrack } from '../../scene/sample';
import type { Layer } from '../../scene/layer';
import type { Edit } from '../../scene/edit';
import type { Scene } from '../../scene/scene';
import { edited, framesOf, layerOf } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import {
  anchorAt,
  cornerAt,
  moveLayers,
  movedLayers,
  scaleLayer,
  gridLines,
  scaleLayers,
  sizeLayer,
  snapGaps,
  snapLines,
  snapMove,
  stageMoment,
  turnLayers,
  unionOf,
  type DragSets,
} from '.';

const FRAME = frameTicks(PAL);
const rest = { 'position.x': 200, 'position.y': 120, 'size.x': 100, 'size.y': 60 };
const scene = sceneOf([
  card('group', {
    kind: 'group',
    source: { type: 'none' } as never,
    rest: { 'position.x': 300, 'position.y': 50, rotation: 90, 'scale.x': 2, 'scale.y': 2 },
  }),
  card('inside', { parent: 'group', rest: { ...rest, rotation: 20 } }),
  card('free', { rest, tracks: { 'position.x': [key(0, 0), key(20, 200)], rotation: [key(0, -30), key(20, 0)] } }),
  card('locked', { rest, locked: true }),
]);

function moment(sets: DragSets, frame = 10, on: Scene = scene) {
  return stageMoment(on, sets, frame * FRAME);
}

function after(edits: readonly Edit[], on: Scene = scene): Scene {
  return edited(on, edits);
}

const at = (layer: Layer, channel: 'position.x' | 'position.y') => layer.rest[channel];
const place = (on: Scene, id: string, sets: DragSets, frame = 10) => {
  const now = moment(sets, frame, on);
  return anchorAt(
    now,
    now.compiled.layers.findIndex((layer) => layer.id === id),
  );
};

describe('layers dragged by hand', () => {
  test('move in scene pixels, whatever their group does', () => {
    fc.assert(
      fc.property(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -300, max: 300 }), (x, y) => {
        for (const id of ['inside', 'free']) {
          const before = place(scene, id, 'along');
          const next = place(after(moveLayers(moment('along'), new Set([id]), { x, y })), id, 'along');
          expect(next.x - before.x).toBeCloseTo(x, 6);
          expect(next.y - before.y).toBeCloseTo(y, 6);
        }
      }),
    );
  });

  test('the rest pose alone, all keys along, or a key at the playhead', () => {
    const by = { x: 12, y: -5 };
    const moved = (sets: DragSets) => layerOf(after(moveLayers(moment(sets), new Set(['free']), by)), 'free');
    const atRest = moved('rest');
    expect([at(atRest, 'position.x'), at(atRest, 'position.y')]).toEqual([212, 115]);
    expect(atRest.tracks).toEqual(layerOf(scene, 'free').tracks);
    const along = moved('along');
    expect(framesOf(along.tracks['position.x'])).toEqual([
      [0, 12],
      [20, 212],
    ]);
    expect([at(along, 'position.x'), at(along, 'position.y')]).toEqual([212, 115]);
    const keyed = moved('key');
    expect(framesOf(keyed.tracks['position.x'])).toEqual([
      [0, 0],
      [10, 112],
      [20, 200],
    ]);
    expect(framesOf(keyed.tracks['position.y'])).toEqual([[10, 115]]);
    expect(keyed.rest).toEqual(layerOf(scene, 'free').rest);
    // A rest pose is dragged where it is drawn at rest, not where its keys have it now.
    expect(place(scene, 'free', 'rest')).toEqual({ x: 200, y: 120 });
    expect(place(scene, 'free', 'along').x).toBe(100);
  });

  test('locked layers stay, and what is in a moved group is not moved twice', () => {
    const { compiled } = moment('along');
    const names = movedLayers({ compiled }, new Set(['group', 'inside', 'locked'])).map((i) => compiled.layers[i].id);
    expect(names).toEqual(['group']);
    const before = place(scene, 'inside', 'along');
    const both = after(moveLayers(moment('along'), new Set(['group', 'inside']), { x: 40, y: 0 }));
    expect(place(both, 'inside', 'along').x).toBeCloseTo(before.x + 40, 9);
    expect(moveLayers(moment('along'), new Set(['locked']), { x: 9, y: 9 })).toEqual([]);
  });

  test('turn about a point: each goes round it and turns as much, and back again', () => {
    const point = { x: 500, y: 300 };
    const turned = after(turnLayers(moment('along'), new Set(['free', 'inside']), 90, point));
    const [from, to] = [place(scene, 'free', 'along'), place(turned, 'free', 'along')];
    expect(to.x).toBeCloseTo(point.x - (from.y - point.y), 6);
    expect(to.y).toBeCloseTo(point.y + (from.x - point.x), 6);
    expect(framesOf(layerOf(turned, 'free').tracks.rotation)).toEqual([
      [0, 60],
      [20, 90],
    ]);
    const back = after(turnLayers(moment('along', 10, turned), new Set(['free', 'inside']), -90, point), turned);
    for (const id of ['free', 'inside']) {
      expect(place(back, id, 'along').x).toBeCloseTo(place(scene, id, 'along').x, 6);
      expect(layerOf(back, id).rest.rotation ?? 0).toBeCloseTo(layerOf(scene, id).rest.rotation ?? 0, 9);
    }
    // A whole turn is kept as one, never wrapped.
    expect(layerOf(after(turnLayers(moment('rest'), new Set(['inside']), 360, point)), 'inside').rest.rotation).toBe(
      380,
    );
  });

  test('scale together: ways between them grow alike', () => {
    const point = { x: 10, y: 20 };
    const grown = after(scaleLayers(moment('along'), new Set(['free', 'inside']), 1.5, point));
    for (const id of ['free', 'inside']) {
      const [from, to] = [place(scene, id, 'along'), place(grown, id, 'along')];
      expect(to.x - point.x).toBeCloseTo(1.5 * (from.x - point.x), 6);
      expect(to.y - point.y).toBeCloseTo(1.5 * (from.y - point.y), 6);
      expect(layerOf(grown, id).rest['scale.x']).toBe(1.5);
    }
    expect(scaleLayers(moment('along'), new Set(['free']), 1, point)).toEqual([]);
  });

  test('one layer is scaled along its own sides, and the corner that is kept stays where it is', () => {
    const kept = fc.constantFrom({ x: 0, y: 0 }, { x: 1, y: 1 }, { x: 0, y: 1 }, { x: 0.5, y: 0.5 });
    const share = fc.double({ min: -2, max: 3, noNaN: true });
    fc.assert(
      fc.property(kept, share, share, fc.constantFrom('free', 'inside'), (corner, x, y, id) => {
        const now = moment('along');
        const index = now.compiled.layers.findIndex((layer) => layer.id === id);
        const next = after(scaleLayer(now, id, { x, y }, corner));
        const then = moment('along', 10, next);
        const [a, b] = [cornerAt(now, index, corner), cornerAt(then, index, corner)];
        expect(b.x).toBeCloseTo(a.x, 5);
        expect(b.y).toBeCloseTo(a.y, 5);
      }),
    );
    const flat = layerOf(after(scaleLayer(moment('rest'), 'free', { x: 0, y: 1 }, { x: 0, y: 0 })), 'free');
    expect(flat.rest['scale.x']).toBe(0.001);
  });

  test('a drag at a time between keys keeps the motion around it', () => {
    const keyed = after(moveLayers(moment('key', 5), new Set(['free']), { x: 0, y: 30 }));
    const track = layerOf(keyed, 'free').tracks['position.x'] ?? [];
    for (const frame of [0, 3, 5, 12, 20]) {
      expect(sampleTrack(track, frame * FRAME)).toBeCloseTo(frame * 10, 9);
    }
  });
});

describe('lines that dragged layers snap to', () => {
  const box = { left: 100, right: 200, top: 50, bottom: 110 };
  const lines = snapLines({ width: 1000, height: 500 }, [{ left: 400, right: 440, top: 300, bottom: 320 }]);

  test('are the frame, its safe areas, and sides and middles of other layers', () => {
    expect(lines.filter(({ of, way }) => of === 'frame' && way === 'x').map(({ at }) => at)).toEqual([0, 500, 1000]);
    const safe = lines.filter(({ of, way }) => of === 'safe area' && way === 'y').map(({ at }) => at);
    [17.5, 482.5, 25, 475].forEach((wanted, i) => expect(safe[i]).toBeCloseTo(wanted, 9));
    expect(lines.filter(({ of, way }) => of === 'layer' && way === 'x').map(({ at }) => at)).toEqual([400, 420, 440]);
  });

  test('take a side or the middle that comes near, each direction by itself', () => {
    const middle = snapMove(box, { x: 352, y: 3 }, lines, 6);
    expect(middle.by).toEqual({ x: 350, y: 3 });
    expect(middle.lines).toEqual([{ way: 'x', at: 500, of: 'frame' }]);
    const side = snapMove(box, { x: 197, y: 188 }, lines, 6);
    expect(side.by).toEqual({ x: 200, y: 190 });
    expect(side.lines.map(({ way, at: place }) => [way, place])).toEqual([
      ['x', 400],
      ['y', 300],
    ]);
    expect(snapMove(box, { x: 30, y: 70 }, lines, 6)).toEqual({ by: { x: 30, y: 70 }, lines: [] });
    expect(snapMove(box, { x: 352, y: 3 }, lines, 0).lines).toEqual([]);
  });

  test('boxes together have one around them', () => {
    expect(unionOf([box, { left: 10, right: 20, top: 90, bottom: 300 }])).toEqual({
      left: 10,
      right: 200,
      top: 50,
      bottom: 300,
    });
    expect(unionOf([])).toBeNull();
  });
});

describe('a grid and equal gaps', () => {
  const box = { left: 0, right: 40, top: 0, bottom: 40 };
  const at = (left: number, top = 0, width = 40): typeof box => ({ left, right: left + width, top, bottom: top + 40 });

  test('lines of a grid lie whole steps apart, and what is dragged comes to them', () => {
    const lines = gridLines({ width: 100, height: 50 }, 40);
    expect(lines.map(({ way, at: place }) => [way, place])).toEqual([
      ['x', 0],
      ['x', 40],
      ['x', 80],
      ['y', 0],
      ['y', 40],
    ]);
    expect(snapMove(box, { x: 37, y: 100 }, lines, 5).by).toEqual({ x: 40, y: 100 });
    expect(gridLines({ width: 100, height: 50 }, 0)).toEqual([]);
  });

  test('between two neighbours both gaps become alike', () => {
    const snapped = snapGaps(box, { x: 128, y: 3 }, [at(0), at(260)], 6);
    // 220 px between them less 40 for the box: 90 on either side.
    expect(snapped.by).toEqual({ x: 130, y: 3 });
    expect(snapped.gaps).toEqual([
      { way: 'x', from: 40, to: 130, across: 23 },
      { way: 'x', from: 170, to: 260, across: 23 },
    ]);
  });

  test('a row goes on with the gap that it has, at either end', () => {
    expect(snapGaps(box, { x: 197, y: 0 }, [at(0), at(100)], 6).by.x).toBe(200);
    expect(snapGaps(box, { x: 4, y: 0 }, [at(100), at(200)], 6).by.x).toBe(0);
    const down = snapGaps(box, { x: 0, y: 165 }, [at(5, 0), at(5, 80)], 6);
    expect(down.by).toEqual({ x: 0, y: 160 });
    expect(down.gaps.map(({ way }) => way)).toEqual(['y', 'y']);
  });

  test('what is out of reach, beside the row, or met by a line already is left alone', () => {
    // As far from the second as that is from the first, or in the middle of the second and the third: the nearer one.
    for (const [dragged, snapped] of [
      [201, 200],
      [203, 204],
      [198, 200],
      [206, 204],
    ]) {
      expect(snapGaps(box, { x: dragged, y: 0 }, [at(0), at(100), at(308)], 6).by.x).toBe(snapped);
    }
    expect(snapGaps(box, { x: 120, y: 0 }, [at(0), at(260)], 6)).toEqual({ by: { x: 120, y: 0 }, gaps: [] });
    expect(snapGaps(box, { x: 128, y: 200 }, [at(0), at(260)], 6).gaps).toEqual([]);
    expect(snapGaps(box, { x: 128, y: 0 }, [at(0), at(260)], 6, new Set(['x'])).by.x).toBe(128);
  });
});

describe('resizing', () => {
  const scene = sceneOf([
    card('a', {
      rest: {
        'position.x': 500,
        'position.y': 300,
        'size.x': 200,
        'size.y': 100,
        'scale.x': 2,
        'scale.y': 0.5,
        rotation: 30,
        corner: 8,
      },
      tracks: { 'size.x': [key(0, 200), key(10, 240)] },
    }),
  ]);
  const corner = (on: typeof scene, place: { x: number; y: number }) => cornerAt(stageMoment(on, 'rest', 0), 0, place);

  test('changes the size with the opposite corner where it is, and leaves scale and corners', () => {
    const moment = stageMoment(scene, 'rest', 0);
    const after = edited(scene, sizeLayer(moment, 'a', { x: 1.5, y: 2 }, { x: 0, y: 0 }));
    const { rest } = after.layers[0];
    expect([rest['size.x'], rest['size.y'], rest['scale.x'], rest['scale.y'], rest.corner]).toEqual([
      300, 200, 2, 0.5, 8,
    ]);
    const [before, now] = [scene, after].map((one) => corner(one, { x: 0, y: 0 }));
    expect(now.x).toBeCloseTo(before.x, 9);
    expect(now.y).toBeCloseTo(before.y, 9);
  });

  test('takes the keys of the size along where a drag does, and never turns a box inside out', () => {
    const after = edited(scene, sizeLayer(stageMoment(scene, 'along', 0), 'a', { x: -2, y: 1 }, { x: 1, y: 1 }));
    expect(after.layers[0].tracks['size.x']?.map(({ value }) => value)).toEqual([400, 480]);
  });
});
