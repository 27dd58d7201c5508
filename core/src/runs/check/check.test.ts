import { describe, expect, test } from '@jest/globals';
import { describeFinding, type Finding } from '../finding';
import { createShelf } from '../../library/library';
import type { LineUpRecipe } from '../../scene/recipe';
import type { Key, Layer } from '../../scene/layer';
import type { RunRecord, Scene } from '../../scene/scene';
import { STARTER_LIBRARY } from '../../library/starter';
import { applied, edited, layerOf, planOn, SHELF } from '../../testing/planning';
import type { Rig } from '../../formulas/rig';
import { recipeOf as rigRecipe, rigged, shelfWith } from '../../testing/rigs';
import { card, key, PAL, recipeOf, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { checkScene, findInMotion, mendsOf } from '.';

const FRAME = frameTicks(PAL);

/** 200 boxes in twenty columns, all of which fade in. The frame is 1000 × 500. */
function wall(change: (layer: Layer, index: number) => Layer): Scene {
  const layers = Array.from({ length: 200 }, (_, i) =>
    card(`l${i}`, {
      rest: {
        'position.x': 25 + (i % 20) * 50,
        'position.y': 25 + Math.floor(i / 20) * 50,
        'size.x': 40,
        'size.y': 30,
      },
    }),
  );
  const plain = applied(sceneOf(layers), { spacing: { by: 'gap', gap: '1f' } });
  return { ...plain, layers: plain.layers.map(change) };
}

describe('a scene of 200 layers', () => {
  test('in order has no findings', () =>
    expect(
      checkScene(
        wall((layer) => layer),
        SHELF,
      ),
    ).toEqual([]));

  test('with three planted problems: each is found, and nothing else is', () => {
    const scene = wall((layer, i) => {
      if (i === 17) return { ...layer, span: { in: 0, out: 20 * FRAME } };
      if (i === 40)
        return { ...layer, tracks: { ...layer.tracks, 'position.x': [key(60, 25), key(70, 60), key(80, 25)] } };
      if (i === 99) return { ...layer, rest: { ...layer.rest, 'position.x': 1100 } };
      return layer;
    });
    const findings = checkScene(scene, SHELF);
    expect(findings.map(({ code }) => code).sort()).toEqual(['collide', 'ends-off-frame', 'outside-layer']);
    expect(findings.find(({ code }) => code === 'outside-layer')).toMatchObject({ layers: ['l17'], by: 9 * FRAME });
    expect(findings.find(({ code }) => code === 'collide')).toMatchObject({ layers: ['l40', 'l41'] });
    expect(findings.find(({ code }) => code === 'ends-off-frame')).toMatchObject({ layers: ['l99'] });
    for (const finding of findings) expect(describeFinding(finding, scene)).toMatch(/^“l\d+”.*\.$/);
  });
});

test('keys of any channel before a layer are found, whichever of its channels begins first', () => {
  const tracks = { 'position.x': [key(20, 0), key(30, 9)], opacity: [key(5, 0), key(25, 1)] };
  const early = sceneOf([card('a', { span: { in: 10 * FRAME, out: 90 * FRAME }, tracks })]);
  expect(checkScene(early, SHELF)).toContainEqual({
    code: 'outside-layer',
    layers: ['a'],
    at: 5 * FRAME,
    by: 5 * FRAME,
  });
});

describe('motion', () => {
  const look = (layers: readonly Layer[]) => findInMotion(sceneOf(layers), null, 0, ticksFromSeconds(10));
  const box = (id: string, x: number, more: Partial<Layer> = {}) =>
    card(id, { rest: { 'position.x': x, 'position.y': 250, 'size.x': 100, 'size.y': 100 }, ...more });

  test('what rigs do not give a number for is told by channel: all its layers, from when on; circles by theirs', () => {
    const own = (text: string, more: Parameters<typeof shelfWith>[2] = {}) =>
      rigged(sceneOf([box('a', 200), box('b', 600)]), rigRecipe('own'), shelfWith(text, ['position.x'], more));
    // Nothing to divide by at one second, and again at two.
    const broken = own('keyed + 1px ÷ ((t ÷ 1s - 1) × (t ÷ 1s - 2))');
    const found = findInMotion(broken, null, 0, ticksFromSeconds(10)).filter(({ code }) => code === 'rig-not-finite');
    expect(found).toEqual([
      { code: 'rig-not-finite', channel: 'position.x', layers: ['a', 'b'], at: ticksFromSeconds(1) },
    ]);
    const formulas: Rig['formulas'] = [
      { channels: ['position.x'], text: 'each.position.y' },
      { channels: ['position.y'], text: 'each.position.x' },
    ];
    const circle = findInMotion(own('', { formulas }), null, 0, FRAME).filter(({ code }) => code === 'rig-circle');
    expect(circle).toMatchObject([
      { layers: ['a'], channels: expect.arrayContaining(['position.x', 'position.y']) },
      { layers: ['b'] },
    ]);
  });

  test('every frame is looked at that the time touches, the last of the scene, too, and none after its end', () => {
    const metAt = (frame: number, from = 0, to = 250): number | null => {
      // Beside each other but for one frame.
      const hops = [key(0, 200, { type: 'hold' }), key(frame, 400, { type: 'hold' }), key(frame + 1, 200)];
      const still = { opacity: [key(0, 1)] };
      const scene = sceneOf([box('a', 200, { tracks: { 'position.x': hops } }), box('b', 400, { tracks: still })]);
      const found = findInMotion(scene, null, from * FRAME, to * FRAME).find(({ code }) => code === 'collide');
      return found?.code === 'collide' ? found.at / FRAME : null;
    };
    expect([0, 1, 248, 249, 250].map((frame) => metAt(frame))).toEqual([0, 1, 248, 249, null]);
    expect([9, 10, 20, 21].map((frame) => metAt(frame, 10.5, 19.5))).toEqual([null, 10, 20, null]);
  });

  test('longer than 600 frames, in steps of some frames; how late it begins does not make them longer', () => {
    const metAt = (from: number, to: number): number | undefined => {
      const hops = [key(0, 200, { type: 'hold' }), key(951, 400, { type: 'hold' }), key(975, 200)];
      const still = { opacity: [key(0, 1)] };
      const layers = [box('a', 200, { tracks: { 'position.x': hops } }), box('b', 400, { tracks: still })];
      const span = { in: 0, out: 2000 * FRAME };
      const scene = { ...sceneOf(layers.map((layer) => ({ ...layer, span }))), length: 2000 * FRAME };
      const found = findInMotion(scene, null, from * FRAME, to * FRAME).find(({ code }) => code === 'collide');
      return found?.code === 'collide' ? found.at / FRAME : undefined;
    };
    expect(metAt(900, 1000)).toBe(951);
    expect(metAt(900, 1499)).toBe(951);
    // 601 frames: every second one.
    expect(metAt(900, 1500)).toBe(952);
  });

  test('boxes that rest apart and meet collide at the first frame where they do; those that overlap at rest do not', () => {
    const moves = { 'position.x': [key(0, 300), key(10, 200)] };
    const [found] = look([
      box('a', 200, { tracks: moves }),
      box('b', 420, { tracks: { 'position.x': [key(0, 420), key(10, 320)] } }),
    ]);
    expect(found).toBeUndefined();
    const [met] = look([
      box('a', 200, { tracks: { 'position.x': [key(0, 200), key(10, 400)] } }),
      box('b', 400, { tracks: { opacity: [key(0, 1)] } }),
    ]);
    expect(met).toMatchObject({ code: 'collide', layers: ['a', 'b'], at: 6 * FRAME });
    expect(look([box('a', 200, { tracks: moves }), box('b', 260, { tracks: moves })])).toEqual([]);
    expect(
      look([box('a', 200, { tracks: { ...moves, opacity: [key(0, 0)] } }), box('b', 320, { tracks: moves })]),
    ).toEqual([]);
  });

  test('what a group hides cannot be seen to collide: its opacity, and its span, count for all in it', () => {
    const moves = { 'position.x': [key(0, 200), key(10, 400)] };
    const group = (more: Partial<Layer>) => card('g', { kind: 'group', source: { type: 'none' }, rest: {}, ...more });
    const pair = (more: Partial<Layer>) => [
      group(more),
      box('a', 200, { parent: 'g', tracks: moves }),
      box('b', 400, { tracks: { opacity: [key(0, 1)] } }),
    ];
    expect(look(pair({})).map(({ code }) => code)).toEqual(['collide']);
    expect(look(pair({ rest: { opacity: 0.05 } }))).toEqual([]);
    expect(look(pair({ span: { in: 0, out: FRAME } }))).toEqual([]);
  });

  test('a layer does not run into the one that it is in, nor into what is in that', () => {
    const moves = { 'position.x': [key(0, 200), key(10, 400)] };
    // The card stands in the way that its own child takes across it; a stranger in its place is met.
    const crossed = (parent: string | null) => [
      box('card', 400, { kind: 'card', tracks: { opacity: [key(0, 1)] } }),
      card('between', { parent, kind: 'group', source: { type: 'none' }, rest: {} }),
      box('child', 200, { parent: 'between', tracks: moves }),
    ];
    expect(look(crossed(null)).map(({ code }) => code)).toEqual(['collide']);
    // From the right as well, where the one in the group is the second of the two.
    const back = { 'position.x': [key(0, 600), key(10, 480)] };
    const fromRight = crossed(null).map((layer) =>
      layer.id === 'child' ? box('child', 600, { parent: 'between', tracks: back }) : layer,
    );
    expect(look(fromRight).map(({ code }) => code)).toEqual(['collide']);
    const inside = (from: number, rest: number): Layer[] =>
      crossed('card').map((layer) =>
        layer.id === 'child'
          ? {
              ...layer,
              rest: { ...layer.rest, 'position.x': rest, 'position.y': 100 },
              tracks: { 'position.x': [key(0, from), key(10, 100)] },
            }
          : layer,
      );
    // From the left and from the right, drawn before it and behind.
    for (const layers of [inside(-200, 300), inside(400, -100)])
      for (const order of [layers, [...layers].reverse()])
        expect(look(order).map(({ code }) => code)).not.toContain('collide');
  });

  test('what is not seen where it meets others does not collide: a matte that is not drawn, what rests beside the frame; nor do copies that are scattered', () => {
    const across = { 'position.x': [key(0, 200), key(10, 400)] };
    const still = { opacity: [key(0, 1)] };
    const matte = (isShown: boolean) => ({ matte: { layer: 'a', how: 'reveals' as const, isShown } });
    const pair = (isShown: boolean) => [
      box('a', 200, { tracks: across }),
      box('b', 400, { tracks: still }),
      box('c', 800, { look: matte(isShown) }),
    ];
    expect(look(pair(true)).map(({ code }) => code)).toEqual(['collide']);
    expect(look(pair(false))).toEqual([]);
    const copied = { copy: { of: 'source' } };
    const scattered = (more: Partial<Layer>) => [
      box('a', 200, { tracks: across, ...copied }),
      box('b', 400, { tracks: still, ...more }),
    ];
    expect(look(scattered({}))).toHaveLength(1);
    expect(look(scattered(copied))).toEqual([]);
    const fromBeside = { 'position.x': [key(0, -200), key(30, 400), key(60, -200)] };
    const met = look([box('a', -200, { tracks: fromBeside }), box('b', 400, { tracks: still })]);
    expect(met.map(({ code }) => code)).not.toContain('collide');
  });

  test('a layer that stood still in the frame leaves it on purpose; one that only passes through does not', () => {
    const leaves = (...keys: readonly (readonly [number, number])[]) =>
      look([box('a', 400, { tracks: { 'position.x': keys.map(([at, x]) => key(at, x)) } })]).map(({ code }) => code);
    expect(leaves([0, -200], [20, 500], [60, 500], [90, 1200])).toEqual([]);
    expect(leaves([0, -200], [60, 500], [120, 1200])).toEqual(['ends-off-frame']);
    expect(leaves([10, -200], [60, -100])).toEqual(['ends-off-frame']);
  });

  test('where a layer has come to rest is looked at while it is there; one that only touches the frame is outside', () => {
    const ends = (x: number, more: Partial<Layer> = {}) =>
      look([box('a', -300, { tracks: { 'position.x': [key(0, -300), key(60, x)] }, ...more })]);
    expect(ends(-49)).toEqual([]);
    expect(ends(-50)).toEqual([{ code: 'ends-off-frame', layers: ['a'], at: 60 * FRAME }]);
    expect(ends(1049)).toEqual([]);
    // It ends before its last key does, and is last seen a tick before its out point.
    const out = 30 * FRAME;
    expect(ends(500, { span: { in: 0, out } })).toEqual([]);
    expect(ends(10, { span: { in: 0, out } })).toEqual([{ code: 'ends-off-frame', layers: ['a'], at: out - 1 }]);
  });

  test('a step beyond an eighth of the diagonal and beyond the layer’s size is too large', () => {
    const [found] = look([box('a', 100, { tracks: { 'position.x': [key(10, 100), key(12, 900)] } })]);
    expect(found).toMatchObject({ code: 'big-steps', at: 11 * FRAME, step: 400 });
    expect(look([box('a', 100, { tracks: { 'position.x': [key(10, 100), key(40, 900)] } })])).toEqual([]);
  });

  test('steps of more than an eighth of the frame’s diagonal are large where the layer is seen both times and lies apart', () => {
    // The frame is 1000 × 500: an eighth of its diagonal is 139.8 px, here in one frame each.
    const steps = (by: number, size: number, from = 100): unknown[] => {
      const tracks = { 'position.x': [key(10, from), key(11, from + by)] };
      const rest = { 'position.x': from, 'position.y': 250, 'size.x': size, 'size.y': 20 };
      return look([card('a', { rest, tracks })]).filter(({ code }) => code === 'big-steps');
    };
    expect(steps(139, 20)).toEqual([]);
    expect(steps(141, 20)).toEqual([
      { code: 'big-steps', layers: ['a'], at: 11 * FRAME, step: expect.closeTo(141, 6) },
    ]);
    // A layer as long as its step goes on over itself.
    expect(steps(200, 200)).toEqual([]);
    expect(steps(210, 200)).toHaveLength(1);
    // In a long scene every third frame is looked at: 450 px in between are 150 a frame.
    const tracks = { 'position.x': [key(10, 100), key(11, 550)] };
    const long = sceneOf([box('a', 100, { tracks, span: { in: 0, out: 1500 * FRAME } })]);
    const seen = findInMotion({ ...long, length: 1500 * FRAME }, null, 0, 1500 * FRAME);
    expect(seen).toMatchObject([{ code: 'big-steps', step: expect.closeTo(150, 6) }]);
    // In from beyond the frame, or out of it.
    expect(steps(300, 20, -40)).toEqual([]);
    expect(steps(300, 20, 900)).toEqual([]);
  });

  test('a picture that covers the frame and turns leaves it uncovered', () => {
    const picture: Layer = card('p', {
      kind: 'picture',
      rest: { 'position.x': 500, 'position.y': 250, 'size.x': 1100, 'size.y': 600 },
      tracks: { rotation: [key(0, 0), key(100, 40)] },
    });
    const [found] = look([picture]);
    expect(found).toMatchObject({ code: 'uncovered', layers: ['p'] });
    const covered = applied(sceneOf([picture]), {
      operation: 'arrange',
      pick: { by: 'layers', layers: ['p'] },
      order: { by: 'layered' },
      seed: 1,
      way: { by: 'cover' },
    });
    expect(findInMotion(covered, null, 0, ticksFromSeconds(10))).toEqual([]);
  });

  test('a picture that is drawn back to exactly the frame covers it all the time; one that is drawn back further does not', () => {
    const drawnBack = (to: number) =>
      look([
        card('p', {
          kind: 'picture',
          rest: { 'position.x': 500, 'position.y': 250, 'size.x': 1000, 'size.y': 500 },
          tracks: { 'scale.x': [key(0, 1.4), key(100, to)], 'scale.y': [key(0, 1.4), key(100, to)] },
        }),
      ]).map(({ code }) => code);
    expect(drawnBack(1)).toEqual([]);
    expect(drawnBack(0.98)).toEqual(['uncovered']);
  });
});

describe('a scene as it stands', () => {
  test('tells where exits begin before entrances have ended, and by how much at most', () => {
    const run = (id: string, operation: string) => ({ id, recipe: { operation }, layers: [] }) as unknown as RunRecord;
    const by = (id: string, frame: number, value: number): Key => ({
      ...key(frame, value),
      by: { run: id, slot: `s${frame}` },
    });
    const both = (id: string, end: number, begin: number) =>
      card(id, {
        tracks: { opacity: [by('in', 0, 0), by('in', end, 1)], rotation: [by('out', begin, 0), by('out', 90, 9)] },
      });
    const layers = [both('a', 20, 17), both('b', 20, 20), both('c', 30, 19)];
    const scene = { ...sceneOf(layers), runs: [run('in', 'bring-in'), run('out', 'send-out')] };
    expect(checkScene(scene, SHELF).filter(({ code }) => code === 'entrance-meets-exit')).toEqual([
      { code: 'entrance-meets-exit', layers: ['a', 'c'], at: 17 * FRAME, by: 11 * FRAME },
    ]);
  });
});

describe('updates', () => {
  const scene = applied(sceneOf([card('a')]), {});

  test('a newer revision of a run’s preset is told, and no other', () => {
    const newer = createShelf(
      STARTER_LIBRARY.map((item) =>
        item.id === 'fade-in' ? { ...item, revision: item.revision + 1, name: 'Fade anew' } : item,
      ),
    );
    // It is called as it was called then.
    expect(checkScene(scene, SHELF)).toEqual([]);
    expect(checkScene(scene, newer)).toEqual([
      { code: 'update-waiting', run: 'run-1', preset: 'Fade in', from: 1, to: 2, layers: ['a'] },
    ]);
  });

  test('a newer revision of what the preset uses is told in other words', () => {
    const rising = applied(sceneOf([card('a')]), { preset: { id: 'rise-and-settle', revision: 1 } });
    const [house] = rising.runs[0].uses ?? [];
    const shelfWith = (revision: number) =>
      createShelf(STARTER_LIBRARY.map((item) => (item.id === house.id ? { ...item, revision } : item)));
    expect(checkScene(rising, shelfWith(house.revision))).toEqual([]);
    const [finding] = checkScene(rising, shelfWith(house.revision + 1));
    expect(finding).toMatchObject({ code: 'update-waiting', run: 'run-1', from: 1, to: 1 });
    expect(describeFinding(finding, rising)).toBe(
      'A curve or house value that “Rise & settle” uses was changed since this run. See what it would change.',
    );
    expect(checkScene({ ...rising, runs: [{ ...rising.runs[0], off: true }] }, shelfWith(house.revision + 1))).toEqual(
      [],
    );
  });
});

describe('mends', () => {
  const three = sceneOf([card('a'), card('b'), card('c')]);

  function mended(recipe: Parameters<typeof planOn>[1], code: string, on = three) {
    const planned = planOn(on, recipe);
    const drawn = planned.edits.length > 0 ? edited(on, planned.edits) : on;
    const finding = planned.findings.find((entry) => entry.code === code);
    if (!finding) throw new Error(`No ${code} among ${planned.findings.map((entry) => entry.code).join()}`);
    const whole = (planned.run?.recipe ?? { ...recipe }) as never;
    return mendsOf(finding, whole, on, drawn)[0] ?? null;
  }

  test('a scene that is too short is lengthened by what is missing', () => {
    const mend = mended({ start: { by: 'time', at: '9:20' } }, 'outside-scene');
    expect(mend).toMatchObject({ label: 'Lengthen the scene by 7 f' });
    if (!mend || !('edits' in mend)) throw new Error();
    expect(
      planOn(edited(three, mend.edits), { start: { by: 'time', at: '9:20' } }).findings.map(({ code }) => code),
    ).not.toContain('outside-scene');
  });

  test('layers that are too short are lengthened to hold their keys', () => {
    const short = sceneOf([card('a', { span: { in: 0, out: 5 * FRAME } })]);
    const mend = mended({}, 'outside-layer', short);
    if (!mend || !('edits' in mend)) throw new Error();
    expect(layerOf(edited(short, mend.edits), 'a').span.out).toBe(12 * FRAME);
  });

  test('entrance and exit are squeezed where that is asked for', () => {
    const both = applied(applied(three, {}), { operation: 'send-out', preset: { id: 'fade-out' } });
    const recipe: LineUpRecipe = {
      operation: 'line-up',
      pick: { by: 'rule', kind: 'card' },
      order: { by: 'layered' },
      seed: 1,
      way: { by: 'length', length: '12f' },
      parts: 'keep',
      squeeze: false,
    };
    const mend = mended(recipe, 'short-for-both', both);
    expect(mend).toMatchObject({ label: 'Shorten both', recipe: { squeeze: true } });
  });

  test('keys between frames are moved to the nearest', () => {
    const off = sceneOf([card('a', { tracks: { opacity: [{ ...key(3, 0), at: 3 * FRAME + 1000 }, key(9, 1)] } })]);
    const [finding] = checkScene(off, SHELF);
    const [mend] = mendsOf(finding, null, off, off);
    if (!('edits' in mend)) throw new Error();
    expect(checkScene(edited(off, mend.edits), SHELF)).toEqual([]);
    // In a dry run the sentence is what is changed; and of layers that are gone there is nothing to move.
    expect(mendsOf(finding, recipeOf({}), off, off)).toEqual([]);
    expect(mendsOf({ ...finding, layers: ['gone'] } as Finding, null, off, off)).toEqual([]);
  });
});
