import { describe, expect, test } from '@jest/globals';
import { apply } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { programmeBoard } from '../../scene/demo';
import type { Scene } from '../../scene/scene';
import { ticksFromSeconds } from '../../basics/time';
import { dragLookHandle, lookHandles, stageMoment, type DragSets, type LookHandle } from '.';

const board = programmeBoard();

function sceneOf(layer: Partial<Layer>): Scene {
  const own: Layer = {
    ...board.layers[0],
    id: 'one',
    name: 'One',
    parent: null,
    source: { type: 'rectangle' },
    tracks: {},
    ...layer,
    rest: { 'position.x': 500, 'position.y': 300, 'size.x': 200, 'size.y': 100, ...layer.rest },
  };
  return { ...board, layers: [own], runs: [] };
}

function handleOf(scene: Scene, label: string, sets: DragSets = 'rest'): LookHandle {
  const found = lookHandles(stageMoment(scene, sets, 0), 0).find((one) => one.label === label);
  if (!found) throw new Error(`no handle ${label}`);
  return found;
}

function dragged(
  scene: Scene,
  label: string,
  by: readonly [number, number],
  isStraight = false,
  sets: DragSets = 'rest',
) {
  const handle = handleOf(scene, label, sets);
  const to = { x: handle.at.x + by[0], y: handle.at.y + by[1] };
  const result = dragLookHandle(stageMoment(scene, sets, 0), 0, handle, to, isStraight);
  const applied = result ? apply(scene, result.edits) : null;
  if (!result || !applied?.ok) throw new Error('nothing came of it');
  return { words: result.words, label: result.label, layer: applied.scene.layers[0], scene: applied.scene };
}

const full = sceneOf({
  look: {
    fill: { from: '#000000', to: '#ffffff', angle: 0 },
    border: { colour: '#ffffff', side: 'on' },
    shadow: '#000000',
    inner: '#000000',
    glow: '#ffffff',
    masks: [{ shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 0.5, height: 1, turn: 0, soft: 0 }],
  },
  rest: {
    corner: 10,
    'border.width': 8,
    'shadow.x': 12,
    'shadow.y': 16,
    'glow.size': 20,
    blur: 5,
    'streak.length': 40,
    'streak.angle': 90,
  },
});

describe('handles of a look', () => {
  test.each([
    [
      [40, 30],
      [49, 49],
    ],
    [
      [-50, 8],
      [-31, 31],
    ],
    [
      [-12, -60],
      [0, -44],
    ],
    [
      [8, -14],
      [20, 0],
    ],
    [
      [-42, 14],
      [-30, 30],
    ],
  ] as const)(
    'a shadow of 12, 16 px dragged straight by %j is thrown by %j: the nearest on an eighth of a turn',
    (by, to) => {
      const { rest } = dragged(full, 'Shadow', by, true).layer;
      expect([rest['shadow.x'], rest['shadow.y']]).toEqual(to.map((value) => expect.closeTo(value, 6)));
    },
  );

  test('stand where the look has what they change, and only for what it has', () => {
    const places = lookHandles(stageMoment(full, 'rest', 0), 0).map(({ label, at }) => [
      label,
      Math.round(at.x * 10) / 10,
      Math.round(at.y * 10) / 10,
    ]);
    // The box runs from 400, 250 to 600, 350.
    expect(places).toEqual([
      ['Corners', 410, 260],
      ['Border', 604, 320],
      ['Shadow', 462, 341],
      ['Inner shadow', 550, 325],
      ['Glow', 620, 280],
      ['Blur', 395, 280],
      ['Streak', 500, 320],
      ['Gradient', 500, 350],
      ['Mask 1, turn', 500, 230],
      ['Mask 1, size', 550, 350],
      ['Mask 1', 500, 300],
    ]);
    const narrow = sceneOf({ look: {}, rest: { 'size.x': 20, 'size.y': 100, corner: 30 } });
    expect(handleOf(narrow, 'Corners').at).toEqual({ x: 500, y: 260 });
    expect(lookHandles(stageMoment(sceneOf({ look: {}, source: { type: 'ellipse' } }), 'rest', 0), 0)).toEqual([]);
    expect(lookHandles(stageMoment(sceneOf({ rest: { 'size.x': 0 } }), 'rest', 0), 0)).toEqual([]);
  });

  test('set the number that they stand for, and say it', () => {
    expect(dragged(full, 'Shadow', [8, -6])).toMatchObject({
      words: 'Shadow 20, 10 px',
      label: 'Set the shadow of “One”',
      layer: { rest: { 'shadow.x': 20, 'shadow.y': 10 } },
    });
    expect(dragged(full, 'Border', [3, 50]).layer.rest['border.width']).toBe(14);
    expect(dragged(full, 'Glow', [-30, 0]).layer.rest['glow.size']).toBe(0);
    expect(dragged(full, 'Blur', [-5, 0]).layer.rest.blur).toBe(10);
    expect(dragged(full, 'Corners', [20, 20]).layer.rest.corner).toBe(30);
    expect(dragged(full, 'Corners', [400, 400]).layer.rest.corner).toBe(50);
    expect(dragged(full, 'Streak', [30, -20]).layer.rest).toMatchObject({ 'streak.length': 60, 'streak.angle': 0 });
    expect(dragged(full, 'Gradient', [-50, -50]).layer.look.fill).toMatchObject({ angle: 90 });
  });

  test('of a mask move it, resize it about its middle and turn it; straight keeps its ratio, or turns by steps', () => {
    const maskOf = ({ look }: Layer) => look.masks?.[0];
    expect(maskOf(dragged(full, 'Mask 1', [20, -10]).layer)).toMatchObject({ x: 0.6, y: 0.4 });
    expect(maskOf(dragged(full, 'Mask 1, size', [50, -25]).layer)).toMatchObject({ width: 1, height: 0.5 });
    expect(maskOf(dragged(full, 'Mask 1, size', [50, 0], true).layer)).toMatchObject({ width: 1, height: 2 });
    expect(maskOf(dragged(full, 'Mask 1, turn', [70, 70]).layer)).toMatchObject({ turn: 90 });
    expect(maskOf(dragged(full, 'Mask 1, turn', [20, 0], true).layer)).toMatchObject({ turn: 15 });
  });

  test('follow the layer’s turn and size, and the masks’ common channels', () => {
    const turned = sceneOf({ ...full.layers[0], rest: { ...full.layers[0].rest, rotation: 90, 'scale.x': 2 } });
    const { at } = handleOf(turned, 'Shadow');
    // It stands 38 to the left of the middle and 41 below: twice as far, and a quarter turned, 41 to the left and 76 above.
    expect([Math.round(at.x), Math.round(at.y)]).toEqual([459, 224]);
    expect(dragged(turned, 'Shadow', [-4, 6]).layer.rest).toMatchObject({ 'shadow.x': 15, 'shadow.y': 20 });
    const moved = sceneOf({
      ...full.layers[0],
      rest: { ...full.layers[0].rest, 'mask.x': 0.1, 'mask.scale': 2, 'mask.rotation': 30 },
    });
    for (const label of ['Mask 1', 'Mask 1, size', 'Mask 1, turn']) {
      const { scene } = dragged(moved, label, [7, 11]);
      const [before, after] = [handleOf(moved, label).at, handleOf(scene, label).at];
      if (label === 'Mask 1, turn') continue;
      expect(after.x - before.x).toBeCloseTo(7, 1);
      expect(after.y - before.y).toBeCloseTo(11, 1);
    }
  });

  test('a key here leaves the rest value, all keys along moves both', () => {
    const keyed = sceneOf({
      ...full.layers[0],
      tracks: {
        'glow.size': [
          { at: 0, value: 20, ease: { type: 'hold' } },
          { at: ticksFromSeconds(1), value: 40, ease: { type: 'hold' } },
        ],
      },
    } as Partial<Layer>);
    const along = dragged(keyed, 'Glow', [5, 0], false, 'along').layer;
    expect([along.rest['glow.size'], along.tracks['glow.size']?.map(({ value }) => value)]).toEqual([25, [25, 45]]);
    const here = dragged(keyed, 'Glow', [5, 0], false, 'key').layer;
    expect([here.rest['glow.size'], here.tracks['glow.size']?.map(({ value }) => value)]).toEqual([20, [25, 40]]);
  });

  test('of one mask and of further shadows set the look at rest, and keys of their own channels where a drag sets keys', () => {
    const mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 0.5, height: 0.5, turn: 0, soft: 0 } as const;
    const parts = sceneOf({
      look: {
        masks: [mask, { ...mask, how: 'take' }],
        shadow: '#000000',
        shadows: [
          { colour: '#ff0000', x: 10, y: 20, blur: 4 },
          { colour: '#00ff00', x: 0, y: 0, blur: 4 },
        ],
      },
      rest: { 'mask2.x': 0.1, 'mask2.width': 0.5, 'shadow2.x': 5 },
    });
    // The box runs from 400, 250 to 600, 350; the second mask stands a tenth of its width further, and is half as wide.
    expect(handleOf(parts, 'Mask 2').at).toEqual({ x: 520, y: 300 });
    expect(handleOf(parts, 'Mask 2, size').at).toEqual({ x: 545, y: 325 });
    expect(handleOf(parts, 'Shadow 2').at).toEqual({ x: 465, y: 345 });
    expect(handleOf(parts, 'Shadow 3').at).toEqual({ x: 450, y: 325 });

    const moved = dragged(parts, 'Mask 2', [20, 10]);
    expect(moved.words).toBe('Mask 2 70 %, 60 %');
    expect(moved.layer.look.masks?.[1]).toMatchObject({ x: 0.6, y: 0.6 });
    expect(moved.layer.look.masks?.[0]).toEqual(mask);
    expect(moved.layer.rest).toEqual(parts.layers[0].rest);
    expect(dragged(parts, 'Mask 2, size', [25, 0]).layer.look.masks?.[1]).toMatchObject({ width: 1, height: 0.5 });
    // One that has shrunk to nothing is pulled open again.
    const shut = sceneOf({ look: { masks: [{ ...mask, width: 0, height: 0 }] } });
    expect(dragged(shut, 'Mask 1, size', [50, 20]).layer.look.masks?.[0]).toMatchObject({ width: 0.5, height: 0.4 });
    const away = sceneOf({ look: { masks: [mask] }, rest: { 'mask1.width': 0, 'mask1.height': 0 } });
    expect(dragged(away, 'Mask 1, size', [50, 20]).layer.look.masks?.[0]).toMatchObject({ width: 0.5, height: 0.4 });
    expect(dragged(parts, 'Shadow 2', [3, -4]).layer.look.shadows?.[0]).toMatchObject({ x: 13, y: 16 });

    const keyed = dragged(parts, 'Mask 2', [20, 10], false, 'key').layer;
    expect(keyed.look).toEqual(parts.layers[0].look);
    expect([keyed.tracks['mask2.x']?.[0].value, keyed.tracks['mask2.y']?.[0].value]).toEqual([0.2, 0.1]);
    expect(Object.keys(keyed.tracks).sort()).toEqual(['mask2.x', 'mask2.y']);
    const sized = dragged(parts, 'Mask 2, size', [25, 25], false, 'key').layer.tracks;
    expect(Object.keys(sized).sort()).toEqual(['mask2.height', 'mask2.width']);
    // Of a mask without width or height no share says how wide it is to be.
    expect(dragged(shut, 'Mask 1, size', [50, 20], false, 'key').layer.tracks).toEqual({});
    expect([sized['mask2.width']?.[0].value, sized['mask2.height']?.[0].value]).toEqual([1, 2]);
    expect(dragged(parts, 'Mask 1, turn', [35, 35], true, 'key').layer.tracks['mask1.rotation']?.[0].value).toBe(90);
    const thrown = dragged(parts, 'Shadow 2', [3, -4], false, 'key').layer.tracks;
    expect([thrown['shadow2.x']?.[0].value, thrown['shadow2.y']?.[0].value]).toEqual([8, -4]);
  });
});
