import { describe, expect, test } from '@jest/globals';
import { curveMonotoneX, line } from 'd3-shape';
import fc from 'fast-check';
import type { ChannelId } from '../../basics/channel';
import { linkOf, type CurveLink, type Easing } from '../../basics/easing';
import { frameTicks } from '../../basics/time';
import type { Key } from '../../scene/layer';
import { greatestStep, sampleTrack, trackSpeed } from '../../scene/sample';
import { sceneSchema, type Scene } from '../../scene/scene';
import { edited, layerOf } from '../../testing/planning';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import {
  drawHandle,
  easePicks,
  flattenPicks,
  joinPicks,
  mirrorPicks,
  readCurves,
  setSpeeds,
  smoothPicks,
  unlinkPicks,
  type HandChange,
  type HandPicks,
} from '.';

const FRAME = frameTicks(PAL);
const soft: Easing = { type: 'bezier', x1: 0.4, y1: 0.1, x2: 0.3, y2: 1 };
const link: CurveLink = { id: 'soft-landing', name: 'Soft landing', revision: 3 };

function of(keys: Key[], channel: ChannelId = 'position.x'): Scene {
  return sceneOf([card('a', { tracks: { [channel]: keys } })]);
}

function pick(...frames: number[]): HandPicks {
  return new Map([['a', new Map([['position.x' as const, new Set(frames.map((at) => at * FRAME))]])]]);
}

function after(scene: Scene, { edits }: HandChange): readonly Key[] {
  const next = edited(scene, edits);
  expect(sceneSchema.safeParse(next).success).toBe(true);
  return layerOf(next, 'a').tracks['position.x'] ?? [];
}

/** Speed just before and just after a frame, px a frame. */
function speeds(keys: readonly Key[], frame: number): number[] {
  return [frame * FRAME - 1, frame * FRAME].map((at) => trackSpeed(keys, at) * FRAME);
}

const hill = of([key(0, 0, soft), key(10, 100, soft), key(30, 40, soft), key(50, 90)]);

describe('slopes at picked keys', () => {
  test('flat: at rest on both sides, values and times stay', () => {
    const keys = after(hill, flattenPicks(hill, pick(10, 30)));
    for (const frame of [10, 30]) for (const speed of speeds(keys, frame)) expect(speed).toBeCloseTo(0, 4);
    expect(keys.map(({ at, value }) => [at / FRAME, value])).toEqual([
      [0, 0],
      [10, 100],
      [30, 40],
      [50, 90],
    ]);
    // How the first key is left and the last one reached was not asked for.
    expect(trackSpeed(keys, 0)).toBeCloseTo(trackSpeed(layerOf(hill, 'a').tracks['position.x'] ?? [], 0), 9);
  });

  test('smooth: the handles of Steffen’s monotone interpolation, as d3-shape 3.2 draws it', () => {
    const points = [0, 20, 45, 60, 50, 50, 80].map((value, i) => [i * 10 + (i % 2) * 3, value] as const);
    const scene = of(points.map(([frame, value]) => key(frame, value)));
    const keys = after(scene, smoothPicks(scene, pick(...points.map(([frame]) => frame))));
    const drawn: number[][] = [];
    const context = {
      moveTo: () => undefined,
      lineTo: () => undefined,
      closePath: () => undefined,
      bezierCurveTo: (...numbers: number[]) => void drawn.push(numbers),
    };
    line<readonly [number, number]>()
      .curve(curveMonotoneX)
      .context(context as never)([...points]);
    drawn.slice(1, -1).forEach(([x1, y1, x2, y2, x, y], i) => {
      const [from, to] = [keys[i + 1], keys[i + 2]];
      const [dx, dy] = [(to.at - from.at) / FRAME, to.value - from.value];
      const { ease } = from;
      const ours =
        ease.type === 'bezier'
          ? [ease.x1 * dx, ease.y1 * dy, ease.x2 * dx, ease.y2 * dy]
          : ease.type === 'handles'
            ? [ease.leave.time * dx, ease.leave.value, dx - ease.arrive.time * dx, dy + ease.arrive.value]
            : [dx / 3, dy / 3, (2 * dx) / 3, (2 * dy) / 3];
      const [x0, y0] = points[i + 1];
      [x1 - x0, y1 - y0, x2 - x0, y2 - y0].forEach((wanted, n) => expect(ours[n]).toBeCloseTo(wanted, 9));
      expect([x, y]).toEqual([...points[i + 2]]);
    });
  });

  test('smooth never passes beyond the values of the keys', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -500, max: 500 }), { minLength: 3, maxLength: 9 }), (values) => {
        const scene = of(values.map((value, i) => key(i * 7 + (i % 3), value, soft)));
        const frames = values.map((_, i) => i * 7 + (i % 3));
        const keys = after(scene, smoothPicks(scene, pick(...frames)));
        for (let i = 0; i + 1 < keys.length; i++) {
          const [low, high] = [keys[i].value, keys[i + 1].value].sort((a, b) => a - b);
          for (let u = 0; u <= 1; u += 0.05) {
            const value = sampleTrack(keys, keys[i].at + u * (keys[i + 1].at - keys[i].at));
            expect(value).toBeGreaterThan(low - 1e-6);
            expect(value).toBeLessThan(high + 1e-6);
          }
        }
      }),
    );
  });

  test('same speed through: the mean of arrival and departure, on both sides', () => {
    const [arrives, leaves] = speeds(layerOf(hill, 'a').tracks['position.x'] ?? [], 30);
    const [now, then] = speeds(after(hill, joinPicks(hill, pick(30))), 30);
    expect(now).toBeCloseTo((arrives + leaves) / 2, 3);
    expect(then).toBeCloseTo(now, 3);
  });

  test('a speed that is typed is the speed on screen, also between equal values', () => {
    const level = of([key(0, 50, soft), key(10, 50, soft), key(20, 50)]);
    const keys = after(
      level,
      setSpeeds(level, pick(10), ['arrive', 'leave'], () => -3 / FRAME),
    );
    for (const speed of speeds(keys, 10)) expect(speed).toBeCloseTo(-3, 3);
    expect(keys[0].ease.type).toBe('handles');
    expect(sampleTrack(keys, 15 * FRAME)).toBeLessThan(50);
    const twice = after(
      hill,
      setSpeeds(hill, pick(10), ['leave'], (speed) => speed + 2 / FRAME),
    );
    const before = speeds(layerOf(hill, 'a').tracks['position.x'] ?? [], 10);
    expect(speeds(twice, 10)[1]).toBeCloseTo(before[1] + 2, 3);
    expect(speeds(twice, 10)[0]).toBeCloseTo(before[0], 6);
  });
});

describe('handles drawn by hand', () => {
  const drawn = (side: 'arrive' | 'leave', at: number, value: number, isJoined: boolean): readonly Key[] =>
    after(
      hill,
      drawHandle(hill, {
        layer: 'a',
        channel: 'position.x',
        key: 10 * FRAME,
        side,
        to: { at: at * FRAME, value },
        isJoined,
      }),
    );

  test('stand where they were put', () => {
    const keys = drawn('leave', 15, 120, false);
    const ease = keys[1].ease;
    expect(ease).toMatchObject({ type: 'bezier', x1: 0.25 });
    expect(ease.type === 'bezier' && 100 + ease.y1 * (40 - 100)).toBeCloseTo(120, 9);
    expect(keys[0].ease).toEqual(soft);
  });

  test('joined, the other side turns into one line with them and keeps its reach', () => {
    const keys = drawn('leave', 14, 120, true);
    for (const speed of speeds(keys, 10)) expect(speed).toBeCloseTo(5, 3);
    expect(keys[0].ease).toMatchObject({ type: 'bezier', x2: 0.3 });
    const back = drawn('arrive', 6, 80, true);
    for (const speed of speeds(back, 10)) expect(speed).toBeCloseTo(5, 3);
  });

  test('never go back in time, nor beyond the other key', () => {
    for (const at of [-20, 5, 80]) {
      const { ease } = drawn('leave', at, 10, false)[1];
      expect(ease).toMatchObject({ type: 'bezier', x1: at > 10 ? 1 : 0 });
    }
  });

  test('a spring or a hold becomes a curve when a handle is drawn', () => {
    for (const ease of [{ type: 'hold' }, { type: 'spring', damping: 0.5, within: 0.01 }] as const) {
      const scene = of([key(0, 0, ease), key(10, 100)]);
      const keys = after(
        scene,
        drawHandle(scene, {
          layer: 'a',
          channel: 'position.x',
          key: 0,
          side: 'leave',
          to: { at: 5 * FRAME, value: 0 },
          isJoined: true,
        }),
      );
      expect(keys[0].ease).toMatchObject({ type: 'bezier', x1: 0.5, y1: 0 });
    }
  });

  test('of the last key there is none to draw after it', () => {
    const none = drawHandle(hill, {
      layer: 'a',
      channel: 'position.x',
      key: 50 * FRAME,
      side: 'leave',
      to: { at: 55 * FRAME, value: 0 },
      isJoined: false,
    });
    expect(none.edits).toEqual([]);
  });
});

describe('easings of picked keys', () => {
  test('mirrored twice they are as they were', () => {
    const eases: Easing[] = [
      soft,
      { type: 'linear' },
      { type: 'steps', count: 4, jump: 'end' },
      { type: 'handles', leave: { time: 0.2, value: 30 }, arrive: { time: 0.5, value: -10 } },
    ];
    const scene = of([...eases.map((ease, i) => key(i * 10, i * 20, ease)), key(40, 0)]);
    const once = mirrorPicks(scene, pick(0, 10, 20, 30));
    const next = edited(scene, once.edits);
    const keys = layerOf(next, 'a').tracks['position.x'] ?? [];
    const [from, to] = [30, 40].map((frame) => frame * FRAME);
    const plain = layerOf(scene, 'a').tracks['position.x'] ?? [];
    for (const u of [0.1, 0.4, 0.8]) {
      const [x, y] = [from + u * (to - from), to - u * (to - from)];
      expect(sampleTrack(keys, x)).toBeCloseTo(60 - sampleTrack(plain, y), 6);
    }
    const twice = after(next, mirrorPicks(next, once.picks));
    expect(twice.map(({ ease }) => ease.type)).toEqual([...eases, eases[1]].map(({ type }) => type));
    for (let frame = 0; frame < 40; frame += 0.7) {
      expect(sampleTrack(twice, frame * FRAME)).toBeCloseTo(sampleTrack(plain, frame * FRAME), 9);
    }
  });

  test('keep their link when put on, and say backwards when mirrored; another shape has none', () => {
    const scene = of([key(0, 0), key(10, 100), key(20, 50)]);
    const linked = edited(scene, easePicks(scene, pick(0, 10), { ...soft, curve: link }).edits);
    expect(readCurves(linked, pick(0, 10)).link).toEqual(link);
    const back = edited(linked, mirrorPicks(linked, pick(0)).edits);
    expect(readCurves(back, pick(0)).link).toEqual({ ...link, reversed: true });
    expect(readCurves(back, pick(0, 10)).link).toBeNull();
    const again = edited(back, mirrorPicks(back, pick(0)).edits);
    expect(linkOf(layerOf(again, 'a').tracks['position.x']?.[0].ease ?? soft)).toEqual(link);
    const drawn = edited(linked, flattenPicks(linked, pick(10)).edits);
    expect(readCurves(drawn, pick(10)).link).toBeNull();
    const free = after(linked, unlinkPicks(linked, pick(0)));
    expect(free[0].ease).toEqual(soft);
  });

  test('are read side by side, and null where they differ', () => {
    const scene = of([key(0, 0, soft), key(10, 100, { ...soft, x1: 0.6 }), key(20, 50, soft), key(30, 0)]);
    expect(readCurves(scene, pick(0, 20))).toMatchObject({ departure: 0.4, ease: soft, segments: 2 });
    expect(readCurves(scene, pick(0, 10))).toMatchObject({ departure: null, ease: null });
    expect(readCurves(scene, pick(30)).arrival).toBeCloseTo(0.7, 12);
    expect(readCurves(scene, pick(30)).segments).toBe(0);
  });

  test('have one speed where they are as fast, each side by itself', () => {
    const scene = of([key(0, 0), key(10, 100), key(20, 200), key(30, 290), key(40, 380)]);
    const speed = 10 / FRAME;
    expect(readCurves(scene, pick(0, 10))).toMatchObject({ leave: expect.closeTo(speed, 15), segments: 2 });
    expect(readCurves(scene, pick(10, 20)).arrive).toBeCloseTo(speed, 15);
    expect(readCurves(scene, pick(10, 20)).leave).toBeNull();
    expect(readCurves(scene, pick(20, 30)).arrive).toBeNull();
    expect(readCurves(scene, pick(20, 30)).leave).toBeCloseTo(0.9 * speed, 15);
    // Also of shares, whose speeds are small numbers: 20 and 30 per cent a second differ, 20 and 20 do not.
    const fades = of([key(0, 1), key(25, 0.8), key(50, 0.5), key(75, 0.3)]);
    expect([readCurves(fades, pick(0, 25)).leave, readCurves(fades, pick(25, 50)).arrive]).toEqual([null, null]);
    expect(readCurves(fades, pick(0, 50)).leave).toBeCloseTo(-0.2 / (25 * FRAME), 15);
  });
});

describe('the greatest step of a frame', () => {
  test('of an even move is the way divided by its frames, of two channels their distance', () => {
    const even = [key(5, 0), key(15, 30)];
    expect(greatestStep([even], FRAME, 0, 20 * FRAME).by).toBeCloseTo(3, 9);
    expect(greatestStep([even, [key(5, 0), key(15, 40)]], FRAME, 0, 20 * FRAME).by).toBeCloseTo(5, 9);
    expect(greatestStep([[key(0, 0)]], FRAME, 0, 20 * FRAME)).toEqual({ by: 0, at: 0 });
  });

  test('is found where the curve is steepest', () => {
    const { by, at } = greatestStep(
      [[key(0, 0, { type: 'bezier', x1: 0.8, y1: 0, x2: 0.2, y2: 1 }), key(20, 200)]],
      FRAME,
      0,
      20 * FRAME,
    );
    expect([9, 10]).toContain(at / FRAME);
    expect(by).toBeGreaterThan(10);
  });
});
