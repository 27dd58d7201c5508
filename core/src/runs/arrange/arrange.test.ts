import { describe, expect, test } from '@jest/globals';
import { createStaging } from '../order';
import type { ArrangeRecipe } from '../../scene/recipe';
import { boundsAt } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { applied, codesOf, edited, framesOf, layerOf, planOn, SHELF } from '../../testing/planning';
import { card, CONTEXT, key, sceneOf } from '../../testing/scenes';
import { plan, replan } from '../plan';
import { arrangeWords, coverFactor } from '.';

function arrange(way: ArrangeRecipe['way'], more: Partial<ArrangeRecipe> = {}): ArrangeRecipe {
  return { operation: 'arrange', pick: { by: 'rule', kind: 'card' }, order: { by: 'layered' }, seed: 1, way, ...more };
}

const box = (id: string, x: number, y: number, width: number, height: number, more: object = {}) =>
  card(id, { rest: { 'position.x': x, 'position.y': y, 'size.x': width, 'size.y': height, ...more } });

/** Upright boxes of the rest poses, rounded to a thousandth of a pixel. */
function boxes(scene: Scene): number[][] {
  const { rest } = createStaging(scene);
  return scene.layers.map((_, i) => {
    const { left, top, right, bottom } = boundsAt(rest, i);
    return [left, top, right, bottom].map((value) => Number(value.toFixed(3)));
  });
}

// The frame is 1000 × 500.
const three = sceneOf([box('a', 100, 100, 100, 50), box('b', 300, 200, 50, 50), box('c', 800, 150, 200, 100)]);

describe('where layers rest', () => {
  test('spread between the outer two: equal gaps between boxes', () => {
    const [a, b, c] = boxes(applied(three, arrange({ by: 'spread', axis: 'across', between: 'outer', margin: 0 })));
    expect([a[0], c[2]]).toEqual([50, 900]);
    expect(b[0] - a[2]).toBeCloseTo(c[0] - b[2], 6);
  });

  test('spread over the frame with a margin', () => {
    const [a, b, c] = boxes(applied(three, arrange({ by: 'spread', axis: 'across', between: 'frame', margin: 20 })));
    expect([a[0], c[2]]).toEqual([20, 980]);
    expect(b[0] - a[2]).toBeCloseTo(c[0] - b[2], 6);
  });

  test('edge to edge, from the first', () => {
    const [a, b, c] = boxes(applied(three, arrange({ by: 'butt', axis: 'across', gap: 10 })));
    expect([a[0], b[0], c[0]]).toEqual([50, 160, 220]);
  });

  test('go on from an earlier arrangement as it is now', () => {
    const first = applied(three, arrange({ by: 'butt', axis: 'across', gap: 10 }));
    const align = arrange({ by: 'align', edge: 'right', to: 'outer' });
    const second = edited(first, plan(first, SHELF, align, { ...CONTEXT, runId: 'run-2' }).edits);
    const wider = arrange({ by: 'butt', axis: 'across', gap: 100 });
    const again = boxes(edited(second, replan(second, SHELF, 'run-1', wider, CONTEXT).edits));
    expect([boxes(second), again].map((all) => all.map(([, , right]) => right))).toEqual([
      [420, 420, 420],
      [600, 600, 600],
    ]);
  });

  test('in a grid of two columns', () => {
    const rows = boxes(applied(three, arrange({ by: 'grid', columns: 2, gap: 10 })));
    expect(rows.map(([left, top]) => [left, top])).toEqual([
      [50, 75],
      [260, 75],
      [50, 185],
    ]);
  });

  test('on a circle, turned outward', () => {
    const scene = applied(
      three,
      arrange({ by: 'circle', x: 0.5, y: 0.5, radius: 100, from: 0, round: 360, turned: true }),
    );
    expect(scene.layers.map(({ rest }) => Math.round(Number(rest.rotation)))).toEqual([90, 210, 330]);
    expect(scene.layers[0].rest['position.x']).toBeCloseTo(600, 9);
    expect(scene.layers[1].rest['position.y']).toBeCloseTo(250 + 100 * Math.sin((2 * Math.PI) / 3), 9);
  });

  test('on a part of a circle: the first at its beginning, the last at its end', () => {
    const half = { by: 'circle', x: 0.5, y: 0.5, radius: 100, from: 0, round: 180, turned: false } as const;
    const places = applied(three, arrange(half)).layers.map(({ rest }) => [rest['position.x'], rest['position.y']]);
    expect(places.map((place) => place.map((value) => Math.round(Number(value))))).toEqual([
      [600, 250],
      [500, 350],
      [400, 250],
    ]);
  });

  test('in slots: left and right', () => {
    const scene = applied(three, arrange({ by: 'slots', axis: 'across', slots: 2 }));
    expect(scene.layers.map(({ rest }) => rest['position.x'])).toEqual([250, 750, 250]);
  });

  test.each([
    ['left', 'frame', [0, 0, 0], 0],
    ['right', 'outer', [900, 900, 900], 2],
    ['bottom', 'first', [125, 125, 125], 3],
  ] as const)('%s edges on %s', (edge, to, expected, side) => {
    expect(boxes(applied(three, arrange({ by: 'align', edge, to }))).map((found) => found[side])).toEqual(expected);
  });

  // The boxes of a, b and c: 50–150 × 75–125, 275–325 × 175–225, 700–900 × 100–200; the frame is 1000 × 500.
  test.each([
    ['left', 'first', [50, 50, 50]],
    ['left', 'outer', [50, 50, 50]],
    ['right', 'first', [50, 100, -50]],
    ['right', 'frame', [900, 950, 800]],
    ['centre', 'frame', [450, 475, 400]],
    ['centre', 'first', [50, 75, 0]],
    ['centre', 'outer', [425, 450, 375]],
  ] as const)('%s edges or middles on %s: lefts at %j, and nothing goes up or down', (edge, to, lefts) => {
    const found = boxes(applied(three, arrange({ by: 'align', edge, to })));
    expect(found.map(([left]) => left)).toEqual(lefts);
    expect(found.map(([, top]) => top)).toEqual([75, 175, 100]);
  });

  test.each([
    ['top', 'frame', [0, 0, 0]],
    ['top', 'outer', [75, 75, 75]],
    ['bottom', 'frame', [450, 450, 400]],
    ['bottom', 'outer', [175, 175, 125]],
    ['middle', 'frame', [225, 225, 200]],
    ['middle', 'outer', [125, 125, 100]],
  ] as const)('%s edges or middles on %s: tops at %j, and nothing goes aside', (edge, to, tops) => {
    const found = boxes(applied(three, arrange({ by: 'align', edge, to })));
    expect(found.map(([, top]) => top)).toEqual(tops);
    expect(found.map(([left]) => left)).toEqual([50, 275, 700]);
  });

  test('spread down as across; one alone stands in the middle', () => {
    const down = boxes(applied(three, arrange({ by: 'spread', axis: 'down', between: 'frame', margin: 30 })));
    // 440 px for 200 px of boxes: 120 between.
    expect(down.map(([, top]) => top)).toEqual([30, 200, 370]);
    const one = sceneOf([box('a', 100, 100, 100, 50)]);
    const alone = { by: 'spread', between: 'frame', margin: 20 } as const;
    expect(boxes(applied(one, arrange({ ...alone, axis: 'across' })))[0]).toEqual([450, 75, 550, 125]);
    expect(boxes(applied(one, arrange({ ...alone, axis: 'down' })))[0]).toEqual([50, 225, 150, 275]);
    const standing = { ...alone, between: 'outer', axis: 'across' } as const;
    expect(boxes(applied(one, arrange(standing)))[0]).toEqual([50, 75, 150, 125]);
  });

  test('in slots from above: the first above, the second below, and again', () => {
    const scene = applied(three, arrange({ by: 'slots', axis: 'down', slots: 2 }));
    expect(scene.layers.map(({ rest }) => rest['position.y'])).toEqual([125, 375, 125]);
    expect(scene.layers.map(({ rest }) => rest['position.x'])).toEqual([100, 300, 800]);
  });

  test.each([
    ['width', 'first', [100, 100, 100], [50, 100, 50]],
    ['width', 'smallest', [50, 50, 50], [25, 50, 25]],
    ['height', 'largest', [200, 100, 200], [100, 100, 100]],
    ['height', 'first', [100, 50, 100], [50, 50, 50]],
    ['both', 'largest', [200, 200, 200], [100, 100, 100]],
    ['both', 'smallest', [50, 50, 50], [50, 50, 50]],
  ] as const)('%s as that of the %s: %j wide and %j high', (match, of, widths, heights) => {
    const found = boxes(applied(three, arrange({ by: 'size', match, of })));
    expect(found.map(([left, , right]) => right - left)).toEqual(widths.map((value) => expect.closeTo(value, 2)));
    expect(found.map(([, top, , bottom]) => bottom - top)).toEqual(heights.map((value) => expect.closeTo(value, 2)));
  });

  test('as large as others: what has no size stays as it is', () => {
    const flat = sceneOf([box('a', 100, 100, 100, 50), box('b', 300, 200, 0, 50)]);
    const after = applied(flat, arrange({ by: 'size', match: 'both', of: 'largest' }));
    expect(after.layers[1].rest).toEqual(flat.layers[1].rest);
  });

  test('as wide as the largest, as what is seen: a turned layer by its box', () => {
    const turned = sceneOf([box('a', 300, 200, 100, 100, { rotation: 45 }), box('b', 700, 200, 200, 100)]);
    const [a, b] = boxes(applied(turned, arrange({ by: 'size', match: 'width', of: 'largest' })));
    expect(a[2] - a[0]).toBeCloseTo(200, 2);
    expect(b[2] - b[0]).toBeCloseTo(200, 2);
  });

  test('in a turned and scaled group, by pixels of the scene', () => {
    const group = card('g', {
      kind: 'group',
      rest: { 'position.x': 200, 'position.y': 100, rotation: 90, 'scale.x': 2 },
    });
    const scene = sceneOf([group, { ...box('a', 0, 0, 100, 50), parent: 'g' }, box('b', 500, 300, 50, 50)]);
    const found = boxes(applied(scene, arrange({ by: 'align', edge: 'left', to: 'frame' })));
    expect(found[1][0]).toBeCloseTo(0, 6);
  });

  test('in a group that leans and is squeezed, to the very pixel', () => {
    const rest = { 'position.x': 200, 'position.y': 100, rotation: 30, 'scale.x': 2, 'scale.y': 0.5 };
    const group = card('g', { kind: 'group', rest });
    const scene = sceneOf([group, { ...box('a', 40, 70, 100, 50), parent: 'g' }, box('b', 500, 300, 50, 50)]);
    for (const [edge, side, goal] of [
      ['left', 0, 0],
      ['top', 1, 0],
      ['right', 2, 1000],
      ['bottom', 3, 500],
    ] as const) {
      const [before, after] = [scene, applied(scene, arrange({ by: 'align', edge, to: 'frame' }))].map(boxes);
      expect(after[1][side]).toBeCloseTo(goal, 2);
      // Across the way that it goes it stays where it was.
      const other = 1 - (side % 2);
      expect(after[1][other]).toBeCloseTo(before[1][other], 2);
    }
  });

  test('a layer whose group is picked too moves along with it and is named', () => {
    const scene = sceneOf([card('g', { kind: 'group' }), { ...box('a', 0, 0, 10, 10), parent: 'g' }]);
    const planned = planOn(
      scene,
      arrange({ by: 'align', edge: 'left', to: 'frame' }, { pick: { by: 'rule', name: '*' } }),
    );
    expect(codesOf(planned)).toContain('with-group');
    expect(planned.layers.map(({ layer }) => layer)).toEqual(['g']);
  });

  test('keys go with the rest pose, so that motion still ends where it rests', () => {
    const scene = sceneOf([
      {
        ...box('a', 100, 100, 100, 50),
        tracks: { 'position.x': [key(0, 40), key(10, 100)], 'scale.x': [key(0, 0), key(10, 1)] },
      },
    ]);
    const moved = layerOf(applied(scene, arrange({ by: 'align', edge: 'right', to: 'frame' })), 'a');
    expect(framesOf(moved.tracks['position.x'])).toEqual([
      [0, 890],
      [10, 950],
    ]);
    const covered = layerOf(applied(scene, arrange({ by: 'cover' })), 'a');
    expect(covered.tracks['scale.x']?.at(-1)?.value).toBeCloseTo(Number(covered.rest['scale.x']), 9);
  });
});

describe('covering the frame', () => {
  const turn = (degrees: number): number[] => {
    const angle = (degrees * Math.PI) / 180;
    return [Math.cos(angle), Math.sin(angle), -Math.sin(angle), Math.cos(angle), 0, 0];
  };

  test('1920×1080 at 45° needs 2121.32 px each way; an equal-size picture × 1.9642 (common practice)', () => {
    const frame = { width: 1920, height: 1080 };
    expect(coverFactor(turn(45), frame, frame)).toBeCloseTo(1.9642, 4);
    expect(coverFactor(turn(45), { width: 1000, height: 1000 }, frame) * 1000).toBeCloseTo(2121.32, 2);
    expect(coverFactor(turn(0), frame, frame)).toBeCloseTo(1, 12);
    // What has no area covers nothing, however large it is made.
    expect(coverFactor(turn(0), { width: 0, height: 100 }, frame)).toBe(Infinity);
    expect(coverFactor(turn(0), { width: 100, height: 0 }, frame)).toBe(Infinity);
    expect(coverFactor([1, 0, 1, 0, 0, 0], frame, frame)).toBe(Infinity);
  });

  test.each([0, 20, 45, 90, 133])(
    'turned by %s°, every corner of the frame lies in the layer, and one on its edge',
    (degrees) => {
      const scene = applied(
        sceneOf([box('a', 300, 100, 400, 100, { rotation: degrees, 'anchor.x': 0.2, 'anchor.y': 0.9 })]),
        arrange({ by: 'cover' }),
      );
      const { rest } = createStaging(scene);
      const [a, b, c, d, e, f] = Array.from(rest.matrices.slice(0, 6));
      const inside = [
        [0, 0],
        [1000, 0],
        [0, 500],
        [1000, 500],
      ].flatMap(([x, y]) => {
        const area = a * d - b * c;
        return [(d * (x - e) - c * (y - f)) / area / 400, (a * (y - f) - b * (x - e)) / area / 100];
      });
      expect(Math.min(...inside)).toBeGreaterThan(-1e-9);
      expect(Math.max(...inside)).toBeLessThan(1 + 1e-9);
      expect(Math.min(...inside.map((share) => Math.min(Math.abs(share), Math.abs(1 - share))))).toBeLessThan(1e-9);
    },
  );

  test('a layer that turns is covered at every time that its keys reach', () => {
    const scene = sceneOf([{ ...box('a', 500, 250, 1000, 500), tracks: { rotation: [key(0, 0), key(20, 90)] } }]);
    const { rest } = layerOf(applied(scene, arrange({ by: 'cover' })), 'a');
    expect(Number(rest['scale.x'])).toBeGreaterThanOrEqual(2.12);
  });
});

test.each([
  [{ by: 'spread', axis: 'across', between: 'outer', margin: 40 }, 'evenly across, between the outer two'],
  [{ by: 'spread', axis: 'down', between: 'frame', margin: 40 }, 'evenly down, over the frame with 40 px of margin'],
  [{ by: 'butt', axis: 'down', gap: 8 }, 'edge to edge down, 8 px between'],
  [{ by: 'grid', columns: 3, gap: 8 }, 'in a grid of 3 columns, 8 px between'],
  [{ by: 'slots', axis: 'across', slots: 4 }, 'in 4 slots across'],
  [{ by: 'align', edge: 'middle', to: 'outer' }, 'with middles on their outer box'],
  [{ by: 'size', match: 'both', of: 'largest' }, 'as large as the largest'],
  [{ by: 'cover' }, 'to cover the frame, however turned'],
] as const)('%j is said %s', (way, words) => expect(arrangeWords(way)).toBe(words));
