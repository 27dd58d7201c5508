import { describe, expect, test } from '@jest/globals';
import { createEvenPath, pathPoint, READY_PATHS } from '../../basics/motion';
import type { Movement, MovementOf, Preset } from '../../formulas/preset';
import { createPreset, draftPresetSchema, presetSchema } from '../../formulas/preset';
import { addMovement, createMovement, matchingExit } from '../../library/authoring';
import { createShelf, type PresetItem } from '../../library/library';
import { STARTER_LIBRARY, STARTER_MOVEMENTS, STARTER_PRESETS } from '../../library/starter';
import type { ChannelId } from '../../basics/channel';
import { LINEAR } from '../../basics/easing';
import { sampleTrack } from '../../scene/sample';
import type { Layer } from '../../scene/layer';
import { createRecipe, type PresetRecipe } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { frameTicks, ticksFromSeconds, TICKS_PER_SECOND } from '../../basics/time';
import { card, CONTEXT, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding, severityOf } from '../finding';
import { plan } from '../plan';
import { operationFor } from '../run';
import { wayByTurns } from '.';

const [PRESET] = STARTER_PRESETS;

/** A preset that is nothing but a movement, on exact times. */
function presetOf(movement: Movement, more: Partial<Preset> = {}): PresetItem {
  const body: Preset = { ...createPreset('entrance'), grid: 'exact', movements: [movement], ...more };
  return { ...PRESET, id: 'tried', name: 'Tried', body };
}

function begun<T extends Movement['type']>(type: T, more: object = {}, numbers: object = {}): MovementOf<T> {
  const movement = createMovement(createPreset('entrance'), type) as MovementOf<T>;
  return { ...movement, ...more, numbers: { ...movement.numbers, ...numbers } };
}

const scene: Scene = sceneOf([card('a'), card('b', { rest: { 'position.x': 500, 'position.y': 300 } })]);

function planned(item: PresetItem, recipe: Partial<PresetRecipe> = {}, on: Scene = scene) {
  const shelf = createShelf([...STARTER_LIBRARY, item]);
  const whole = createRecipe(operationFor(item.body.phase), item.id, { by: 'rule', kind: 'card' });
  return plan(on, shelf, { ...whole, ...recipe }, CONTEXT);
}

function layerOf(item: PresetItem, recipe: Partial<PresetRecipe> = {}, on: Scene = scene): Layer {
  const result = planned(item, recipe, on);
  const told = result.findings.filter((finding) => severityOf(finding) !== 'note');
  expect(told.map((finding) => describeFinding(finding, on))).toEqual([]);
  return result.layers[0].after;
}

function valueAt(layer: Layer, channel: ChannelId, seconds: number): number {
  return sampleTrack(layer.tracks[channel] ?? [], ticksFromSeconds(seconds));
}

describe('a bounce', () => {
  // Common practice, with other numbers: from 400 px under 5000 px/s² a fall lasts 0.4 s and arrives at 2000 px/s.
  const fall = begun('bounce', {}, { height: '400px', gravity: '5000', restitution: '70%' });

  test('falls, hops and rests on its exact parabolas', () => {
    const layer = layerOf(presetOf(fall));
    const y = (seconds: number): number => valueAt(layer, 'position.y', seconds);
    expect(y(0)).toBe(-300);
    for (const t of [0.1, 0.2, 0.35]) expect(y(t)).toBeCloseTo(-300 + 2500 * t * t, 6);
    expect(y(0.4)).toBeCloseTo(100, 9);
    // The first flight: 0.56 s long and 196 px high.
    expect(y(0.4 + 0.28)).toBeCloseTo(100 - 196, 9);
    for (const t of [0.1, 0.3, 0.5]) expect(y(0.4 + t)).toBeCloseTo(100 - (1400 * t - 2500 * t * t), 6);
    expect(y(0.96)).toBeCloseTo(100, 9);
    expect(y(0.96 + 0.196)).toBeCloseTo(100 - 96.04, 9);
    expect(layer.tracks['position.y']?.at(-1)?.value).toBe(100);
  });

  test('sets off at a speed, sideways at an even pace, and squashes with its area kept', () => {
    const hop = begun(
      'bounce',
      { by: 'speed' },
      { speed: '1400', gravity: '5000', restitution: '50%', travel: '90px', squash: '40%', contact: '0.1s' },
    );
    const layer = layerOf(presetOf(hop));
    expect(valueAt(layer, 'position.y', 0.28)).toBeCloseTo(100 - 196, 9);
    const end = layer.tracks['position.x']?.at(-1)?.at ?? 0;
    expect(layer.tracks['position.x']?.map(({ value }) => value)).toEqual([10, 100]);
    expect(end / TICKS_PER_SECOND).toBeCloseTo(0.56 * 2, 1);
    // At the second contact, the first one after a flight, by half of the first's share: 40 % × 50 %.
    expect(valueAt(layer, 'scale.y', 0.56)).toBeCloseTo(0.8, 6);
    for (const t of [0.53, 0.55, 0.56, 0.58, 0.6]) {
      expect(valueAt(layer, 'scale.x', t) * valueAt(layer, 'scale.y', t)).toBeCloseTo(1, 2);
    }
  });

  test('is squashed for no longer than half the shorter flight beside a contact, however long it is to be', () => {
    const speed = { speed: '1400', gravity: '5000', restitution: '50%', squash: '40%', contact: '1s' };
    const layer = layerOf(presetOf(begun('bounce', { by: 'speed' }, speed)));
    // Flights of 0.56, 0.28 and 0.14 s: a contact at 0.56 s, half of 0.28 s to either side, and one at 0.84 s.
    for (const still of [0.42, 0.7, 0.77]) expect(valueAt(layer, 'scale.y', still)).toBeCloseTo(1, 6);
    for (const flat of [0.45, 0.67, 0.79]) expect(valueAt(layer, 'scale.y', flat)).toBeLessThan(0.99);
  });

  test('lands on whole frames where its preset wants that, and is stretched to a length', () => {
    const layer = layerOf(presetOf(fall, { grid: 'frames' }));
    const frame = frameTicks(PAL);
    expect((layer.tracks['position.y'] ?? []).every(({ at }) => at % frame === 0)).toBe(true);
    const { lasts: _lasts, ...alone } = presetOf(fall).body;
    const item = {
      ...presetOf(fall),
      body: { ...alone, parameters: [], moments: [{ id: 'start', name: 'Start', at: '0f' }] },
    };
    const long = planned(item, { length: { by: 'fixed', length: '4s' } }).layers[0];
    expect(long.lasts).toBe(ticksFromSeconds(4));
    expect(long.after.tracks['position.y']?.at(-1)?.at).toBe(ticksFromSeconds(4));
  });

  test('is refused where it would never rest, with the reason and the layers', () => {
    const never = presetOf(begun('bounce', {}, { restitution: '90% + place × 10%' }));
    const { findings, layers } = planned(never);
    expect(layers).toEqual([]);
    expect(findings.map((finding) => describeFinding(finding, scene))).toEqual([
      'Bounce of position y on “b”: it must give back at least 0 % and less than 100 % of its speed; at 100 % or more it would never come to rest.',
    ]);
  });

  test('that is switched off gives no keys and takes no time', () => {
    const off = { name: 'drop', label: 'Drop', kind: 'switch', default: 'off', note: '' } as const;
    const { lasts: _lasts, ...body } = presetOf({ ...fall, when: 'drop' }).body;
    const row = { channel: 'opacity', cells: [{ moment: 'start', value: '50%', ease: LINEAR }] } as const;
    const item = presetOf(fall, {
      ...body,
      parameters: [off],
      moments: moments('2f'),
      rows: [{ ...row, cells: [...row.cells] }],
    });
    const [layer] = planned(item).layers;
    expect(layer.after.tracks['position.y']).toBeUndefined();
    expect(layer.lasts).toBe(2 * frameTicks(PAL));
  });

  test('takes the place of another entrance, and its keys keep their slots when only their numbers change', () => {
    const slots = (height: string): (string | undefined)[] =>
      (layerOf(presetOf(begun('bounce', {}, { height }))).tracks['position.y'] ?? []).map(({ by }) => by?.slot);
    const [low, high] = [slots('100px'), slots('400px')];
    expect(low.filter((slot) => !high.includes(slot))).toEqual([]);
  });
});

test('a spring follows its law with its initial speed and ends exactly at rest', () => {
  for (const damping of ['0.2', '1', '1.8']) {
    const spring = begun('spring', {}, { start: 'rest + 200px', speed: '-3000', pace: '1.5Hz', damping });
    const layer = layerOf(presetOf(spring, { moments: [{ id: 'start', name: 'Start', at: '0f' }] }));
    const keys = layer.tracks['position.y'] ?? [];
    expect(keys.at(-1)?.value).toBe(100);
    // Integrated step by step (Runge and Kutta's fourth-order method, any numerical handbook).
    const omega = 2 * Math.PI * 1.5;
    const pull = (x: number, v: number): number => -omega * omega * x - 2 * Number(damping) * omega * v;
    let [x, v] = [200, -3000];
    const h = 1 / 2000;
    for (let i = 0; i < 1000; i++) {
      if (i % 100 === 0) expect(valueAt(layer, 'position.y', i * h)).toBeCloseTo(100 + x, -0.5);
      const [k1, l1] = [v, pull(x, v)];
      const [k2, l2] = [v + (h / 2) * l1, pull(x + (h / 2) * k1, v + (h / 2) * l1)];
      const [k3, l3] = [v + (h / 2) * l2, pull(x + (h / 2) * k2, v + (h / 2) * l2)];
      const [k4, l4] = [v + h * l3, pull(x + h * k3, v + h * l3)];
      x += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
      v += (h / 6) * (l1 + 2 * l2 + 2 * l3 + l4);
    }
  }
});

test('a spring that is pushed from where it rests takes as few keys as one that is let go as far away', () => {
  const keysOf = (start: string, speed: string): number => {
    const spring = begun('spring', {}, { start, speed, pace: '1.5Hz', damping: '0.4' });
    const moments = [{ id: 'start', name: 'Start', at: '0f' }];
    return layerOf(presetOf(spring, { moments })).tracks['position.y']?.length ?? 0;
  };
  // It swings out by speed ÷ (τ · pace), but for what damping takes.
  const [pushed, away] = [keysOf('rest', '3000'), keysOf(`rest + ${Math.round(3000 / (2 * Math.PI * 1.5))}px`, '0')];
  expect(pushed).toBeGreaterThan(3);
  expect(pushed).toBeLessThan(1.5 * away);
});

describe('a sway', () => {
  const whole: Partial<Preset> = {
    phase: 'throughout',
    hang: 'span',
    moments: [
      { id: 'start', name: 'In', at: '0f' },
      { id: 'end', name: 'Out', at: 'layer.length' },
    ],
  };

  test('stays within its amounts, begins and ends at rest, and goes another way on each layer', () => {
    const item = presetOf(
      begun('sway', {
        parts: [
          { rate: '1Hz', amount: '100px' },
          { rate: '10Hz', amount: '5px' },
        ],
      }),
      whole,
    );
    const [a, b] = planned(item).layers.map(({ after }) => after);
    const path = (layer: Layer, rest: number) =>
      Array.from({ length: 250 }, (_, i) => valueAt(layer, 'position.y', i / 25) - rest);
    expect(Math.max(...path(a, 100).map(Math.abs))).toBeLessThan(106);
    expect(path(a, 100)).not.toEqual(path(b, 300));
    expect([a.tracks['position.y']?.[0].value, a.tracks['position.y']?.at(-1)?.value]).toEqual([100, 100]);
  });

  test('sets a key on every frame where it shall be exact, few where it may be off', () => {
    const keys = (within: string): number =>
      layerOf(presetOf(begun('sway', {}, { within }), { ...whole, grid: 'frames' })).tracks['position.y']?.length ?? 0;
    expect(keys('0%')).toBe(251);
    expect(keys('2%')).toBeLessThan(60);
    // Off the grid of frames, too, it is one for each frame's length.
    const exact = (within: string) =>
      layerOf(presetOf(begun('sway', {}, { within }), whole)).tracks['position.y']?.length;
    expect(exact('0%')).toBe(251);
    // What cannot be told from rounding asks for no more than that.
    expect(exact('0.0000000001%')).toBeLessThan(252);
    // Nor does a rate that no picture shows set more than eight keys a frame.
    const quick = begun('sway', { parts: [{ rate: '100000Hz', amount: '100px' }] });
    const { layers } = planned(presetOf(quick, whole));
    expect(layers[0].after.tracks['position.y']?.length).toBeLessThanOrEqual(250 * 8 + 1);
  });

  test.each([0, 2])('that loops ends as it begins, where it begins after %i s', (begins) => {
    const moments = [{ id: 'start', name: 'In', at: `${begins}s` }, ...(whole.moments ?? []).slice(1)];
    const loop = begun('sway', { isLoop: true }, { fade: '0s', within: '0.01%' });
    const layer = layerOf(presetOf(loop, { ...whole, moments }));
    expect(valueAt(layer, 'position.y', 10)).toBeCloseTo(valueAt(layer, 'position.y', begins), 6);
  });
});

describe('a path', () => {
  const arc = READY_PATHS.find(({ id }) => id === 'arc-left') ?? READY_PATHS[0];

  test('takes a frame at least, be its moments at one time or the wrong way round', () => {
    for (const [start, end] of [
      ['0s', '0s'],
      ['1s', '0s'],
    ]) {
      const path = begun('path', { from: 'start', to: 'end', d: arc.d, fit: arc.fit, ease: LINEAR });
      const at = [
        { id: 'start', name: 'Start', at: start },
        { id: 'end', name: 'End', at: end },
      ];
      const keys = layerOf(presetOf(path, { moments: at })).tracks['position.x'] ?? [];
      expect(keys.length).toBeGreaterThan(1);
      expect((keys.at(-1)?.at ?? 0) - keys[0].at).toBe(frameTicks(PAL));
    }
  });

  test('is gone along at even speed, from beyond the frame to where the layer rests', () => {
    const path = begun('path', { d: arc.d, fit: arc.fit, ease: LINEAR });
    const layer = layerOf(presetOf(path, { moments: moments('1s') }));
    const at = (seconds: number) => [valueAt(layer, 'position.x', seconds), valueAt(layer, 'position.y', seconds)];
    const [startX] = at(0);
    // Just beyond the left edge: its right edge is 150.
    expect(startX + 50).toBeLessThan(0);
    expect(startX + 50).toBeGreaterThan(-10);
    expect(at(1)).toEqual([100, 100]);
    const even = createEvenPath(arc.d);
    if (!even) throw new Error('no path');
    const scale = (startX - 100) / -600;
    for (const share of [0.2, 0.5, 0.9]) {
      const point = pathPoint(even, even.length * share);
      const [x, y] = at(share);
      expect(Math.hypot(x - 100 - point.x * scale, y - 100 - point.y * scale)).toBeLessThan(0.25);
    }
  });

  test.each<[string, string, 0 | 1, (edge: number) => number]>([
    // The card lies from 50 to 150 across and from 75 to 125 down.
    ['left', 'M-100 0 H0', 0, (x) => 0 - (x + 50)],
    ['right', 'M100 0 H0', 0, (x) => x - 50 - 1_000],
    ['top', 'M0 -100 V0', 1, (y) => 0 - (y + 25)],
    ['bottom', 'M0 100 V0', 1, (y) => y - 25 - 500],
  ])('that comes from the %s begins just beyond that edge', (_name, d, axis, beyond) => {
    const layer = layerOf(presetOf(begun('path', { d, fit: 'in', ease: LINEAR }), { moments: moments('1s') }));
    const starts = [valueAt(layer, 'position.x', 0), valueAt(layer, 'position.y', 0)];
    expect(beyond(starts[axis])).toBeGreaterThan(0);
    expect(beyond(starts[axis])).toBeLessThan(60);
    expect(starts[1 - axis]).toBeCloseTo(100, 6);
  });

  test('that comes from a corner begins where it is beyond the first edge, no further out', () => {
    // Up to the left, one as far as the other: the top edge is nearer, 125 px as against 150.
    const diagonal = begun('path', { d: 'M-100 -100 L0 0', fit: 'in', ease: LINEAR });
    const layer = layerOf(presetOf(diagonal, { moments: moments('1s') }));
    for (const channel of ['position.x', 'position.y'] as const)
      expect(valueAt(layer, channel, 0)).toBeCloseTo(100 - 125 * 1.02, 4);
  });

  test('takes as long as its way needs at so many pixels a second', () => {
    const path = begun('path', { d: arc.d, fit: arc.fit, ease: LINEAR });
    const item = presetOf(path, { moments: moments('1s') });
    const plain = layerOf(item);
    // The way, in short straight pieces.
    let way = 0;
    for (let i = 1; i <= 400; i++) {
      const at = (share: number) => [valueAt(plain, 'position.x', share), valueAt(plain, 'position.y', share)];
      const [[ax, ay], [bx, by]] = [at((i - 1) / 400), at(i / 400)];
      way += Math.hypot(bx - ax, by - ay);
    }
    for (const speed of [200, 500]) {
      const { lasts } = planned(item, { length: { by: 'speed', speed } }).layers[0];
      expect(lasts / TICKS_PER_SECOND).toBeGreaterThan((0.97 * way) / speed - 0.04);
      expect(lasts / TICKS_PER_SECOND).toBeLessThan((1.01 * way) / speed + 0.04);
    }
  });

  test('of a layer that rests just beyond the edge is as long as drawn', () => {
    const aside = sceneOf([card('a', { rest: { 'position.x': -50, 'size.x': 100 } })]);
    const line = begun('path', { d: 'M-100 0 L0 0', fit: 'in', ease: LINEAR });
    const layer = planned(presetOf(line, { moments: moments('1s') }), {}, aside).layers[0].after;
    expect(valueAt(layer, 'position.x', 0)).toBeCloseTo(-150, 4);
    expect(valueAt(layer, 'position.x', 1)).toBeCloseTo(-50, 4);
  });

  test('turns along, jumps at corners, and stops where it is told to', () => {
    const corner = begun('path', { d: 'M0 0 H100 V100', fit: 'round', turns: true, ease: LINEAR }, { end: '75%' });
    const layer = layerOf(presetOf(corner, { moments: moments('3s') }));
    expect(valueAt(layer, 'rotation', 1)).toBeCloseTo(0, 6);
    expect(valueAt(layer, 'rotation', 2.5)).toBeCloseTo(90, 6);
    expect(valueAt(layer, 'position.x', 2)).toBeCloseTo(200, 6);
    expect(valueAt(layer, 'position.y', 3)).toBeCloseTo(150, 6);
  });

  test('backwards it is the exit that mirrors it', () => {
    const entrance = presetOf(begun('path', { d: arc.d, fit: arc.fit, ease: LINEAR }), { moments: moments('@lasts') });
    const body = matchingExit(entrance.body, 'tried');
    const exit = layerOf({ ...entrance, body });
    const enter = layerOf(entrance);
    for (const after of [0, 0.1, 0.3, 0.48]) {
      expect(valueAt(exit, 'position.x', 10 - after)).toBeCloseTo(valueAt(enter, 'position.x', after), 3);
    }
  });
});

test('an exit that mirrors a bounce begins at rest, ends where the bounce began, and is as long', () => {
  const item = STARTER_MOVEMENTS.find(({ id }) => id === 'bounce-home') as PresetItem;
  const body = matchingExit(item.body, item.id);
  const exit = planned({ ...item, id: 'tried', body }).layers[0];
  const enter = planned({ ...item, id: 'tried' }).layers[0];
  expect(exit.lasts).toBe(enter.lasts);
  expect(exit.starts + exit.lasts).toBe(ticksFromSeconds(10));
  const keys = exit.after.tracks['position.y'] ?? [];
  expect([keys[0].value, keys.at(-1)?.value]).toEqual([100, -140]);
  expect(keys.at(-1)?.at).toBe(ticksFromSeconds(10));
});

describe('framings', () => {
  const parts = [
    { x: '50%', y: '50%', zoom: '100%' },
    { x: '30%', y: '40%', zoom: '200%' },
    { x: '80%', y: '90%', zoom: '250%' },
  ];

  test('go through all of them, each reached, and hold at the end', () => {
    const layer = layerOf(presetOf(begun('framing', { parts }, { hold: '1s' }), { moments: moments('5s') }));
    const zooms = (layer.tracks['crop.zoom'] ?? []).map(({ value }) => value);
    expect(zooms[0]).toBe(1);
    expect(zooms.some((zoom) => Math.abs(zoom - 2) < 1e-9)).toBe(true);
    expect(valueAt(layer, 'crop.zoom', 4)).toBeCloseTo(2.5, 9);
    expect(valueAt(layer, 'crop.y', 4.5)).toBeCloseTo(0.8, 9);
  });

  test('made twice as long hold twice as long', () => {
    const preset = presetOf(begun('framing', { parts }, { hold: '1s' }), { moments: moments('5s') });
    const long = layerOf(preset, { length: { by: 'fixed', length: '10s' } });
    expect(valueAt(long, 'crop.zoom', 7.9)).toBeLessThan(2.5);
    for (const seconds of [8, 9, 10]) expect(valueAt(long, 'crop.zoom', seconds)).toBeCloseTo(2.5, 9);
  });

  test('by turns: by seed, no two neighbours the same way', () => {
    for (const seed of [1, 2, 3]) {
      const ways = Array.from({ length: 40 }, (_, place) => wayByTurns(4, place, seed));
      ways.slice(1).forEach((way, i) => expect(way).not.toBe(ways[i]));
      expect(new Set(ways).size).toBe(4);
    }
    expect(wayByTurns(1, 5, 9)).toBe(0);
  });
});

describe('a line that draws', () => {
  const drawn = (way: MovementOf<'draw'>['way'], at: number): number[] => {
    const layer = layerOf(presetOf(begun('draw', { way, ease: LINEAR }, { piece: '25%' }), { moments: moments('1s') }));
    return (['stroke.start', 'stroke.end'] as const).map((channel) =>
      layer.tracks[channel] ? Number(valueAt(layer, channel, at).toFixed(3)) : NaN,
    );
  };

  test('from its beginning, its end, its middle, and as a piece that passes', () => {
    expect(drawn('beginning', 0.5)).toEqual([NaN, 0.5]);
    expect(drawn('end', 0.5)).toEqual([0.5, NaN]);
    expect(drawn('middle', 0.5)).toEqual([0.25, 0.75]);
    const [tail, head] = drawn('piece', 0.5);
    expect(head - tail).toBeCloseTo(0.25, 1);
    expect(drawn('piece', 0)).toEqual([0, 0]);
    expect(drawn('piece', 1)).toEqual([1, 1]);
  });

  test.each([
    ['0.1%', [1, 25], [0, 24]],
    ['100000%', [24, 25], [0, 1]],
  ])('a piece of %s keeps a frame at either end to come and to go in', (piece, tail, head) => {
    const item = presetOf(begun('draw', { way: 'piece', ease: LINEAR }, { piece }), { moments: moments('1s') });
    const { tracks } = layerOf(item);
    const framesOf = (channel: ChannelId) => tracks[channel]?.map(({ at }) => Math.round((at / TICKS_PER_SECOND) * 25));
    expect([framesOf('stroke.start'), framesOf('stroke.end')]).toEqual([tail, head]);
  });
});

describe('the structure of a preset with movements', () => {
  const base = createPreset('entrance');
  const messages = (preset: Preset): string[] => {
    const parsed = draftPresetSchema.safeParse(preset);
    return parsed.success ? [] : parsed.error.issues.map(({ message }) => message);
  };

  test('knows its moments, its switches and its channels', () => {
    const bounce = createMovement(base, 'bounce');
    expect(messages(addMovement(base, bounce))).toEqual([]);
    expect(messages(addMovement(base, { ...bounce, from: 'gone' }))[0]).toContain('which is not there');
    expect(messages(addMovement(base, { ...bounce, when: 'soft' }))[0]).toContain('not a switch');
    const twice = addMovement(addMovement(base, bounce), { ...bounce, id: 'other' });
    expect(messages(twice)[0]).toContain('Two movements give keys to position.y');
    const row = { channel: 'position.y', cells: [] } as const;
    expect(messages({ ...addMovement(base, bounce), rows: [{ ...row, cells: [] }] })[0]).toContain(
      'a row and a movement',
    );
    expect(messages(addMovement(base, { ...bounce, channel: 'opacity' } as Movement))[0]).toContain('cannot do that');
  });

  test('a movement alone is enough to publish', () => {
    const sway = createMovement(base, 'sway');
    expect(presetSchema.safeParse(addMovement(base, sway)).success).toBe(true);
    expect(presetSchema.safeParse(base).success).toBe(false);
  });
});

/** A beginning and an end so much later. */
function moments(at: string): Preset['moments'] {
  return [
    { id: 'start', name: 'Start', at: '0f' },
    { id: 'end', name: 'Rest', at },
  ];
}

describe('layers of one run', () => {
  const many = sceneOf(
    Array.from({ length: 8 }, (_, i) =>
      card(`l${i}`, {
        tags: [i % 2 === 0 ? 'even' : 'odd'],
        rest: {
          'position.x': 60 + 37 * i,
          'position.y': 400 - 23 * i,
          'size.x': 80,
          'size.y': 40,
          rotation: 5 * i,
          'scale.x': 1 + (i % 3) / 2,
        },
      }),
    ),
  );
  const moving = STARTER_MOVEMENTS.map((item) => [item.id, item] as const);

  const values: Readonly<Record<string, readonly string[]>> = {
    time: ['12f', '31f', '18f'],
    percent: ['40%', '70%', '55%'],
    length: ['120px', '300px', '210px'],
    angle: ['10deg', '25deg', '17deg'],
    number: ['1.5', '3', '2.2'],
  };

  test.each(moving)('have the keys of %s that each would have alone, whatever they have in common', (_id, item) => {
    const of = (parameters: PresetRecipe['parameters']) =>
      planned(item, { order: { by: 'layered' }, spacing: { by: 'gap', gap: '0f' }, parameters }, many).layers;
    const varied = item.body.parameters.filter(({ kind }) => kind in values);
    for (const { name, kind } of varied) {
      const together = of({ [name]: { by: 'cycle', values: [...values[kind]] } });
      expect(together).toHaveLength(8);
      // As if all had the value of every third: what those have does not go by the others.
      for (const place of [0, 1, 2]) {
        const alike = of({ [name]: { by: 'fixed', value: values[kind][place] } });
        together.forEach(({ after }, i) => {
          if (i % 3 === place) expect(after.tracks).toEqual(alike[i].after.tracks);
        });
      }
    }
  });
});

test('a movement that could never end is told, with why, and gives no keys', () => {
  const why = (type: 'spring' | 'bounce', numbers: object): unknown[] =>
    planned(presetOf(begun(type, {}, numbers))).findings.flatMap((finding) =>
      finding.code === 'movement-trouble' ? [finding.why, severityOf(finding)] : [],
    );
  expect(why('spring', { pace: '2', damping: '0.5' })).toEqual([]);
  expect(why('spring', { pace: '0' })).toEqual(['no-pace', 'error']);
  expect(why('spring', { pace: '-1' })).toEqual(['no-pace', 'error']);
  expect(why('spring', { damping: '0' })).toEqual(['never-settles', 'error']);
  expect(why('bounce', { gravity: '0' })).toEqual(['no-gravity', 'error']);
  expect(why('bounce', { restitution: '100%' })).toEqual(['never-rests', 'error']);
});

test('a number of a movement that is none is told once, however many channels it moves', () => {
  const hop = { speed: '1400 ÷ (place - place)', gravity: '5000', restitution: '50%', travel: '90px', squash: '40%' };
  expect(planned(presetOf(begun('bounce', { by: 'speed' }, hop))).findings).toEqual([
    { code: 'not-finite', slot: 'bounce/speed', layers: ['a', 'b'] },
  ]);
});
