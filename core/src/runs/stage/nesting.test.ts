import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { frameTicks } from '../../basics/time';
import type { Box } from '../../basics/transform';
import { boundsAt, compileScene, frameAt } from '../../scene/sample';
import { apply } from '../../scene/edit';
import { sceneSchema, type Scene } from '../../scene/scene';
import { edited } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import {
  alignLayers,
  anchorTo,
  copyLayers,
  duplicateLayers,
  groupLayers,
  nextName,
  pasteLayers,
  readLayerClip,
  shareAt,
  spreadLayers,
  stageMoment,
  stepDepth,
  ungroupLayer,
} from '.';

const FRAME = frameTicks(PAL);
const at = (x: number, y: number, more: object = {}) => ({
  'position.x': x,
  'position.y': y,
  'size.x': 100,
  'size.y': 60,
  ...more,
});
const scene = sceneOf([
  card('back', { rest: at(900, 500, { 'size.x': 1800 }) }),
  card('a', { rest: at(200, 120, { rotation: 20 }) }),
  card('b', {
    rest: at(500, 300),
    tracks: { 'position.x': [key(0, 100), key(20, 700)], opacity: [key(0, 0), key(10, 1)] },
  }),
  card('c', { rest: at(800, 620, { 'scale.x': 2 }) }),
]);

/** Where every layer that is no group is on screen at some frames. */
function places(on: Scene): Record<string, number[]> {
  const compiled = compileScene(on);
  const found: Record<string, number[]> = {};
  for (const frame of [0, 7, 20]) {
    const sampled = frameAt(compiled, frame * FRAME);
    compiled.layers.forEach((layer, index) => {
      if (layer.kind === 'group') return;
      const { left, top, right, bottom } = boundsAt(sampled, index);
      (found[layer.id] ??= []).push(...[left, top, right, bottom].map((value) => Math.round(value * 1e4) / 1e4 + 0));
    });
  }
  return found;
}

let made = 0;
const newId = (): string => `new-${++made}`;

describe('groups', () => {
  test('a group is there as long as any of its layers is', () => {
    const span = (from: number, to: number) => ({ span: { in: from * FRAME, out: to * FRAME } });
    const layers = [card('a', span(20, 60)), card('b', span(10, 50)), card('c', span(30, 90))];
    const grouped = groupLayers(sceneOf(layers), new Set(['a', 'b', 'c']), 'g', 'All');
    if (!grouped.ok) throw new Error(grouped.message);
    expect(edited(sceneOf(layers), grouped.edits).layers.find(({ id }) => id === 'g')?.span).toEqual(span(10, 90).span);
  });

  test('layers go into a group and out of it, and nothing moves at any time; depth stays', () => {
    const grouped = groupLayers(scene, new Set(['a', 'b']), 'g', 'Pair');
    if (!grouped.ok) throw new Error(grouped.message);
    const inside = edited(scene, grouped.edits);
    expect(sceneSchema.safeParse(inside).success).toBe(true);
    expect(inside.layers.map(({ id, parent }) => `${id} ${parent}`)).toEqual([
      'back null',
      'a g',
      'b g',
      'g null',
      'c null',
    ]);
    expect(places(inside)).toEqual(places(scene));
    const out = ungroupLayer(inside, 'g');
    if (!out.ok) throw new Error(out.message);
    const again = edited(inside, out.edits);
    expect(places(again)).toEqual(places(scene));
    expect(again.layers.map(({ id }) => id)).toEqual(['back', 'a', 'b', 'c']);
    expect(out.selected).toEqual(['a', 'b']);
  });

  test('out of a turned and grown group each part takes over what the group did; the seen never moves', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(0, 30, -75, 180),
        fc.constantFrom(0.5, 1, 2),
        fc.double({ min: 0.2, max: 1, noNaN: true }),
        (turn, grow, opacity) => {
          const group = card('g', {
            kind: 'group',
            source: { type: 'none' } as never,
            rest: at(400, 400, { rotation: turn, 'scale.x': grow, 'scale.y': grow, opacity }),
          });
          const nested = sceneOf([
            group,
            card('x', { parent: 'g', rest: at(10, 20, { rotation: 15, opacity: 0.5 }) }),
            card('y', { parent: 'g', rest: at(70, -20) }),
            card('z', {}),
          ]);
          const out = ungroupLayer(nested, 'g');
          if (!out.ok) throw new Error(out.message);
          const flat = edited(nested, out.edits);
          expect(places(flat)).toEqual(places(nested));
          expect(flat.layers.map(({ id }) => id)).toEqual(['x', 'y', 'z']);
          expect(flat.layers[0].rest.opacity).toBeCloseTo(0.5 * opacity, 9);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('out of a stretched group comes what stands straight in it; what leans would jump, and so would all if it were turned', () => {
    const stretchedBy = (groupRest: object, member: object, tracks: object = {}) => {
      const group = card('g', { kind: 'group', source: { type: 'none' } as never, rest: at(400, 300, groupRest) });
      const nested = sceneOf([group, card('x', { parent: 'g', rest: at(10, 20, member), tracks })]);
      const out = ungroupLayer(nested, 'g');
      if (!out.ok) return out.message;
      const flat = edited(nested, out.edits);
      expect(places(flat)).toEqual(places(nested));
      return 'done';
    };
    const uneven = { 'scale.x': 2, 'scale.y': 0.5 };
    expect(stretchedBy(uneven, {})).toBe('done');
    expect(stretchedBy(uneven, {}, { 'position.x': [key(0, 0), key(9, 90)] })).toBe('done');
    expect(stretchedBy(uneven, { rotation: 20 })).toMatch(/“x” would jump/);
    expect(stretchedBy(uneven, {}, { rotation: [key(0, 0), key(9, 90)] })).toMatch(/“x” would jump/);
    expect(stretchedBy({ ...uneven, rotation: 30 }, {})).toMatch(/“x” would jump/);
    expect(stretchedBy({ skew: 10 }, {})).toMatch(/“x” would jump/);
  });

  test('what would jump is refused, and says why', () => {
    const moving = card('g', {
      kind: 'group',
      source: { type: 'none' } as never,
      tracks: { 'position.x': [key(0, 0), key(9, 9)] },
    });
    const turned = card('h', { kind: 'group', source: { type: 'none' } as never, rest: at(0, 0, { rotation: 10 }) });
    const nested = sceneOf([
      moving,
      card('x', { parent: 'g' }),
      turned,
      card('y', { parent: 'h', tracks: { 'position.x': [key(0, 0), key(9, 9)] } }),
    ]);
    const message = (result: { ok: boolean } & ({ message: string } | object)) =>
      'message' in result ? result.message : 'done';
    expect(message(ungroupLayer(nested, 'g'))).toMatch(/moves by keys of its own/);
    expect(message(ungroupLayer(nested, 'h'))).toMatch(/“y” would jump/);
    expect(message(ungroupLayer(nested, 'x'))).toMatch(/Select a group/);
    expect(message(groupLayers(nested, new Set(['x', 'y']), 'n', 'N'))).toMatch(/different groups/);
    expect(message(groupLayers(nested, new Set(), 'n', 'N'))).toMatch(/Select layers/);
  });

  test('depth: one step, or all the way, among those beside; several keep their order', () => {
    const order = (ids: string[], step: Parameters<typeof stepDepth>[2]): string =>
      edited(scene, stepDepth(scene, new Set(ids), step))
        .layers.map(({ id }) => id)
        .join(' ');
    expect(order(['a'], 'forward')).toBe('back b a c');
    expect(order(['a', 'b'], 'front')).toBe('back c a b');
    expect(order(['b', 'c'], 'back')).toBe('b c back a');
    expect(order(['c'], 'backward')).toBe('back a c b');
    expect(order(['c'], 'forward')).toBe('back a b c');
  });
});

describe('copies', () => {
  test('a duplicate has keys, parts and look of the first one, its own ids and names, and lies in front of it', () => {
    const grouped = groupLayers(scene, new Set(['a', 'b']), 'g', 'Row 9');
    if (!grouped.ok) throw new Error(grouped.message);
    const inside = edited(scene, grouped.edits);
    const { edits, selected } = duplicateLayers(inside, new Set(['g', 'a']), { x: 40, y: 0 }, newId);
    const twice = edited(inside, edits);
    expect(sceneSchema.safeParse(twice).success).toBe(true);
    expect(twice.layers).toHaveLength(8);
    const copy = twice.layers.find(({ id }) => id === selected[0]);
    expect([selected.length, copy?.name, copy?.parent]).toEqual([1, 'Row 10', null]);
    expect(twice.layers.filter(({ parent }) => parent === copy?.id).map(({ name }) => name)).toEqual(['a', 'b']);
    const [before, after] = [places(twice).b, places(twice)[twice.layers[5].id]];
    expect(after.map((value, i) => Math.round((value - before[i]) * 1e4) / 1e4)).toEqual(
      before.map((_, i) => (i % 2 === 0 ? 40 : 0)),
    );
    expect(nextName('Star', new Set(['Star', 'Star 2']))).toBe('Star 3');
  });

  test('the clipboard is text that can be read again, into a scene of another size', () => {
    const clip = copyLayers(scene, new Set(['a', 'b']));
    const read = readLayerClip(JSON.stringify(clip));
    if (read === null || typeof read === 'string') throw new Error('not read');
    const small = { ...sceneOf([]), width: scene.width - 200, height: scene.height };
    const { edits, selected } = pasteLayers(small, read, { x: 0, y: 0 }, newId);
    const pasted = edited(small, edits);
    expect(selected).toHaveLength(2);
    expect(pasted.layers[0].rest['position.x']).toBe(100);
    expect(pasted.layers[1].tracks['position.x']?.map(({ value }) => value)).toEqual([0, 600]);
    expect(readLayerClip('{"format":"wexikine-keys-1"}')).toBeNull();
    expect(readLayerClip('{"format":"wexikine-layers-1","layers":[]}')).toMatch(/cannot be read/);
    expect(readLayerClip('{"format":"wexikine-layers-1",')).toMatch(/^The layers on the clipboard cannot be read\. /);
    expect(copyLayers(scene, new Set())).toBeNull();
    // From a frame that is as much larger on both sides, they stay as far from its middle.
    const low = { ...small, width: scene.width, height: scene.height - 60 };
    const lower = edited(low, pasteLayers(low, read, { x: 5, y: 7 }, newId).edits).layers[0].rest;
    const before = scene.layers.find(({ id }) => id === 'a')?.rest ?? {};
    expect([lower['position.x'], lower['position.y']]).toEqual([
      (before['position.x'] ?? 0) + 5,
      (before['position.y'] ?? 0) - 30 + 7,
    ]);
  });
});

describe('aligning', () => {
  test('several come to one side of all of them, one to the frame; three are spread with equal gaps', () => {
    const moment = stageMoment(scene, 'along', 0);
    const box = (on: Scene, id: string) =>
      boundsAt(
        frameAt(compileScene(on), 0),
        on.layers.findIndex((layer) => layer.id === id),
      );
    const left = edited(scene, alignLayers(moment, new Set(['a', 'c']), 'left'));
    expect(box(left, 'c').left).toBeCloseTo(box(scene, 'a').left, 9);
    const middle = edited(scene, alignLayers(moment, new Set(['c']), 'middle'));
    expect((box(middle, 'c').top + box(middle, 'c').bottom) / 2).toBeCloseTo(scene.height / 2, 9);
    const spread = edited(scene, spreadLayers(moment, new Set(['a', 'b', 'c']), 'down'));
    const gaps = [box(spread, 'b').top - box(spread, 'a').bottom, box(spread, 'c').top - box(spread, 'b').bottom];
    expect(gaps[0]).toBeCloseTo(gaps[1], 9);
    expect(box(spread, 'c')).toEqual(box(scene, 'c'));
    expect(spreadLayers(moment, new Set(['a', 'b']), 'down')).toEqual([]);
  });

  test('three of different sizes are spread across: the outermost stay, gaps are alike, nothing goes up or down', () => {
    const at = (id: string, x: number, width: number) =>
      card(id, { rest: { 'position.x': x, 'position.y': 100, 'size.x': width, 'size.y': 50 } });
    // From 0 to 100, 120 to 180 and 460 to 500: 300 px free, 150 each side.
    const row = sceneOf([at('wide', 50, 100), at('small', 480, 40), at('middle', 150, 60)]);
    const after = edited(
      row,
      spreadLayers(stageMoment(row, 'along', 0), new Set(['wide', 'small', 'middle']), 'across'),
    );
    expect(after.layers.map(({ rest }) => [rest['position.x'], rest['position.y']])).toEqual([
      [50, 100],
      [480, 100],
      [280, 100],
    ]);
    expect(alignLayers(stageMoment(row, 'along', 0), new Set(), 'left')).toEqual([]);
  });

  test.each([
    ['left', ({ left }: Box) => left],
    ['centre', ({ left, right }: Box) => left + right],
    ['right', ({ right }: Box) => right],
    ['top', ({ top }: Box) => top],
    ['middle', ({ top, bottom }: Box) => top + bottom],
    ['bottom', ({ bottom }: Box) => bottom],
  ] as const)('to the %s, layers come there and go no other way', (side, of) => {
    const box = (on: Scene, index: number): Box => boundsAt(frameAt(compileScene(on), 0), index);
    const [a, c] = [box(scene, 1), box(scene, 3)];
    const all: Box = {
      left: Math.min(a.left, c.left),
      top: Math.min(a.top, c.top),
      right: Math.max(a.right, c.right),
      bottom: Math.max(a.bottom, c.bottom),
    };
    const aligned = edited(scene, alignLayers(stageMoment(scene, 'along', 0), new Set(['a', 'c']), side));
    const isAcross = ['left', 'centre', 'right'].includes(side);
    for (const [index, before] of [
      [1, a],
      [3, c],
    ] as const) {
      const now = box(aligned, index);
      expect(of(now)).toBeCloseTo(of(all), 9);
      if (isAcross) expect(now.top).toBeCloseTo(before.top, 9);
      else expect(now.left).toBeCloseTo(before.left, 9);
      expect(now.right - now.left).toBeCloseTo(before.right - before.left, 9);
    }
  });

  test('the anchor goes to any place of the box, and the picture stays', () => {
    const moment = stageMoment(scene, 'along', 0);
    const edits = anchorTo(moment, 1, { x: 0, y: 1 });
    const result = apply(scene, edits);
    expect(result.ok && places(result.scene)).toEqual(places(scene));
    const share = shareAt(moment, 1, { x: 200, y: 120 });
    expect([share?.x.toFixed(9), share?.y.toFixed(9)]).toEqual(['0.500000000', '0.500000000']);
  });
});
