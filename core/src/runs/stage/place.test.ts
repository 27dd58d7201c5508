import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { inverse, multiply, type Matrix } from '../../basics/transform';
import { frameTicks } from '../../basics/time';
import { boundsAt, compileScene, frameAt } from '../../scene/sample';
import { sceneSchema, type Scene } from '../../scene/scene';
import { edited } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import { placeLayers, type Placement } from '.';

const at = (x: number, y: number, more: object = {}) => ({
  'position.x': x,
  'position.y': y,
  'size.x': 100,
  'size.y': 60,
  ...more,
});
const group = (id: string, rest: object, more: object = {}) =>
  card(id, { kind: 'group', source: { type: 'none' }, look: {}, rest: at(300, 200, rest), ...more });
const scene = sceneOf([
  card('a', { rest: at(100, 100, { rotation: 20 }) }),
  group('upright', { 'scale.x': 2, 'scale.y': 2, opacity: 0.5 }),
  card('in', { parent: 'upright', rest: at(40, 30) }),
  group('inner', { rotation: 30 }, { parent: 'upright' }),
  card('deep', { parent: 'inner', rest: at(10, 20) }),
  card('b', { rest: at(500, 300), tracks: { 'position.x': [key(0, 100), key(20, 700)] } }),
  group('moving', {}, { tracks: { 'position.x': [key(0, 0), key(20, 90)] } }),
  card('c', { rest: at(800, 500) }),
]);

/** Where every card is on screen at some frames. */
function places(on: Scene): Record<string, number[]> {
  const compiled = compileScene(on);
  const found: Record<string, number[]> = {};
  for (const frame of [0, 7, 20]) {
    const sampled = frameAt(compiled, frame * frameTicks(PAL));
    compiled.layers.forEach((layer, index) => {
      const { left, top, right, bottom } = boundsAt(sampled, index);
      if (layer.kind !== 'group') (found[layer.id] ??= []).push(left, top, right, bottom);
    });
  }
  return found;
}

function placed(ids: readonly string[], to: Placement): Scene {
  const result = placeLayers(scene, new Set(ids), to);
  if (!result.ok) throw new Error(result.message);
  return edited(scene, result.edits);
}

const order = (on: Scene, parent: string | null): string[] =>
  on.layers.filter((layer) => layer.parent === parent).map(({ id }) => id);

describe('placing layers', () => {
  test('what cannot go elsewhere says why: nothing, what is locked, a group into itself, a copy out of its run', () => {
    const said = (on: Scene, ids: readonly string[], to: Placement): string => {
      const result = placeLayers(on, new Set(ids), to);
      return result.ok ? `${result.edits.length} edits` : result.message;
    };
    const out = { parent: null, before: null };
    expect(said(scene, [], out)).toMatch(/Select a layer first/);
    expect(said(scene, ['upright'], { parent: 'inner', before: null })).toMatch(/cannot go into itself/);
    expect(said(scene, ['upright'], { parent: null, before: 'deep' })).toBe('0 edits');
    const locked = {
      ...scene,
      layers: scene.layers.map((layer) => (layer.id === 'a' ? { ...layer, locked: true } : layer)),
    };
    expect(said(locked, ['c', 'a'], out)).toMatch(/“a” is locked/);
    const copied = {
      ...scene,
      layers: scene.layers.map((layer) => (layer.id === 'in' ? { ...layer, copy: { run: 'r' } } : layer)),
    } as unknown as Scene;
    expect(said(copied, ['in'], out)).toMatch(/“in” is a copy that its run puts into its group/);
    // In depth it may go where it likes within its group.
    expect(said(copied, ['in'], { parent: 'upright', before: null })).toBe('1 edits');
  });

  test('behind another, in front of all, and several in their order', () => {
    expect(order(placed(['c'], { parent: null, before: 'a' }), null)[0]).toBe('c');
    expect(order(placed(['a'], { parent: null, before: null }), null)).toEqual(['upright', 'b', 'moving', 'c', 'a']);
    expect(order(placed(['a', 'c'], { parent: null, before: 'b' }), null)).toEqual([
      'upright',
      'a',
      'c',
      'b',
      'moving',
    ]);
    expect(placeLayers(scene, new Set(['a']), { parent: null, before: 'a' })).toMatchObject({ ok: true, edits: [] });
  });

  test('into a group and out of one, all stay where they are on screen, whenever that is', () => {
    for (const [ids, to] of [
      [['a'], { parent: 'upright', before: 'in' }],
      [['b', 'c'], { parent: 'upright', before: null }],
      [['a'], { parent: 'inner', before: 'deep' }],
      [['deep'], { parent: null, before: 'b' }],
      [['in', 'inner'], { parent: null, before: null }],
    ] as const) {
      const after = placed(ids, to);
      expect(sceneSchema.safeParse(after).error?.issues ?? []).toEqual([]);
      const [was, is] = [places(scene), places(after)];
      for (const id of Object.keys(was)) was[id].forEach((value, i) => expect(is[id][i]).toBeCloseTo(value, 6));
      if (to.before !== null) {
        const beside = order(after, to.parent);
        expect(beside.slice(beside.indexOf(ids[0]), beside.indexOf(to.before) + 1)).toEqual([...ids, to.before]);
      }
    }
  });

  test('what would jump, or cannot be, is told', () => {
    const why = (ids: readonly string[], parent: string | null): string => {
      const result = placeLayers(scene, new Set(ids), { parent, before: null });
      return result.ok ? '' : result.message;
    };
    expect(why(['upright'], 'inner')).toContain('into itself');
    expect(why(['c'], 'moving')).toContain('“moving” moves by keys of its own');
    expect(why(['b'], 'inner')).toContain('would jump');
    expect(why([], null)).toContain('Select a layer');
    // Within a group that leans no turn and size says what the layer was.
    const leaning = sceneOf([
      group('leaning', { skew: 20 }),
      card('x', { rest: at(10, 10) }),
      card('y', { parent: 'leaning', rest: at(10, 10) }),
    ]);
    for (const [id, parent] of [
      ['x', 'leaning'],
      ['y', null],
    ] as const)
      expect(placeLayers(leaning, new Set([id]), { parent, before: null })).toMatchObject({
        ok: false,
        message: expect.stringContaining(`“${id}” would jump`) as unknown as string,
      });
    const [first, ...others] = scene.layers;
    const held = { ...scene, layers: [{ ...first, locked: true }, ...others] };
    expect(placeLayers(held, new Set(['a']), { parent: null, before: null })).toMatchObject({ ok: false });
  });
});

test('a transform and its inverse leave everything where it is; a flat one has none', () => {
  const number = fc.double({ min: -50, max: 50, noNaN: true });
  fc.assert(
    fc.property(fc.tuple(number, number, number, number, number, number), (matrix: Matrix) => {
      const back = inverse(matrix);
      const area = Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2]);
      if (!back || area < 1e-3) return;
      multiply(back, matrix).forEach((value, i) => expect(value).toBeCloseTo([1, 0, 0, 1, 0, 0][i], 5));
    }),
  );
  expect(inverse([1, 2, 2, 4, 0, 0])).toBeNull();
});
