import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Edit } from '../../scene/edit';
import { boundsAt, compileScene, restFrame } from '../../scene/sample';
import { createShelf } from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import type { Layer } from '../../scene/layer';
import { createPassOn, type PassOnRecipe, type PresetRecipe } from '../../scene/recipe';
import { sceneSchema, type Scene } from '../../scene/scene';
import { frameTicks } from '../../basics/time';
import { applied, codesOf, edited, framesOf, layerOf, planOn } from '../../testing/planning';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';
import { sentenceOf, withFollowers } from '../operations';
import { replan } from '../plan';
import { removeRun, switchRun } from '../stack';

const FRAME = frameTicks(PAL);
const shelf = createShelf(STARTER_LIBRARY);
const at = (x: number, y = 100): Layer['rest'] => ({ 'position.x': x, 'position.y': y, 'size.x': 100, 'size.y': 50 });
const span = (from: number, to: number): Layer['span'] => ({ in: from * FRAME, out: to * FRAME });

/** The first slides in from the left by 80 px, grows, and turns; the others rest elsewhere, one of them larger. */
const scene: Scene = sceneOf([
  card('a', {
    rest: at(200),
    span: span(10, 110),
    tracks: { 'position.x': [key(10, 120), key(20, 200)], 'scale.x': [key(10, 0.5), key(20, 1)] },
    data: { name: 'Moon', size: 3 },
    look: { fill: '#58a07c' },
  }),
  card('b', {
    rest: { ...at(500), 'scale.x': 2 },
    span: span(20, 90),
    tracks: { 'scale.x': [key(30, 4)], rotation: [key(30, 9)] },
  }),
  card('c', { rest: at(800, 300), span: span(0, 100), data: { name: 'Tide', team: 'red' } }),
]);

function passOn(more: Partial<PassOnRecipe> = {}): PassOnRecipe {
  return { ...createPassOn({ by: 'rule', kind: 'card' }, 'a'), order: { by: 'across' }, ...more };
}

function after(recipe: PassOnRecipe, on: Scene = scene): Scene {
  const result = applied(on, recipe);
  expect(sceneSchema.safeParse(result).error?.issues ?? []).toEqual([]);
  return result;
}

describe('motion', () => {
  test('is as far from where each rests, each so much later than the one before', () => {
    const now = after(passOn({ later: '4f' }));
    // b begins at frame 20 and is one place further: keys at 20 + 4 and 10 later.
    expect(framesOf(layerOf(now, 'b').tracks['position.x'])).toEqual([
      [24, 420],
      [34, 500],
    ]);
    // It is twice as wide, and so are its keys; what it had on the channel is gone, its turn stays.
    expect(framesOf(layerOf(now, 'b').tracks['scale.x'])).toEqual([
      [24, 1],
      [34, 2],
    ]);
    expect(framesOf(layerOf(now, 'b').tracks.rotation)).toEqual([[30, 9]]);
    // Four keys on each of the two; the one that stood on a channel of them is gone, the other is kept.
    expect(planOn(scene, passOn({ later: '4f' })).counts).toMatchObject({ layers: 2, added: 8, removed: 1, kept: 1 });
    expect(framesOf(layerOf(now, 'c').tracks['position.x'])).toEqual([
      [8, 720],
      [18, 800],
    ]);
    expect(layerOf(now, 'a')).toBe(scene.layers[0]);
    expect(now.runs[0].sentence).toBe(
      'Pass on motion of “a” to 2 cards, left to right, each 4 f later, with values about where each rests.',
    );
  });

  test('goes by the same curve: free handles reach as much further as the values do', () => {
    const ease = { type: 'handles', leave: { time: 0.3, value: 0.4 }, arrive: { time: 0.2, value: -0.1 } } as const;
    const tracks = { 'scale.x': [key(0, 0.5, ease), key(10, 1)], 'position.x': [key(0, 120, ease), key(10, 200)] };
    const on = { ...scene, layers: [{ ...scene.layers[0], tracks }, ...scene.layers.slice(1)] };
    const easeOn = (layer: string, channel: 'scale.x' | 'position.x') =>
      layerOf(after(passOn(), on), layer).tracks[channel]?.[0].ease;
    // b rests twice as wide, c as wide; of places the way is the same everywhere.
    expect(easeOn('b', 'scale.x')).toEqual({
      ...ease,
      leave: { time: 0.3, value: 0.8 },
      arrive: { time: 0.2, value: -0.2 },
    });
    expect(easeOn('c', 'scale.x')).toEqual(ease);
    expect(easeOn('b', 'position.x')).toEqual(ease);
  });

  test('can be just as it is', () => {
    const now = after(passOn({ values: 'as-is' }));
    expect(framesOf(layerOf(now, 'c').tracks['position.x'])).toEqual([
      [0, 120],
      [10, 200],
    ]);
  });

  test('that is not there is told, and so are a source that is gone and a time that is none', () => {
    expect(codesOf(planOn(scene, passOn({ from: { layer: 'c' } })))).toEqual(['nothing-to-pass']);
    const both = planOn(scene, passOn({ from: { layer: 'c' }, what: ['motion', 'place'] }));
    expect(codesOf(both)).toContain('nothing-to-pass');
    expect(both.edits.length).toBeGreaterThan(0);
    expect(both.findings.map((finding) => describeFinding(finding, scene)).join()).toContain('“c” has no keys');
    expect(codesOf(planOn(scene, passOn({ from: { layer: 'gone' } })))).toEqual(['source-gone']);
    expect(codesOf(planOn(scene, passOn({ pick: { by: 'layers', layers: ['a'] } })))).toContain('nothing-picked');
  });
});

describe('timing, place, look and data', () => {
  test('spans are those of the source, each later; entrances stay with the in point', () => {
    const now = after(passOn({ what: ['timing'], later: '10f' }));
    expect(['b', 'c'].map((id) => layerOf(now, id).span)).toEqual([span(20, 120), span(30, 130)]);
    const both = after(passOn({ what: ['timing', 'motion'], later: '10f' }));
    // With its timing, its motion comes at the same distance from the in point.
    expect(framesOf(layerOf(both, 'c').tracks['position.x']).map(([frame]) => frame)).toEqual([30, 40]);
  });

  test('places are the same in the scene, also inside a group that is moved, turned and scaled', () => {
    const grouped = sceneOf([
      { ...scene.layers[0], rest: { ...scene.layers[0].rest, rotation: 20 } },
      card('group', {
        kind: 'group',
        source: { type: 'none' },
        rest: {
          'position.x': 400,
          'position.y': 50,
          'size.x': 10,
          'size.y': 10,
          rotation: 90,
          'scale.x': 2,
          'scale.y': 2,
        },
      }),
      card('inside', { parent: 'group', rest: at(10, 10) }),
      card('plain', { rest: at(900, 10) }),
    ]);
    const now = after(passOn({ what: ['place'], apart: { x: 30, y: -10 }, order: { by: 'layered' } }), grouped);
    const rest = restFrame(compileScene({ ...now, layers: now.layers.map((layer) => ({ ...layer, tracks: {} })) }));
    const middles = now.layers
      .map((_, index) => boundsAt(rest, index))
      .map(({ left, right, top, bottom }) => [(left + right) / 2, (top + bottom) / 2]);
    [[200, 100], null, [230, 90], [260, 80]].forEach((wanted, i) => {
      if (!wanted) return;
      expect(middles[i][0]).toBeCloseTo(wanted[0], 9);
      expect(middles[i][1]).toBeCloseTo(wanted[1], 9);
    });
    expect(layerOf(now, 'plain').rest.rotation).toBe(20);
  });

  test('keys go along where only the place is passed on', () => {
    const moving = {
      ...scene,
      layers: scene.layers.map((layer) =>
        layer.id === 'c' ? { ...layer, tracks: { 'position.y': [key(0, 250), key(9, 300)] } } : layer,
      ),
    };
    const now = after(passOn({ what: ['place'] }), moving);
    expect(framesOf(layerOf(now, 'c').tracks['position.y'])).toEqual([
      [0, 50],
      [9, 100],
    ]);
  });

  test('looks are whole; of data the cells of the source, while others stay', () => {
    const now = after(passOn({ what: ['look', 'data'] }));
    expect(layerOf(now, 'c').look).toEqual(scene.layers[0].look);
    expect(layerOf(now, 'c').data).toEqual({ name: 'Moon', size: 3, team: 'red' });
    expect(layerOf(now, 'b').data).toEqual({ name: 'Moon', size: 3 });
  });
});

describe('as a run', () => {
  const all = passOn({ what: ['motion', 'place', 'timing', 'look', 'data'], later: '3f' });

  test('it is changed, switched off and removed, and what was done by hand over it stays', () => {
    const first = after(all);
    const cell: Edit = { type: 'set-layer', layer: 'c', fields: { data: { ...layerOf(first, 'c').data, size: 99 } } };
    const hand = edited(first, [cell]);
    const changed = edited(hand, replan(hand, shelf, 'run-1', { ...all, later: '6f' }, CONTEXT).edits);
    expect(layerOf(changed, 'c').data).toEqual({ name: 'Moon', size: 99, team: 'red' });
    expect(layerOf(changed, 'c').span.in / FRAME).toBe(10 + 2 * 6);
    const off = edited(changed, switchRun(changed, 'run-1').edits);
    expect(layerOf(off, 'c').data).toEqual({ name: 'Tide', team: 'red', size: 99 });
    expect(layerOf(off, 'b').tracks).toEqual(scene.layers[1].tracks);
    expect(edited(off, switchRun(off, 'run-1').edits).layers).toEqual(changed.layers);
    const removed = edited(first, removeRun(first, 'run-1').edits);
    expect(removed.layers).toEqual(scene.layers);
  });

  test('linked, the others follow keys, place, timing, look and data of the source in the same step', () => {
    const linked = { ...all, from: { layer: 'a', isLinked: true as const } };
    const follow = (on: Scene, edits: readonly Edit[]): Scene =>
      edited(
        on,
        withFollowers(
          on,
          edits,
          shelf,
          CONTEXT,
          (one, _shelf, run, context) => replan(one, shelf, run.id, run.recipe, context).edits,
        ),
      );
    const first = after(linked);
    const later = follow(first, [
      { type: 'set-track', layer: 'a', channel: 'position.x', keys: [key(10, 150), key(30, 200)] },
      { type: 'set-layer', layer: 'a', fields: { data: { name: 'Sun' }, look: { fill: '#ff0000' } } },
    ]);
    expect(framesOf(layerOf(later, 'b').tracks['position.x'])).toEqual([
      [13, 150],
      [33, 200],
    ]);
    expect([layerOf(later, 'c').look.fill, layerOf(later, 'c').data.name]).toEqual(['#ff0000', 'Sun']);
    const moved = follow(later, [{ type: 'set-layer', layer: 'a', fields: { span: span(50, 150) } }]);
    expect(layerOf(moved, 'b').span).toEqual(span(53, 153));
    expect(sentenceOf(linked, { scene: first, shelf, count: 2 })).toContain('of “a”, which they follow, to');
  });

  test('a run beneath that is changed passes its change on', () => {
    const rise = { preset: { id: 'rise-and-settle' }, pick: { by: 'layers', layers: ['a'] } } as Partial<PresetRecipe>;
    const risen = applied(scene, rise);
    const passed = after(passOn(), risen);
    const [run] = passed.runs;
    const longer = { ...(run.recipe as PresetRecipe), length: { by: 'fixed' as const, length: '40f' } };
    const now = edited(passed, replan(passed, shelf, run.id, longer, CONTEXT).edits);
    const lengthOf = (id: string): number => {
      const frames = framesOf(layerOf(now, id).tracks['position.y']).map(([frame]) => frame);
      return frames[frames.length - 1] - frames[0];
    };
    expect(lengthOf('a')).toBe(40);
    expect(lengthOf('c')).toBe(40);
  });

  test('passed on about rest and back again, keys are what they were', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -500, max: 500, noNaN: true }), { minLength: 1, maxLength: 6 }),
        fc.double({ min: 0.1, max: 4, noNaN: true }),
        (values, width) => {
          const there = sceneOf([
            card('a', {
              rest: at(200),
              tracks: { 'position.x': values.map((value, i) => key(i * 3, value)), 'scale.x': [key(0, 0.25)] },
            }),
            card('b', { rest: { ...at(700), 'scale.x': width }, span: span(5, 60) }),
          ]);
          const once = applied(there, passOn({ pick: { by: 'layers', layers: ['b'] } }));
          const back = applied(once, passOn({ pick: { by: 'layers', layers: ['a'] }, from: { layer: 'b' } }));
          const [before, now] = [there, back].map((one) => layerOf(one, 'a').tracks);
          expect(now['position.x']?.map(({ at: time }) => time)).toEqual(
            before['position.x']?.map(({ at: time }) => time),
          );
          now['position.x']?.forEach(({ value }, i) => expect(value).toBeCloseTo(values[i], 6));
          expect(now['scale.x']?.[0].value).toBeCloseTo(0.25, 9);
        },
      ),
    );
  });
});
