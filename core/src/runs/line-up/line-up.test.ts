import { describe, expect, test } from '@jest/globals';
import { readsOf } from '../operations';
import { describeFinding } from '../finding';
import type { LineUpRecipe } from '../../scene/recipe';
import type { Key } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { applied, codesOf, framesOf, layerOf, planOn } from '../../testing/planning';
import { card, inFrames, key, PAL, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds } from '../../basics/time';

const FRAME = frameTicks(PAL);

function lineUp(way: LineUpRecipe['way'], more: Partial<LineUpRecipe> = {}): LineUpRecipe {
  return {
    operation: 'line-up',
    pick: { by: 'rule', kind: 'card' },
    order: { by: 'layered' },
    seed: 1,
    way,
    parts: 'keep',
    squeeze: false,
    ...more,
  };
}

function spansOf(scene: Scene): number[][] {
  return scene.layers.map(({ span }) => [span.in / FRAME, span.out / FRAME]);
}

/** Key frames of a layer with hand keys, lined up to twice its length. */
function stretched(tracks: Scene['layers'][number]['tracks']): (readonly [number, number])[] {
  const scene = sceneOf([card('a', { span: { in: 0, out: 100 * FRAME }, tracks })]);
  const next = applied(scene, lineUp({ by: 'length', length: '200f' }));
  return framesOf(layerOf(next, 'a').tracks.opacity);
}

describe('hand keys of a layer that is made longer', () => {
  test('keep their distance from the ends where nothing moves between', () => {
    const keys = [key(0, 0), key(10, 1), key(90, 1), key(100, 0)];
    expect(stretched({ opacity: keys }).map(([frame]) => frame)).toEqual([0, 10, 190, 200]);
  });

  test('go evenly where there is no still middle', () => {
    const keys = [key(0, 0), key(40, 1), key(60, 0.5), key(100, 0)];
    expect(stretched({ opacity: keys }).map(([frame]) => frame)).toEqual([0, 80, 120, 200]);
  });

  test('rest longest where a value is held, and not while it drifts', () => {
    const held = [key(0, 0, { type: 'hold' }), key(30, 1), key(100, 1)];
    expect(stretched({ opacity: held }).map(([frame]) => frame)).toEqual([0, 30, 200]);
    const drift = [key(0, 0), key(10, 1), key(90, 1.01), key(100, 0)];
    expect(stretched({ opacity: drift }).map(([frame]) => frame)).toEqual([0, 20, 180, 200]);
  });
});

const at = (id: string, from: number, to: number) => card(id, { span: { in: from * FRAME, out: to * FRAME } });
const three = sceneOf([at('a', 0, 50), at('b', 10, 40), at('c', 20, 100)]);

describe('layers in time', () => {
  test.each<[string, LineUpRecipe['way'], number[][]]>([
    [
      'to the latest end',
      { by: 'end', at: { by: 'latest' } },
      [
        [0, 100],
        [10, 100],
        [20, 100],
      ],
    ],
    [
      'to a time',
      { by: 'end', at: { by: 'time', at: '60f' } },
      [
        [0, 60],
        [10, 60],
        [20, 60],
      ],
    ],
    [
      'to the scene’s end',
      { by: 'end', at: { by: 'scene' } },
      [
        [0, 250],
        [10, 250],
        [20, 250],
      ],
    ],
    [
      'to the earliest beginning',
      { by: 'begin', at: { by: 'earliest' } },
      [
        [0, 50],
        [0, 40],
        [0, 100],
      ],
    ],
    [
      'end to end, slid and not trimmed',
      { by: 'butt', gap: '0f' },
      [
        [0, 50],
        [50, 80],
        [80, 160],
      ],
    ],
    [
      'end to end, overlapping',
      { by: 'butt', gap: '-5f' },
      [
        [0, 50],
        [45, 75],
        [70, 150],
      ],
    ],
    [
      'in relay, trimmed',
      { by: 'relay', overlap: '2f' },
      [
        [0, 12],
        [10, 22],
        [20, 100],
      ],
    ],
    [
      'equal lengths',
      { by: 'length', length: '1s' },
      [
        [0, 25],
        [10, 35],
        [20, 45],
      ],
    ],
    [
      'slid from a time',
      { by: 'slide', to: { by: 'time', at: '5f' }, gap: '10f' },
      [
        [5, 55],
        [15, 45],
        [25, 105],
      ],
    ],
  ])('%s', (_, way, expected) => expect(spansOf(applied(three, lineUp(way)))).toEqual(expected));

  test('to a cue; a cue that is not there says so', () => {
    const scene = { ...three, cues: [{ id: 'c1', name: 'Drop', at: 70 * FRAME }] };
    expect(spansOf(applied(scene, lineUp({ by: 'end', at: { by: 'cue', cue: 'drop' } })))[1]).toEqual([10, 70]);
    expect(codesOf(planOn(three, lineUp({ by: 'end', at: { by: 'cue', cue: 'drop' } })))).toEqual(['bad-field']);
  });

  test('of several that end after the scene, the one that is furthest out says by how much', () => {
    const rows = { by: 'rows', rows: 1, from: { by: 'time', at: '9s' }, apart: '0f', hold: '2s' } as const;
    const found = planOn(three, lineUp(rows)).findings.find(({ code }) => code === 'outside-scene');
    expect(found).toMatchObject({ by: 5 * 25 * FRAME });
  });

  test('an end before the beginning is refused and names the layers', () => {
    const planned = planOn(three, lineUp({ by: 'end', at: { by: 'time', at: '15f' } }));
    expect(planned.findings).toMatchObject([{ code: 'no-room', layers: ['c'] }]);
    expect(planned.edits).toEqual([]);
  });

  test('rows × replacements: 3 rows × 3 stills of 9 s, rows 3 s apart (common practice): 0, 3 … 24 s, all over at 33 s', () => {
    const nine = { ...sceneOf(Array.from({ length: 9 }, (_, i) => card(`s${i}`))), length: ticksFromSeconds(40) };
    const way = { by: 'rows', rows: 3, from: { by: 'time', at: '0f' }, apart: '3s', hold: '9s' } as const;
    const spans = spansOf(applied(nine, lineUp(way)));
    expect(spans.map(([from]) => from / 25)).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24]);
    expect(Math.max(...spans.map(([, to]) => to)) / 25).toBe(33);
  });
});

describe('keys of layers that become longer or shorter', () => {
  const rate = { num: 30, den: 1 };

  test('a common end with kept entrances (common practice): beats 15 f apart from 3:00, each entrance 15 f after lengthening', () => {
    const layers = ['a', 'b', 'c', 'd', 'e'].map((id) => card(id, { span: { in: 0, out: ticksFromSeconds(1) } }));
    const beats = applied(sceneOf(layers, rate), {
      operation: 'bring-in',
      start: { by: 'time', at: '3:00' },
      spacing: { by: 'gap', gap: '15f' },
      length: { by: 'fixed', length: '15f' },
      moves: 'layers',
    });
    const lined = applied(beats, lineUp({ by: 'end', at: { by: 'scene' } }));
    expect(lined.layers.map(({ span }) => inFrames(span.in, rate))).toEqual([90, 105, 120, 135, 150]);
    for (const { span, tracks } of lined.layers) {
      expect(span.out).toBe(lined.length);
      const [first, last] = tracks.opacity as Key[];
      expect([inFrames(first.at - span.in, rate), inFrames(last.at - first.at, rate)]).toEqual([0, 15]);
    }
  });

  const both = applied(applied(three, { operation: 'bring-in' }), {
    operation: 'send-out',
    preset: { id: 'fade-out' },
  });

  test('the exit goes with the out point, the entrance stays, both as long as they were', () => {
    const lined = applied(both, lineUp({ by: 'length', length: '6s' }));
    expect(framesOf(layerOf(lined, 'a').tracks.opacity).map(([frame]) => frame)).toEqual([0, 12, 138, 150]);
    const begun = applied(both, lineUp({ by: 'begin', at: { by: 'time', at: '5f' } }));
    expect(framesOf(layerOf(begun, 'b').tracks.opacity).map(([frame]) => frame)).toEqual([5, 17, 28, 40]);
  });

  test('asked otherwise, everything stretches with its layer', () => {
    const lined = applied(both, lineUp({ by: 'length', length: '4s' }, { parts: 'stretch' }));
    expect(framesOf(layerOf(lined, 'a').tracks.opacity).map(([frame]) => frame)).toEqual([0, 24, 76, 100]);
  });

  test('hand keys that move at both ends keep their length too, told apart by where nothing moves', () => {
    const fades = [key(0, 0), key(12, 1), key(88, 1), key(100, 0)];
    const scene = sceneOf([card('a', { span: { in: 0, out: 100 * FRAME }, tracks: { opacity: fades } })]);
    const lined = applied(scene, lineUp({ by: 'length', length: '8s' }));
    expect(framesOf(layerOf(lined, 'a').tracks.opacity).map(([frame]) => frame)).toEqual([0, 12, 188, 200]);
  });

  test('a preset over the whole span scales, an accent keeps its length at its place', () => {
    const drifting = applied(three, { operation: 'move-throughout', preset: { id: 'drift' } });
    const lined = applied(drifting, lineUp({ by: 'length', length: '200f' }));
    expect(framesOf(layerOf(lined, 'c').tracks['position.x']).map(([frame]) => frame)).toEqual([20, 220]);
  });

  test('go by in and out points, so that a run is made anew where these change', () => {
    const [run] = applied(both, lineUp({ by: 'end', at: { by: 'latest' } })).runs.slice(-1);
    expect(readsOf(run)).toEqual({ spans: true, rest: false, keys: false, sweeps: false });
  });

  test('keys that a shorter layer cuts off are told, and not those that lay outside before', () => {
    const layers = [
      card('cut', { span: { in: 0, out: 100 * FRAME }, tracks: { rotation: [key(0, 0), key(60, 90)] } }),
      card('was', { span: { in: 0, out: 30 * FRAME }, tracks: { rotation: [key(40, 0), key(60, 90)] } }),
    ];
    const { findings } = planOn(sceneOf(layers), lineUp({ by: 'length', length: '50f' }));
    expect(findings).toEqual([{ code: 'outside-layer', layers: ['cut'], at: 60 * FRAME, by: 10 * FRAME }]);
  });

  test('too short for both says so; squeezed, both are shortened to fit', () => {
    const way = { by: 'length', length: '12f' } as const;
    const short = planOn(both, lineUp(way));
    expect(short.findings).toMatchObject([{ code: 'short-for-both', layers: ['a', 'b', 'c'] }]);
    expect(describeFinding(short.findings[0], both)).toContain('shorten both');
    const squeezed = applied(both, lineUp(way, { squeeze: true }));
    expect(framesOf(layerOf(squeezed, 'a').tracks.opacity).map(([frame]) => frame)).toEqual([0, 6, 12]);
    expect(codesOf(planOn(both, lineUp(way, { squeeze: true })))).toEqual([]);
  });
});
