import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Easing } from '../../basics/easing';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { sampleTrack } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { edited, framesOf, layerOf } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import { carryPicks, poseAt, poseAtEnds, poseToRest, withKeyAt, type HandChange } from '.';

const FRAME = frameTicks(PAL);
const soft: Easing = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 };
const scene = sceneOf([
  card('a', { tracks: { opacity: [key(0, 0), key(10, 1)], rotation: [key(0, 30, soft), key(20, 0)] } }),
  card('b', { rest: { rotation: 90, opacity: 0.5 }, span: { in: ticksFromSeconds(1), out: ticksFromSeconds(9) } }),
  card('locked', { locked: true, tracks: { opacity: [key(0, 1)] } }),
]);

function after({ edits }: HandChange, on: Scene = scene): Scene {
  return edited(on, edits);
}

describe('poses', () => {
  test('as it is, a pose changes nothing of the motion, whatever the easing', () => {
    const eases: Easing[] = [
      soft,
      { type: 'bezier', x1: 0.2, y1: -0.6, x2: 0.5, y2: 1.7 },
      { type: 'handles', leave: { time: 0.4, value: 60 }, arrive: { time: 0.3, value: 20 } },
      { type: 'linear' },
      { type: 'hold' },
      { type: 'points', points: [0, 0.7, 0.4, 1].map((output, i) => ({ input: i / 3, output })) },
      { type: 'steps', count: 5, jump: 'end' },
    ];
    fc.assert(
      fc.property(fc.constantFrom(...eases), fc.integer({ min: -3, max: 45 }), (ease, frame) => {
        const keys = [key(0, 10, ease), key(20, 80, ease), key(40, 30)];
        const cut = withKeyAt(keys, frame * FRAME);
        expect(cut.some(({ at }) => at === frame * FRAME)).toBe(true);
        for (let at = -2; at < 42; at += 0.37) {
          expect(sampleTrack(cut, at * FRAME)).toBeCloseTo(sampleTrack(keys, at * FRAME), 6);
        }
      }),
    );
  });

  test('are keyed on every keyed channel, and picked; locked layers and those without keys are left out', () => {
    const posed = poseAt(scene, new Set(['a', 'b', 'locked']), 5 * FRAME, 'as it is');
    expect(framesOf(layerOf(after(posed), 'a').tracks.opacity)).toEqual([
      [0, 0],
      [5, 0.5],
      [10, 1],
    ]);
    expect([...posed.picks.keys()]).toEqual(['a']);
    expect([...(posed.picks.get('a')?.keys() ?? [])]).toEqual(['opacity', 'rotation']);
    const rested = after(poseAt(scene, new Set(['a', 'b']), 30 * FRAME, 'rest'));
    expect(framesOf(layerOf(rested, 'a').tracks.rotation)).toEqual([
      [0, 30],
      [20, 0],
      [30, 0],
    ]);
    expect(layerOf(rested, 'b').tracks).toEqual({});
  });

  test('stand at the in and out points', () => {
    const [last] = framesOf(layerOf(after(poseAtEnds(scene, new Set(['a']))), 'a').tracks.opacity).slice(-1);
    expect(last).toEqual([250, 1]);
  });

  test('go from here to rest, and what stood between goes', () => {
    const gone = after(poseToRest(scene, new Set(['a']), 5 * FRAME, 25 * FRAME));
    expect(framesOf(layerOf(gone, 'a').tracks.opacity)).toEqual([
      [0, 0],
      [5, 0.5],
      [30, 1],
    ]);
    expect(framesOf(layerOf(gone, 'a').tracks.rotation).map(([frame]) => frame)).toEqual([0, 5, 30]);
    expect(layerOf(gone, 'a').tracks.rotation?.at(-1)?.value).toBe(0);
  });

  test('are carried to the next key to hold, or to the one before to be there already', () => {
    const picks = new Map([['a', new Map([['rotation' as const, new Set([0])]])]]);
    const held = carryPicks(scene, picks, 'next');
    expect(framesOf(layerOf(after(held), 'a').tracks.rotation)).toEqual([
      [0, 30],
      [20, 30],
    ]);
    expect(held.picks.get('a')?.get('rotation')).toEqual(new Set([20 * FRAME]));
    expect(layerOf(after(held), 'a').tracks.opacity).toEqual(layerOf(scene, 'a').tracks.opacity);
    const last = new Map([['a', new Map([['rotation' as const, new Set([20 * FRAME])]])]]);
    expect(framesOf(layerOf(after(carryPicks(scene, last, 'previous')), 'a').tracks.rotation)[0]).toEqual([0, 0]);
    expect(carryPicks(scene, last, 'next').edits).toEqual([]);
  });
});
