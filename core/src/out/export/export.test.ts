import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createCubicBezier } from '../../basics/easing';
import type { Key } from '../../scene/layer';
import { sampleTrack } from '../../scene/sample';
import { sceneSchema } from '../../scene/scene';
import { constellations, programmeBoard } from '../../scene/demo';
import { card, key, sceneOf } from '../../testing/scenes';
import { canonicalJson, exportPage, exportSceneJson } from '.';
import { cssTrack } from './keyframes';

/** Reads keyframes back and plays them as CSS would: the percentages, the values and each cubic-bezier. */
function playCss(keyframes: string, share: number): number {
  const stops = [...keyframes.matchAll(/([\d.]+)% \{ --x: (-?[\d.]+); animation-timing-function: ([^}]+) \}/g)].map(
    ([, at, value, timing]) => ({ at: Number(at) / 100, value: Number(value), timing }),
  );
  const i = Math.max(
    0,
    stops.findLastIndex(({ at }) => at <= share),
  );
  const [a, b] = [stops[i], stops[i + 1]];
  if (!b) return a.value;
  const [x1, y1, x2, y2] = (/cubic-bezier\(([^)]+)\)/.exec(a.timing)?.[1] ?? '0,0,1,1').split(',').map(Number);
  const u = (share - a.at) / (b.at - a.at);
  return a.value + (b.value - a.value) * createCubicBezier({ x1, y1, x2, y2 })(u);
}

describe('CSS keyframes', () => {
  test('free handles become timing functions with the same curve, also between equal values', () => {
    const time = fc.double({ min: 0.05, max: 0.9, noNaN: true });
    const value = fc.double({ min: -50, max: 50, noNaN: true });
    const handle = fc.record({ time, value });
    fc.assert(
      fc.property(handle, handle, fc.constantFrom(0, 30), time, (leave, arrive, to, share) => {
        const keys = [key(0, 0, { type: 'handles', leave, arrive }), key(25, to)];
        const { keyframes } = cssTrack(keys, '--x');
        const expected = sampleTrack(keys, keys[1].at * share);
        expect(Math.abs(playCss(keyframes, share) - expected)).toBeLessThan(0.01);
      }),
    );
  });

  test('handles between equal values swing at their own time, whichever of the keys they stand at', () => {
    const swing: Key['ease'] = {
      type: 'handles',
      leave: { time: 0.4, value: 30 },
      arrive: { time: 0.3, value: 20 },
    };
    const keys = [key(0, 10), key(20, 40, swing), key(40, 40)];
    const { keyframes } = cssTrack(keys, '--x');
    for (const share of [0.25, 0.55, 0.65, 0.75, 0.9])
      expect(playCss(keyframes, share)).toBeCloseTo(sampleTrack(keys, keys[2].at * share), 1);
  });

  test('many steps are left to the browser, and fewer are written one by one', () => {
    const stepped = (count: number): string =>
      cssTrack([key(0, 0, { type: 'steps', count, jump: 'end' }), key(25, 1)], '--x').keyframes;
    expect(stepped(200).match(/steps\(1, jump-end\)/g)).toHaveLength(200);
    expect(stepped(300)).toContain('0% { --x: 0; animation-timing-function: steps(300, ');
  });

  test('a hold is one step at the end, and times are told as delay and length', () => {
    const track = cssTrack([key(25, 1, { type: 'hold' }), key(50, 2)], '--x');
    expect(track.keyframes).toContain('0% { --x: 1; animation-timing-function: steps(1, jump-end) }');
    expect(track).toMatchObject({ delay: 1, duration: 1 });
  });
});

describe('the page', () => {
  test('has an element for each shown layer and none for hidden ones and guides', () => {
    const page = exportPage(sceneOf([card('a'), card('b', { hidden: true }), card('c', { kind: 'guide' })]));
    expect([...page.matchAll(/data-layer="(\w+)"/g)].map(([, id]) => id)).toEqual(['a']);
  });

  test('what a layer is called or says cannot become markup', () => {
    const evil = '</style><script>alert(1)</script>';
    const source = { type: 'text', text: evil, font: 'Spline Sans', weight: 400, size: 20, align: 'left' } as const;
    const page = exportPage({ ...sceneOf([card('a', { name: evil, kind: 'word', source })]), name: evil });
    expect(page).not.toContain('<script>');
    expect(page).not.toContain('</style><');
  });

  test('loads nothing from elsewhere', () => {
    expect(exportPage(programmeBoard())).not.toMatch(/(src|href)="(?!data:)|url\((?!data:)|@import/);
  });
});

describe('JSON', () => {
  test('demo scenes are valid and come back the same', () => {
    for (const scene of [programmeBoard(), constellations()]) {
      expect(sceneSchema.parse(JSON.parse(exportSceneJson(scene)))).toEqual(scene);
    }
    expect(programmeBoard().layers.filter(({ tags }) => tags.includes('row'))).toHaveLength(12);
    expect(constellations().layers.filter(({ tags }) => tags.includes('star'))).toHaveLength(60);
  });

  test('equal data gives equal text, whatever the order of its names', () => {
    expect(canonicalJson({ b: [{ d: 1, c: undefined }], a: 'x' })).toBe('{"a":"x","b":[{"d":1}]}');
  });
});
