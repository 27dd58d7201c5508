import { describe, expect, test } from '@jest/globals';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import type { Key, Layer } from '../../scene/layer';
import { card, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';
import { findInMotion } from '.';

const FRAME = frameTicks(PAL);
/** The whole frame of the test scenes, in which a rectangle of a third is 333 px wide and high. */
const WHOLE = { 'position.x': 500, 'position.y': 500, 'size.x': 1000, 'size.y': 1000 };

/** Keys that go back and forth between two values, so many frames each, so often. */
function between(a: number, b: number, frames: number, times = 40): Key[] {
  return Array.from({ length: times }, (_, i) => key(i * frames, i % 2 === 0 ? a : b, { type: 'hold' }));
}

function flicker(frames: number, more: Partial<Layer> = {}, times?: number): Layer {
  return card('f', {
    rest: WHOLE,
    look: { fill: '#ffffff' },
    tracks: { opacity: between(1, 0, frames, times) },
    ...more,
  });
}

function flashesIn(layers: readonly Layer[], background = '#000000') {
  const square = { ...sceneOf(layers), width: 1000, height: 1000, background };
  return findInMotion(square, null, 0, ticksFromSeconds(10)).filter(({ code }) => code === 'flashes');
}

describe('flashes beyond what WCAG 2.2 allows (2.3.1)', () => {
  test('are more than three within a second: the eighth change makes the fourth, and six in a second are three', () => {
    expect(flashesIn([flicker(3)])).toEqual([{ code: 'flashes', layers: ['f'], at: 24 * FRAME }]);
    expect(flashesIn([flicker(4)])).toEqual([]);
    expect(flashesIn([flicker(2, {}, 8)])).toEqual([]);
    expect(flashesIn([flicker(2, {}, 9)])).toHaveLength(1);
    // The first of them may be one to the light or one to the dark.
    expect(flashesIn([flicker(2, { tracks: { opacity: between(0, 1, 2, 9) } })])).toHaveLength(1);
  });

  test('are changes of a tenth of the brightness of white, where the darker state is below eight tenths', () => {
    const faint = (share: number) => flicker(3, { tracks: { opacity: between(share, 0, 3) } });
    // Over black: 25 % of white give a relative luminance of 0.05, 40 % one of 0.13.
    expect(flashesIn([faint(0.25)])).toEqual([]);
    expect(flashesIn([faint(0.4)])).toHaveLength(1);
    // A fill that is seen through is as faint.
    expect(flashesIn([flicker(3, { look: { fill: '#ffffff40' } })])).toEqual([]);
    expect(flashesIn([flicker(3, { look: { fill: '#ffffff66' } })])).toHaveLength(1);
    // #eeeeee has 0.85, #d8d8d8 0.69: both are a tenth and more below white.
    expect(flashesIn([flicker(3)], '#eeeeee')).toEqual([]);
    expect(flashesIn([flicker(3)], '#d8d8d8')).toHaveLength(1);
  });

  test('follow what brightness and tint do to a fill, which is never brighter than white', () => {
    const bright = (a: number, b: number) => flicker(3, { tracks: { 'colour.brightness': between(a, b, 3) } });
    expect(flashesIn([bright(1, 0.4)])).toHaveLength(1);
    expect(flashesIn([bright(1, 3)])).toEqual([]);
    const tinted = (tint: string) =>
      flicker(3, { look: { fill: '#ffffff', tint }, tracks: { 'tint.amount': between(0, 1, 3) } });
    expect(flashesIn([tinted('#000000')])).toHaveLength(1);
    expect(flashesIn([tinted('#ffffff')])).toEqual([]);
  });

  test('count from a quarter of a third of the frame’s width and height on', () => {
    const sized = (size: number) => flicker(3, { rest: { ...WHOLE, 'size.x': size, 'size.y': size } });
    expect(flashesIn([sized(140)])).toEqual([]);
    expect(flashesIn([sized(190)])).toHaveLength(1);
    // A layer that is turned covers as much, wherever it lies.
    const turned = (size: number, rotation: number, scale = 1) => {
      const place = { 'position.x': 640, 'position.y': 380, 'scale.x': scale, 'scale.y': scale, rotation };
      return flicker(3, { rest: { ...place, 'size.x': size / scale, 'size.y': size / scale } });
    };
    for (const rotation of [30, 90, 200, -75]) {
      expect(flashesIn([turned(140, rotation)])).toEqual([]);
      expect(flashesIn([turned(190, rotation)])).toHaveLength(1);
    }
    // However it comes to its size.
    for (const scale of [0.4, 2.5]) {
      expect(flashesIn([turned(140, 20, scale)])).toEqual([]);
      expect(flashesIn([turned(190, 20, scale)])).toHaveLength(1);
    }
    // In the corners, too, up to the edges: 8 of 48 cells a side are just enough, 7 too few.
    for (const [x, y] of [
      [0, 0],
      [1000, 0],
      [0, 1000],
      [1000, 1000],
    ]) {
      const corner = (size: number) => {
        const place = { 'position.x': Math.abs(x - size / 2), 'position.y': Math.abs(y - size / 2) };
        return flicker(3, { rest: { ...place, 'size.x': size, 'size.y': size } });
      };
      expect(flashesIn([corner(165)])).toHaveLength(1);
      expect(flashesIn([corner(150)])).toEqual([]);
    }
    // A strip along the foot of the frame takes up a tenth of what a third of it is high.
    const strip = { 'position.x': 500, 'position.y': 985, 'size.x': 1000, 'size.y': 30 };
    expect(flashesIn([flicker(3, { rest: strip })])).toEqual([]);
    // Two that are each too small do together what they do at once in one place.
    const beside = (id: string, x: number) =>
      flicker(3, { id, rest: { 'position.x': x, 'position.y': 500, 'size.x': 90, 'size.y': 270 } });
    expect(flashesIn([beside('a', 450)])).toEqual([]);
    expect(flashesIn([beside('a', 450), beside('b', 550)])).toMatchObject([{ layers: ['a', 'b'] }]);
    expect(flashesIn([beside('a', 60), beside('b', 940)])).toEqual([]);
  });

  test('a saturated red counts by its colour, though it is as bright as what it takes turns with', () => {
    // #ff0000 has a relative luminance of 0.213, #7f7f7f one of 0.212.
    expect(flashesIn([flicker(3, { look: { fill: '#ff0000' } })], '#7f7f7f')).toHaveLength(1);
    expect(flashesIn([flicker(3, { look: { fill: '#7f7f7f' } })], '#7f7f7f')).toEqual([]);
    // Two saturated reds that differ little are one colour to the eye.
    expect(flashesIn([flicker(3, { look: { fill: '#ff2000' } })], '#ff0000')).toEqual([]);
    // A blue as bright as a grey is no red.
    expect(flashesIn([flicker(3, { look: { fill: '#0000ff' } })], '#4c4c4c')).toEqual([]);
  });

  test('come from groups, keyed colours and brightness as well', () => {
    const group = card('g', {
      kind: 'group',
      source: { type: 'none' },
      rest: {},
      tracks: { opacity: between(1, 0, 3) },
    });
    const inside = card('f', { rest: WHOLE, look: { fill: '#ffffff' }, parent: 'g' });
    expect(flashesIn([group, inside])).toMatchObject([{ layers: ['g'] }]);
    expect(flashesIn([{ ...group, hidden: true }, inside])).toEqual([]);
    expect(flashesIn([flicker(3, { tracks: { 'fill.l': between(1, 0.2, 3) } })])).toHaveLength(1);
    const grey = { fill: '#555555' };
    expect(flashesIn([flicker(3, { look: grey, tracks: { 'colour.brightness': between(1, 3, 3) } })])).toHaveLength(1);
  });

  test('of a gradient count by the mean of its colours, of an ellipse by what it covers, of words by a part of their box', () => {
    const filled = (fill: Layer['look']['fill']) => flashesIn([flicker(3, { look: { fill } })]).length;
    const stops = (...colours: string[]): Layer['look']['fill'] => ({
      kind: 'linear',
      stops: colours.map((colour, i) => ({ at: i / (colours.length - 1), colour })),
      map: [1, 0, 0, 1, 0, 0],
    });
    // The middle of black and white in Oklab has a relative luminance of 0.125, that of black and a dark grey one of 0.01.
    expect(filled({ from: '#000000', to: '#ffffff', angle: 0 })).toBe(1);
    expect(filled({ from: '#000000', to: '#444444', angle: 0 })).toBe(0);
    expect(filled(stops('#ffffff', '#ffffff', '#000000'))).toBe(1);
    expect(filled(stops('#ffffff', '#000000', '#000000'))).toBe(0);
    const round = (size: number, type: 'ellipse' | 'rectangle') =>
      flashesIn([flicker(3, { source: { type }, rest: { ...WHOLE, 'size.x': size, 'size.y': size } })]).length;
    expect([round(185, 'rectangle'), round(185, 'ellipse'), round(225, 'ellipse')]).toEqual([1, 0, 1]);
    const words = { type: 'text', text: 'Tide', font: 'Spline Sans', weight: 400, size: 90, align: 'left' } as const;
    expect(flashesIn([flicker(3, { source: words })])).toEqual([]);
  });

  test('of pictures and tints count as well; what has no fill does not', () => {
    const href = `files/${'a'.repeat(64)}.png`;
    expect(flashesIn([flicker(3, { source: { type: 'picture', href }, look: {} })])).toHaveLength(1);
    expect(flashesIn([flicker(3, { look: {} })])).toEqual([]);
    const tinted = (tint: string) =>
      flashesIn([flicker(3, { look: { fill: '#000000', tint }, tracks: { 'tint.amount': between(1, 0, 3) } })]).length;
    expect([tinted('#ffffff'), tinted('#222222')]).toEqual([1, 0]);
  });

  test('are not what comes one after the other, slowly or elsewhere, nor what is not drawn', () => {
    const rows = Array.from({ length: 12 }, (_, i) =>
      card(`r${i}`, {
        rest: { 'position.x': 500, 'position.y': 40 + 80 * i, 'size.x': 1000, 'size.y': 76 },
        look: { fill: '#ffffff' },
        tracks: { opacity: [key(2 * i, 0), key(2 * i + 4, 1)] },
      }),
    );
    expect(flashesIn(rows)).toEqual([]);
    expect(flashesIn([flicker(3, { hidden: true })])).toEqual([]);
    expect(flashesIn([flicker(3), card('over', { rest: WHOLE, look: { fill: '#333333' } })])).toEqual([]);
  });

  test('are told with where, why and what to do', () => {
    const scene = sceneOf([flicker(3)]);
    expect(describeFinding({ code: 'flashes', layers: ['f'], at: 24 * FRAME }, scene)).toBe(
      'The picture flashes more than three times in a second over a large part of the frame, first at 0:24: “f”. Flashes like these can cause seizures; make the changes slower, smaller or fainter.',
    );
  });
});
