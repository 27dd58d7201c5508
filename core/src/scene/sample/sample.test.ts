import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CHANNEL_COUNT, channelOf, type ChannelId } from '../../basics/channel';
import type { Easing } from '../../basics/easing';
import { card, key, sceneOf } from '../../testing/scenes';
import { frameTicks, LISTED_RATES, ticksFromSeconds } from '../../basics/time';
import {
  boundsAt,
  compileScene,
  createFrame,
  frameAt,
  matrixAt,
  restFrame,
  sampleFrame,
  sampleTrack,
  trackSpeed,
} from '.';
import type { Key, Layer, Track } from '../layer';

const share = fc.double({ min: 0, max: 1, noNaN: true });
const value = fc.double({ min: -1000, max: 1000, noNaN: true });

const easing: fc.Arbitrary<Easing> = fc.oneof(
  fc.constant<Easing>({ type: 'hold' }),
  fc.constant<Easing>({ type: 'linear' }),
  fc.record({
    type: fc.constant('bezier' as const),
    x1: share,
    y1: value.map((v) => v / 500),
    x2: share,
    y2: value.map((v) => v / 500),
  }),
  fc.constant<Easing>({ type: 'steps', count: 4, jump: 'end' }),
  fc.constant<Easing>({
    type: 'points',
    points: [
      { input: 0, output: 0 },
      { input: 0.3, output: 1.2 },
      { input: 1, output: 1 },
    ],
  }),
  fc.record({
    type: fc.constant('handles' as const),
    leave: fc.record({ time: share, value }),
    arrive: fc.record({ time: share, value }),
  }),
);

const track: fc.Arbitrary<Track> = fc
  .uniqueArray(fc.record({ frame: fc.integer({ min: 0, max: 200 }), value, easing }), {
    minLength: 1,
    maxLength: 6,
    selector: (k) => k.frame,
  })
  .map((keys) => keys.sort((a, b) => a.frame - b.frame).map((k) => key(k.frame, k.value, k.easing)));

function valueOf(layer: Layer, channel: ChannelId, time: number): number {
  return frameAt(compileScene(sceneOf([layer])), time).values[channelOf(channel).slot];
}

describe('sampling', () => {
  test('the compiled scene agrees with sampling a track by itself, in any order of times', () => {
    fc.assert(
      fc.property(track, fc.array(fc.integer({ min: -10, max: 220 }), { minLength: 1 }), (keys, frames) => {
        const compiled = compileScene(sceneOf([card('a', { tracks: { rotation: [...keys] } })]));
        const frame = createFrame(compiled);
        for (const number of frames) {
          const time = number * frameTicks({ num: 25, den: 1 }) + 777;
          sampleFrame(compiled, time, frame);
          const expected = sampleTrack(keys, time);
          expect(Math.abs(frame.values[channelOf('rotation').slot] - expected)).toBeLessThan(1e-6);
        }
      }),
    );
  });

  test('many tracks of all easings agree with their own, however one jumps', () => {
    const times = fc.array(fc.integer({ min: -10, max: 220 }), { minLength: 4, maxLength: 12 });
    fc.assert(
      fc.property(fc.array(track, { minLength: 300, maxLength: 300 }), times, (tracks, frames) => {
        const layers = tracks.map((keys, i) => card(`l${i}`, { tracks: { rotation: [...keys] } }));
        const compiled = compileScene(sceneOf(layers));
        const frame = createFrame(compiled);
        for (const number of frames) {
          const time = number * frameTicks({ num: 25, den: 1 }) + 777;
          sampleFrame(compiled, time, frame);
          tracks.forEach((keys, i) => {
            const found = frame.values[i * CHANNEL_COUNT + channelOf('rotation').slot];
            expect(Math.abs(found - sampleTrack(keys, time))).toBeLessThan(1e-6);
          });
        }
      }),
      { numRuns: 4 },
    );
  });

  test('a frame is the same bits whatever was looked at before', () => {
    const layers = fc
      .sample(track, { numRuns: 40, seed: 3 })
      .map((keys, i) => card(`l${i}`, { tracks: { rotation: [...keys] } }));
    const at = (times: readonly number[]): Float64Array => {
      const compiled = compileScene(sceneOf(layers));
      const frame = createFrame(compiled);
      for (const time of times) sampleFrame(compiled, time * frameTicks({ num: 25, den: 1 }), frame);
      return frame.values;
    };
    for (const time of [0, 33, 34, 150]) expect(at([200, 3, time])).toEqual(at([time]));
  });

  test('keys are met exactly, and the first and last value hold outside them', () => {
    fc.assert(
      fc.property(track, (keys) => {
        for (const { at, value: expected } of keys) expect(sampleTrack(keys, at) + 0).toBe(expected + 0);
        expect(sampleTrack(keys, keys[0].at - 1)).toBe(keys[0].value);
        expect(sampleTrack(keys, (keys.at(-1)?.at ?? 0) + 1)).toBe(keys.at(-1)?.value);
      }),
    );
  });

  test('free handles let two equal values swing between them', () => {
    const swing: Easing = { type: 'handles', leave: { time: 1 / 3, value: 40 }, arrive: { time: 1 / 3, value: 40 } };
    // A cubic with control values 0, 40, 40, 0 has its middle at 3/4 of 40 (Bernstein form, common practice).
    expect(sampleTrack([key(0, 0, swing), key(10, 0)], key(5, 0).at)).toBeCloseTo(30, 9);
  });

  test('free handles between values that are all but equal stay finite', () => {
    const swing: Easing = { type: 'handles', leave: { time: 0, value: 1e-14 }, arrive: { time: 0, value: 0 } };
    const layer = card('a', { tracks: { rotation: [key(0, 0, swing), key(10, 7e-323)] } });
    expect(valueOf(layer, 'rotation', key(5, 0).at)).toBeCloseTo(0, 9);
  });

  test('speed is the slope of the value', () => {
    const keys = [key(0, 0, { type: 'bezier', x1: 0.3, y1: 0, x2: 0.4, y2: 1 }), key(20, 300)];
    const at = key(7, 0).at;
    const slope = (sampleTrack(keys, at + 1000) - sampleTrack(keys, at - 1000)) / 2000;
    expect(trackSpeed(keys, at) / slope).toBeCloseTo(1, 6);
    expect(trackSpeed(keys, -5)).toBe(0);
  });

  test('a layer is on from its in point up to, not including, its out point', () => {
    const layer = card('a', { span: { in: ticksFromSeconds(1), out: ticksFromSeconds(2) } });
    const compiled = compileScene(sceneOf([layer]));
    const live = (seconds: number) => frameAt(compiled, ticksFromSeconds(seconds)).live[0];
    expect([live(0.99), live(1), live(1.99), live(2)]).toEqual([0, 1, 1, 0]);
  });

  test('channels without keys have their rest value, colours that of the look', () => {
    const layer = card('a', { look: { fill: '#ffffff' } });
    expect(valueOf(layer, 'position.x', 0)).toBe(100);
    expect(valueOf(layer, 'scale.x', 0)).toBe(1);
    expect(valueOf(layer, 'fill.l', 0)).toBeCloseTo(1, 6);
  });

  test('rotation is never wrapped: 530° stays one turn and 170°', () => {
    const layer = card('a', { tracks: { rotation: [key(0, 0), key(10, 530)] } });
    expect(valueOf(layer, 'rotation', key(10, 0).at)).toBe(530);
    expect(valueOf(layer, 'rotation', key(5, 0).at)).toBe(265);
  });
});

describe('transforms', () => {
  test('a child moves with its group, whatever their order in the list', () => {
    const group = card('g', {
      kind: 'group',
      source: { type: 'none' },
      rest: { 'position.x': 300, 'position.y': 200, 'size.x': 0, 'size.y': 0, rotation: 90 },
    });
    const child = card('c', { parent: 'g', rest: { 'position.x': 10, 'position.y': 0, 'size.x': 4, 'size.y': 2 } });
    for (const layers of [
      [group, child],
      [child, group],
    ]) {
      const compiled = compileScene(sceneOf(layers));
      const box = boundsAt(restFrame(compiled), layers.indexOf(child));
      expect(box.left).toBeCloseTo(299, 9);
      expect(box.right).toBeCloseTo(301, 9);
      expect(box.top).toBeCloseTo(208, 9);
      expect(box.bottom).toBeCloseTo(212, 9);
    }
  });

  test('the anchor is where position puts it', () => {
    const layer = card('a', {
      rest: {
        'position.x': 50,
        'position.y': 60,
        'anchor.x': 0,
        'anchor.y': 1,
        'size.x': 20,
        'size.y': 10,
        'scale.x': 2,
        'scale.y': 3,
      },
    });
    const frame = restFrame(compileScene(sceneOf([layer])));
    expect(boundsAt(frame, 0)).toEqual({ left: 50, right: 90, top: 30, bottom: 60 });
    expect(matrixAt(frame, 0)).toEqual([2, 0, 0, 3, 50, 30]);
  });

  test('room for a frame is CHANNEL_COUNT numbers a layer', () => {
    expect(createFrame(compileScene(sceneOf([card('a'), card('b')]))).values).toHaveLength(2 * CHANNEL_COUNT);
  });
});

describe('steps are decided on ticks', () => {
  const FRAMES = { num: 24, den: 1 };
  const frame = 29_400_000;

  test('the smallest case: four steps over 24 frames from frame 10 have begun the second on frame 16', () => {
    const keys: Key[] = [
      { at: 10 * frame, value: 0, ease: { type: 'steps', count: 4, jump: 'end' } },
      { at: 34 * frame, value: 4, ease: { type: 'linear' } },
    ];
    const layer = card('a', { tracks: { rotation: keys } });
    const compiled = compileScene({ layers: [layer] });
    const at = (frames: number): number[] => [
      sampleTrack(keys, frames * frame),
      frameAt(compiled, frames * frame).values[channelOf('rotation').slot],
    ];
    expect([15, 16, 21, 22, 33, 34].map(at)).toEqual([0, 1, 1, 2, 3, 4].map((value) => [value, value]));
  });

  test('on every frame, at every rate, as whole-number arithmetic says (CSS Easing Functions 1, section 2.4)', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LISTED_RATES, FRAMES),
        fc.integer({ min: 1, max: 400 }),
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 0, max: 100 }),
        fc.nat(400),
        (rate, length, count, first, offset) => {
          const ticks = frameTicks(rate);
          const passed = offset % length;
          const keys: Key[] = [
            { at: first * ticks, value: 0, ease: { type: 'steps', count, jump: 'end' } },
            { at: (first + length) * ticks, value: count, ease: { type: 'linear' } },
          ];
          const expected = Number((BigInt(passed) * BigInt(count)) / BigInt(length));
          expect(sampleTrack(keys, (first + passed) * ticks)).toBeCloseTo(expected, 9);
        },
      ),
      { numRuns: 2_000 },
    );
  });
});
