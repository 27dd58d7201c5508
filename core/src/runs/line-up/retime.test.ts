import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { Key, LayerSpan } from '../../scene/layer';
import { framesOf } from '../../testing/planning';
import { card, key, PAL } from '../../testing/scenes';
import { isTooShort, partsOf, retime, type Retiming } from './retime';

const FRAME = frameTicks(PAL);
const frames = (first: number, end: number): LayerSpan => ({ in: first * FRAME, out: end * FRAME });
const by = (run: string, one: Key): Key => ({ ...one, by: { run, slot: `${one.at}` } });

const ROLES = new Map([
  ['in', 'entrance'],
  ['out', 'exit'],
  ['nod', 'accent'],
  ['drift', 'middle'],
] as const) as Retiming['roles'];

/** There from 20 to 120: comes in over 10, nods at 60, goes over 20. */
const layer = card('a', {
  span: frames(20, 120),
  tracks: {
    opacity: [by('in', key(20, 0)), by('in', key(30, 1)), by('out', key(100, 1)), by('out', key(120, 0))],
    'position.y': [by('nod', key(60, 0)), by('nod', key(64, 9)), by('nod', key(68, 0))],
  },
});

function carried(span: LayerSpan, more: Partial<Retiming> = {}) {
  const after = retime(layer, span, { roles: ROLES, parts: 'keep', squeeze: false, rate: PAL, ...more });
  expect(after.span).toEqual(span);
  return [after.tracks.opacity, after.tracks['position.y']].map((keys) => framesOf(keys ?? []).map(([at]) => at));
}

describe('keys of a layer whose span changes', () => {
  test('move along exactly where it only moves', () => {
    expect(carried(frames(27, 127))).toEqual([
      [27, 37, 107, 127],
      [67, 71, 75],
    ]);
  });

  test('stretch with it from its in point, where that is asked', () => {
    expect(carried(frames(20, 170), { parts: 'stretch' })).toEqual([
      [20, 35, 140, 170],
      [80, 86, 92],
    ]);
    expect(carried(frames(50, 100), { parts: 'stretch' })).toEqual([
      [50, 55, 90, 100],
      [70, 72, 74],
    ]);
  });

  test('that hold up to the tick before the next stay just before it', () => {
    const frame = (at: number, value: number, tick = 0): Key => ({ ...key(at, value), at: at * FRAME + tick });
    const jump = card('a', {
      span: frames(20, 120),
      tracks: { opacity: [frame(20, 0), frame(40, 0, -1), frame(40, 1), frame(60, 1)] },
    });
    const long = retime(jump, frames(20, 220), { roles: ROLES, parts: 'stretch', squeeze: false, rate: PAL });
    expect(long.tracks.opacity?.map(({ at }) => at)).toEqual([20 * FRAME, 60 * FRAME - 1, 60 * FRAME, 100 * FRAME]);
    const apart = card('a', { ...jump, tracks: { opacity: [frame(20, 0), frame(40, 0, -2), frame(40, 1)] } });
    const other = retime(apart, frames(20, 220), { roles: ROLES, parts: 'stretch', squeeze: false, rate: PAL });
    expect(other.tracks.opacity?.map(({ at }) => at)).toEqual([20 * FRAME, 60 * FRAME - 4, 60 * FRAME]);
  });

  test('keep entrance, exit and accents as long as they are; accents stand where they stood in between', () => {
    // Between 30 and 100 the nod stood after 30 of 70 frames; now there are 140.
    expect(carried(frames(20, 190))).toEqual([
      [20, 30, 170, 190],
      [90, 94, 98],
    ]);
    expect(carried(frames(40, 120))).toEqual([
      [40, 50, 100, 120],
      [71, 75, 79],
    ]);
  });

  test('stay with the in point where there is no room for both, or are squeezed into what there is', () => {
    const short = frames(20, 35);
    expect(isTooShort(partsOf(layer, ROLES), short)).toBe(true);
    expect(isTooShort(partsOf(layer, ROLES), frames(20, 50))).toBe(false);
    // Ten and twenty frames into fifteen: half of each.
    expect(carried(short, { squeeze: true })[0]).toEqual([20, 25, 35]);
    const [opacity] = carried(short);
    expect(opacity).toEqual([15, 20, 30, 35]);
  });

  test('of a layer that comes in until it goes, what stands between goes on with the way in', () => {
    const tracks = {
      opacity: [by('in', key(0, 0)), by('in', key(50, 1)), by('out', key(50, 1)), by('out', key(100, 0))],
      rotation: [by('drift', key(50, 5))],
    };
    const full = card('f', { span: frames(0, 100), tracks });
    const after = retime(full, frames(0, 200), { roles: ROLES, parts: 'keep', squeeze: false, rate: PAL });
    expect(framesOf(after.tracks.rotation ?? [])).toEqual([[50, 5]]);
  });

  test('are told apart by where nothing moves where no run says what they are', () => {
    const hand = card('h', {
      span: frames(10, 110),
      tracks: { opacity: [key(10, 0), key(22, 1), key(90, 1), key(110, 0)] },
    });
    expect(partsOf(hand, new Map())).toEqual({ entrance: 12 * FRAME, exit: 20 * FRAME });
    expect(partsOf(card('none'), new Map())).toEqual({ entrance: 0, exit: 0 });
    // Still for 30 frames twice: the first of them is the middle.
    const twice = card('t', {
      span: frames(0, 100),
      tracks: { opacity: [key(0, 0), key(20, 1), key(50, 1), key(60, 0), key(90, 0), key(100, 1)] },
    });
    expect(partsOf(twice, new Map())).toEqual({ entrance: 20 * FRAME, exit: 50 * FRAME });
  });
});
