import { describe, expect, test } from '@jest/globals';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { recipeOf, rigged, shelfWith } from '../../testing/rigs';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import { busyMoments, busyPeaks } from './busy';

const FRAME = frameTicks(PAL);

describe('how busy a scene is', () => {
  const scene = sceneOf([
    card('a', { tracks: { 'position.x': [key(0, 0), key(25, 300)], 'position.y': [key(0, 0), key(25, 400)] } }),
    card('b', { tracks: { 'position.x': [key(100, 0), key(125, 100)] } }),
    card('fades', { tracks: { opacity: [key(100, 0), key(110, 1)] } }),
    card('rests', { tracks: { rotation: [key(0, 5), key(200, 5)] } }),
    card('hidden', { hidden: true, tracks: { opacity: [key(0, 0), key(200, 1)] } }),
  ]);

  test('counts the layers that change, and adds up the speeds of their positions', () => {
    const { step, moving, speed } = busyMoments(scene);
    expect(step).toBe(FRAME);
    const at = (frame: number) => [moving[frame], Number(speed[frame].toFixed(6))];
    // 300 and 400 px in a second: 500 px a second.
    expect(at(10)).toEqual([1, 500]);
    expect(at(50)).toEqual([0, 0]);
    expect(at(105)).toEqual([2, 100]);
    expect(at(115)).toEqual([1, 100]);
  });

  test('what rigs drive counts as well', () => {
    const still = sceneOf([card('still'), card('other')]);
    expect(busyPeaks(busyMoments(still))).toEqual([]);
    const pick = { by: 'layers' as const, layers: ['still'] };
    const driven = rigged(still, { ...recipeOf('own'), pick }, shelfWith('rest + 50px × (t ÷ 1s)'));
    const { moving, speed } = busyMoments(driven);
    expect([moving[25], Math.round(speed[25])]).toEqual([1, 50]);
  });

  test('peaks are told from the busiest on, half a second apart', () => {
    const peaks = busyPeaks(busyMoments(scene));
    expect(peaks.map(({ moving, speed }) => [moving, Math.round(speed)])).toEqual([
      [1, 500],
      [1, 500],
      [2, 100],
    ]);
    expect(peaks.map(({ at }) => at / FRAME)).toEqual([0, 13, 100]);
    expect(busyPeaks(busyMoments(sceneOf([card('still')])))).toEqual([]);
  });

  test('speeds that differ in their last digits are one: more layers make the greater peak then, a speed above it before', () => {
    const peaks = (...speeds: number[]): number[] =>
      busyPeaks({
        from: 0,
        step: frameTicks(PAL) * 25,
        moving: Uint32Array.from(speeds, (_, i) => i + 1),
        speed: Float64Array.from(speeds),
      }).map(({ moving }) => moving);
    expect(peaks(500.001, 500.0005)).toEqual([2, 1]);
    expect(peaks(500, 480, 499.9)).toEqual([1, 3, 2]);
  });

  test('a layer outside its span is not counted, one along a path is by the way it goes', () => {
    const path = { d: 'M0 0H200', turns: false };
    const moved = sceneOf([
      card('gone', {
        span: { in: ticksFromSeconds(9), out: ticksFromSeconds(10) },
        tracks: { rotation: [key(0, 0), key(100, 90)] },
      }),
      card('over', { span: { in: 0, out: 6 * FRAME }, tracks: { rotation: [key(0, 0), key(100, 90)] } }),
      card('led', { path, tracks: { 'path.distance': [key(0, 0), key(50, 1)] } }),
    ]);
    const { moving, speed } = busyMoments(moved);
    expect([5, 6, 10].map((frame) => moving[frame])).toEqual([2, 1, 1]);
    expect(speed[10]).toBeCloseTo(100, 4);
  });

  test('a scene of very many layers is looked at in longer steps', () => {
    const many = sceneOf(Array.from({ length: 12_000 }, (_, i) => card(`l${i}`)));
    expect(busyMoments(many).moving.length).toBeLessThanOrEqual(63);
  });
});
