import { describe, expect, test } from '@jest/globals';
import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { frameTicks, TICKS_PER_SECOND } from '../../basics/time';
import type { Layer } from '../layer';
import { sceneSchema, type Scene } from '../scene';
import {
  bakedScene,
  bakeInFewer,
  bakeTrack,
  compileScene,
  createFrame,
  drivenTrack,
  matrixAt,
  sampleFrame,
  sampleTrack,
  tabulateDriven,
  type Baked,
  type CompiledRigs,
} from '.';
import { recipeOf, rigged, shelfWith } from '../../testing/rigs';
import { card, key, PAL, sceneOf } from '../../testing/scenes';

const FRAME = frameTicks(PAL);
/** How far beside a time a rig is looked at, to find where it breaks: half a millisecond. */
const INSET = TICKS_PER_SECOND / 2_000;
const ease = { type: 'bezier', x1: 0.6, y1: 0, x2: 0.2, y2: 1 } as const;
const path = { d: 'M0 0 C0 -120 160 -120 160 0 S320 120 320 0', turns: false } as Layer['path'];

/** The layer's origin and the way that its right side points, at every frame. */
function walk(scene: Scene): number[][] {
  const compiled = compileScene(scene);
  const frame = createFrame(compiled);
  return Array.from({ length: 100 }, (_, i) => {
    sampleFrame(compiled, i * FRAME, frame);
    const [a, b, , , e, f] = matrixAt(frame, 0);
    return [e, f, (Math.atan2(b, a) * 180) / Math.PI];
  });
}

function farthest(one: readonly number[][], other: readonly number[][], parts: readonly number[]): number {
  return Math.max(...one.flatMap((place, i) => parts.map((part) => Math.abs(place[part] - other[i][part]))));
}

const led = (more: Partial<Layer> = {}): Layer =>
  card('a', {
    path,
    rest: { 'size.x': 0, 'size.y': 0, 'position.x': 100, 'position.y': 200 },
    tracks: { 'path.distance': [key(10, 0, ease), key(60, 1)] },
    ...more,
  });

describe('motion paths as keys', () => {
  test('go where the path goes, to a quarter of a pixel, and leave nothing of the path', () => {
    const scene = sceneOf([led()]);
    const baked = bakedScene(scene);
    const [layer] = baked.layers;
    expect(layer.path).toBeNull();
    expect(Object.keys(layer.tracks).sort()).toEqual(['position.x', 'position.y']);
    expect(farthest(walk(scene), walk(baked), [0, 1])).toBeLessThan(0.3);
    expect(sceneSchema.safeParse(baked).error?.issues ?? []).toEqual([]);
    expect(layer.tracks['position.x']?.length).toBeLessThan(40);
  });

  test('add to keys of the position, and turn along where the path does', () => {
    const scene = sceneOf([
      led({
        path: { ...path, turns: true } as Layer['path'],
        tracks: {
          'path.distance': [key(10, 0, ease), key(60, 1)],
          'position.y': [key(0, 200), key(80, 260)],
          rotation: [key(0, 15)],
        },
      }),
    ]);
    const baked = bakedScene(scene);
    expect(Object.keys(baked.layers[0].tracks).sort()).toEqual(['position.x', 'position.y', 'rotation']);
    expect(farthest(walk(scene), walk(baked), [0, 1])).toBeLessThan(0.3);
    expect(farthest(walk(scene), walk(baked), [2])).toBeLessThan(1);
  });

  test('stand still where the path is not gone along, or is none', () => {
    const still = bakedScene(sceneOf([led({ tracks: {}, rest: { ...led().rest, 'path.distance': 0.5 } })]));
    expect(farthest(walk(still), [...walk(still).slice(1), walk(still)[0]], [0, 1])).toBe(0);
    expect(walk(still)[0][0]).toBeCloseTo(260, 0);
    const none = bakedScene(sceneOf([led({ path: { d: 'nonsense', turns: false } as Layer['path'] })]));
    expect(none.layers[0]).toMatchObject({ path: null, tracks: { 'path.distance': [{ value: 0 }, { value: 1 }] } });
  });

  test('leave other layers, and scenes without paths, as they are', () => {
    const scene = sceneOf([led(), card('b', { tracks: { opacity: [key(0, 0), key(9, 1)] } })]);
    expect(bakedScene(scene).layers[1]).toBe(scene.layers[1]);
    const plain = sceneOf([card('b')]);
    expect(bakedScene(plain)).toBe(plain);
  });

  test('last as long as the layer, at whatever rate they are asked for', () => {
    const span = { in: 5 * FRAME, out: 50 * FRAME };
    const [layer] = bakedScene(sceneOf([led({ span })]), { num: 50, den: 1 }).layers;
    const times = (layer.tracks['position.x'] ?? []).map(({ at }) => at);
    expect(times[0]).toBeGreaterThanOrEqual(span.in);
    expect(times.at(-1)).toBeLessThanOrEqual(span.out);
    expect(times.every((at) => at % (FRAME / 2) === 0)).toBe(true);
  });
});

describe('a value that jumps', () => {
  const bakeOf = (value: (frame: number) => number, breaks: readonly number[] = [], end = 30): Baked =>
    bakeTrack({
      value: (at) => value(at / FRAME),
      from: 0,
      to: end * FRAME,
      breaks: breaks.map((frame) => frame * FRAME),
      step: FRAME,
      tolerance: 0.25,
    });
  /** How far what the keys give is off on frames, and how far it swings beyond what the value ever is between them. */
  const off = ({ keys }: Baked, value: (frame: number) => number, [low, high]: readonly [number, number]) => {
    let [onFrames, beyond] = [0, 0];
    for (let i = 0; i <= 30 * 16; i++) {
      const now = sampleTrack(keys, (i / 16) * FRAME);
      if (i % 16 === 0) onFrames = Math.max(onFrames, Math.abs(now - value(i / 16)));
      beyond = Math.max(beyond, low - now, now - high);
    }
    return { onFrames, beyond };
  };

  test('becomes fewer keys than so many, the same ones, or none', () => {
    const ways = [
      (frame: number) => 40 * Math.sin(frame / 3),
      (frame: number) => (frame < 20 ? 44 : 200),
      (frame: number) => Math.max(0, frame - 10) * 3,
      () => 5,
    ];
    for (const way of ways) {
      const bake = {
        value: (at: number) => way(at / FRAME),
        from: 0,
        to: 30 * FRAME,
        breaks: [5, 12, 20].map((frame) => frame * FRAME),
        step: FRAME,
        tolerance: 0.25,
      };
      const whole = bakeTrack(bake);
      for (let count = 1; count <= 32; count++)
        expect(bakeInFewer(bake, count)).toEqual(whole.keys.length < count ? whole : null);
    }
  });

  test('from stillness is held up to its frame, wherever it is', () => {
    const value = (frame: number) => (frame < 20 ? 44 : 200);
    for (const breaks of [[], [20]]) {
      const baked = bakeOf(value, breaks);
      expect(baked.keys.map(({ at, value: now, ease }) => [at / FRAME, now, ease.type])).toEqual([
        [0, 44, 'hold'],
        [20, 200, 'linear'],
        [30, 200, 'linear'],
      ]);
      expect(baked.worst).toBe(0);
    }
  });

  test('is not looked for beside the times that it is asked for', () => {
    const value = (frame: number) => 40 * Math.sin(frame / 3);
    const plain = bakeOf(value);
    expect(bakeOf(value, [-5, 0, 30, 44])).toEqual(plain);
    expect([plain.keys[0].at, plain.keys.at(-1)?.at]).toEqual([0, 30 * FRAME]);
  });

  test('again and again, as stepped time does, is a key a step', () => {
    const value = (frame: number) => Math.floor(frame / 3) ** 2;
    const { keys, worst } = bakeOf(value);
    expect(keys.slice(0, -1).every(({ ease }) => ease.type === 'hold')).toBe(true);
    expect(keys.map(({ at }) => at / FRAME)).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24, 27, 30]);
    expect(worst).toBe(0);
  });

  test('out of motion, or only after its frame, is right on every frame and never beyond what it is', () => {
    const moving = (frame: number) => frame * 4 + (frame < 20 ? 0 : 600);
    const moved = off(bakeOf(moving, [20]), moving, [0, 720]);
    expect(Math.max(moved.onFrames, moved.beyond)).toBeLessThan(1e-9);
    const late = (frame: number) => (frame > 20 ? 300 : 0);
    expect(off(bakeOf(late), late, [0, 300])).toMatchObject({ onFrames: 0, beyond: 0 });
    const round = (frame: number) => 100 * Math.sin(frame / 8) + (frame >= 11 ? 500 : 0);
    const made = off(bakeOf(round), round, [-100, 600]);
    expect(made.onFrames).toBeLessThan(0.25);
    expect(made.beyond).toBeLessThan(0.25);
  });

  test('is not what only turns sharply, as a ball does on the floor', () => {
    const ball = (frame: number) => 500 - 500 * Math.abs(Math.cos(frame / 5)) ** 1.2;
    const baked = bakeOf(ball, [Math.round((5 * Math.PI) / 2)]);
    expect(baked.keys.some(({ ease }) => ease.type === 'hold')).toBe(false);
  });
});

test('what is sampled has a value for every channel of every layer', () => {
  const compiled = compileScene(sceneOf([led(), card('b', { rest: { opacity: 0.25 } })]));
  const frame = createFrame(compiled);
  sampleFrame(compiled, 0, frame);
  expect(frame.values).toHaveLength(2 * CHANNEL_COUNT);
  expect(frame.values.every(Number.isFinite)).toBe(true);
  expect(frame.values[CHANNEL_COUNT + channelOf('opacity').slot]).toBe(0.25);
});

test('values that rigs give are tabulated as they are asked for one by one, each layer’s and channel’s own', () => {
  const text = 'keyed + (place + 1) × 1px × (t ÷ 1s)';
  const shelf = shelfWith(text, ['position.x', 'corner']);
  const cards = [
    card('a', { rest: { 'position.x': 10, corner: 3 } }),
    card('b', { rest: { 'position.x': 500, corner: 9 } }),
  ];
  const scene = rigged(sceneOf(cards), recipeOf('own'), shelf);
  const rigs = compileScene(scene).rigs as CompiledRigs;
  const table = tabulateDriven(
    scene,
    { ...rigs, driven: (layer) => rigs.driven(layer), valueAt: () => NaN },
    [0, 1],
    FRAME,
  );
  for (const layer of [0, 1]) {
    for (const channel of ['position.x', 'corner'] as const) {
      for (let i = 0; i < 50; i++) {
        // At a frame, and where a break beside it or between two frames is looked for.
        for (const beside of [0, INSET, 2 * INSET, FRAME / 4 - INSET, FRAME / 2 + INSET, FRAME - 2 * INSET]) {
          const at = i * FRAME + beside;
          expect(table(layer, channel, at)).toBeCloseTo(rigs.valueAt(layer, channel, at), 9);
        }
      }
      expect(table(layer, channel, FRAME / 7)).toBeNaN();
    }
  }
  expect(table(0, 'corner', 25 * FRAME)).toBeCloseTo(4, 9);
});

test.each([
  [0, 8, [0, 4, 8]],
  [2, 12, [2, 6, 10, 12]],
  [5, 5, [5]],
])(
  'what is driven from %i to %i as a track has a key at each step, at its end and never two at one time',
  (from, to, times) => {
    const track = drivenTrack({ valueAt: (layer, _channel, at) => layer + at }, 100, 'rotation', [from, to], 4);
    expect(track.map(({ at, value }) => [at, value])).toEqual(times.map((at) => [at, 100 + at]));
  },
);
