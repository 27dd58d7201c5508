import { describe, expect, test } from '@jest/globals';
import type { Key, Layer } from '../../scene/layer';
import { createLineUp, type Recipe } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { frameTicks, MOST_TICKS, ticksFromSeconds } from '../../basics/time';
import { apply } from '../../scene/edit';
import { planOn } from '../../testing/planning';
import { card, key, PAL, recipeOf, sceneOf } from '../../testing/scenes';
import { describeFinding, type Finding } from '../finding';
import { mendsOf } from '.';

const late: Finding = { code: 'outside-scene', layers: ['b'], at: ticksFromSeconds(9), by: ticksFromSeconds(1) };
const scene = sceneOf([card('a'), card('b')]);

function drawn(end: number) {
  return sceneOf([card('a'), card('b', { tracks: { rotation: [key(0, 0), { ...key(1, 5), at: end }] } })]);
}

function labels(recipe: Recipe | null, end: number): string[] {
  return mendsOf(late, recipe, scene, drawn(end), ['a', 'b']).map(({ label }) => label);
}

describe('mends of what runs past the end', () => {
  test('the scene is made as long as is needed, to the next whole frame, and no longer than time can be held', () => {
    const mends = mendsOf(late, null, scene, drawn(ticksFromSeconds(11.01)), []);
    expect(mends[0]).toMatchObject({ label: expect.stringContaining('Lengthen the scene by 26 f') });
    expect(labels(null, ticksFromSeconds(9))).toEqual([]);
    expect(labels(null, MOST_TICKS * 2)).toEqual([]);
  });

  test('rows and cues can begin again with the first, once', () => {
    const rows = recipeOf({ spacing: { by: 'rows', rows: 2, apart: '5f', hold: '50f' } });
    const end = ticksFromSeconds(11);
    expect(labels(rows, end)).toContain('Begin again with the first');
    expect(labels(rows, end)).toContain('Take only the 1 that fit');
    const wrapped = recipeOf({ spacing: { by: 'rows', rows: 2, apart: '5f', hold: '50f', wrap: true } });
    expect(labels(wrapped, end)).not.toContain('Begin again with the first');
    expect(labels(recipeOf({ spacing: { by: 'gap', gap: '5f' } }), end)).toEqual(labels(null, end));
    expect(labels(createLineUp({ by: 'rule' }), end)).not.toContain('Begin again with the first');
  });
});

test('layers that a line-up cuts short are not made longer again: it says where they end', () => {
  const cut: Finding = { code: 'outside-layer', layers: ['b'], at: ticksFromSeconds(9), by: ticksFromSeconds(1) };
  const short = sceneOf([card('b', { tracks: { rotation: [key(0, 0), key(400, 5)] } })]);
  expect(mendsOf(cut, null, short, short)).toHaveLength(1);
  expect(mendsOf(cut, createLineUp({ by: 'rule' }), short, short)).toEqual([]);
});

describe('runs that take turns and do not fit', () => {
  const cues = recipeOf({ spacing: { by: 'cues' } });
  const out: Finding = { code: 'cues-run-out', cues: 2, places: 3 };
  const three = sceneOf([card('a'), card('b'), card('c')]);

  test('take only the first of so many as there are cues, in their order, or begin again', () => {
    const [fewer, again, ...others] = mendsOf(out, cues, three, three, ['c', 'a', 'b']);
    expect(fewer).toEqual({
      label: 'Take only the 2 that fit',
      recipe: { ...cues, pick: { by: 'layers', layers: ['c', 'a'] } },
    });
    expect(again).toMatchObject({
      label: 'Begin again with the first',
      recipe: { spacing: { by: 'cues', wrap: true } },
    });
    expect(others).toEqual([]);
    expect(mendsOf(out, null, three, three, ['c', 'a', 'b'])).toEqual([]);
  });

  test('do not take what is gone, and take all where all fit or none where none do', () => {
    expect(mendsOf(out, cues, three, three, ['gone', 'a', 'b'])[0]).toMatchObject({
      label: 'Take only the 1 that fit',
    });
    expect(mendsOf(out, cues, three, three, ['gone', 'lost', 'b']).map(({ label }) => label)).toEqual([
      'Begin again with the first',
    ]);
    expect(mendsOf(out, cues, three, three, ['a', 'b']).map(({ label }) => label)).toEqual([
      'Begin again with the first',
    ]);
  });

  test('of a row that is lined up, too; what comes before the scene cannot be mended by a longer one', () => {
    const rows = { ...createLineUp({ by: 'rule' }), way: { by: 'rows', rows: 2, apart: '5f', hold: '50f' } } as Recipe;
    const end = ticksFromSeconds(11);
    expect(labels(rows, end)).toEqual(['Lengthen the scene by 25 f', 'Take only the 1 that fit']);
    const early = { ...late, at: -1 } as Finding;
    expect(mendsOf(early, null, scene, drawn(end), [])).toEqual([]);
  });
});

describe('a time that cannot be met', () => {
  const missed = (field: 'Finish' | 'Window'): Finding => ({
    code: 'cannot-meet',
    field,
    wanted: ticksFromSeconds(1),
    nearest: ticksFromSeconds(2),
    why: 'frames',
  });
  const met = (recipe: Recipe, field: 'Finish' | 'Window' = 'Finish') =>
    mendsOf(missed(field), recipe, scene, scene, []).map((mend) => ('recipe' in mend ? mend.recipe : null));
  const asked = { by: 'finish', at: '1:00' } as const;
  const given = { by: 'finish', at: '2:00' } as const;

  test('gives way to the nearest that can, where it was asked for: start, gap, length or window', () => {
    const [start, gap, length] = [{ start: asked }, { spacing: asked }, { length: asked }].map(recipeOf);
    expect(met(start)).toEqual([{ ...start, start: given }]);
    expect(met(gap)).toEqual([{ ...gap, spacing: given }]);
    expect(met(length)).toEqual([{ ...length, length: given }]);
    const fitted = recipeOf({ length: { by: 'fit', window: '1:00' } });
    expect(met(fitted, 'Window')).toEqual([{ ...fitted, length: { by: 'fit', window: '2:00' } }]);
    expect(mendsOf(missed('Finish'), start, scene, scene, [])[0].label).toBe('Take 2:00');
  });

  test('is no matter of recipes without start, gap and length, nor where there is none', () => {
    expect(met(createLineUp({ by: 'rule' }))).toEqual([]);
    expect(mendsOf(missed('Finish'), null, scene, scene, [])).toEqual([]);
  });
});

describe('layers that share one place', () => {
  const beside = (...places: readonly (readonly [number, number])[]) =>
    sceneOf(places.map(([x, y], i) => card(`c${i}`, { rest: { 'position.x': x, 'position.y': y } })));
  const downwards = recipeOf({ order: { by: 'down' }, spacing: { by: 'gap', gap: '4f' } });
  const found = (standing: Scene, recipe: Recipe) =>
    planOn(standing, recipe).findings.filter(({ code }) => code === 'one-place');

  test('are told where a run would go from one to the next, and an order that tells them apart is offered', () => {
    const row = beside([100, 300], [300, 300], [500, 300]);
    const [finding] = found(row, downwards);
    expect(describeFinding(finding, row)).toBe(
      '“c0”, “c1” and “c2” share one place in the order, so they start together. Choose another order, such as left to right.',
    );
    const [mend] = mendsOf(finding, downwards, row, row, []);
    expect(mend).toEqual({ label: 'Take them left to right', recipe: { ...downwards, order: { by: 'across' } } });
    const piled = beside([100, 300], [100, 300]);
    expect(mendsOf(found(piled, downwards)[0], downwards, piled, piled, [])).toMatchObject([
      { label: 'Take them back to front' },
    ]);
  });

  test('are not told of where places differ, nothing is staggered, or all are meant to go at once', () => {
    const row = beside([100, 300], [300, 300]);
    expect(found(beside([100, 300], [100, 400]), downwards)).toEqual([]);
    expect(found(beside([100, 300]), downwards)).toEqual([]);
    expect(found(row, { ...downwards, spacing: { by: 'gap', gap: '0f' } })).toEqual([]);
    expect(found(row, { ...downwards, order: { by: 'down', blocks: 2 } })).toEqual([]);
    const [first, second] = row.layers;
    const later = { ...second, span: { ...second.span, in: ticksFromSeconds(1) } };
    expect(found({ ...row, layers: [first, later] }, { ...downwards, start: { by: 'layer' } })).toEqual([]);
  });
});

describe('a rig that finds no speed to carry on', () => {
  const SOFT: Key['ease'] = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 };
  const soft = (frame: number, value: number): Key => key(frame, value, SOFT);
  const layers = [
    card('a', { tracks: { rotation: [soft(0, 0), soft(5, 40), soft(9, 50)], opacity: [soft(0, 0), soft(9, 1)] } }),
    card('b', { tracks: { rotation: [soft(0, 3)] } }),
    card('c', { tracks: { rotation: [soft(0, 0), soft(9, 50)] } }),
  ];
  const idle = (why: 'no-keys' | 'no-speed', ...ids: string[]): Finding => ({
    code: 'rig-idle',
    layers: ids,
    why,
    channels: ['rotation'],
  });

  test('is given one: the last key of each of its channels is reached at an even speed, of these layers alone', () => {
    const standing = sceneOf(layers);
    const [mend, ...others] = mendsOf(idle('no-speed', 'a', 'b'), null, standing, standing, []);
    expect(others).toEqual([]);
    expect(mend.label).toBe('Let them arrive at an even speed');
    const done = apply(standing, 'edits' in mend ? mend.edits : []);
    if (!done.ok) throw new Error(done.problem.code);
    const [a, ...rest] = done.scene.layers;
    expect(a.tracks.rotation?.map(({ ease }) => ease.type)).toEqual(['bezier', 'linear', 'bezier']);
    expect(a.tracks.rotation?.map(({ at, value }) => [at, value])).toEqual(
      layers[0].tracks.rotation?.map(({ at, value }) => [at, value]),
    );
    expect(a.tracks.opacity).toEqual(layers[0].tracks.opacity);
    expect(rest).toEqual(layers.slice(1));
  });

  test('cannot be mended where there are no keys', () => {
    const standing = sceneOf(layers);
    expect(mendsOf(idle('no-keys', 'a'), null, standing, standing, [])).toEqual([]);
    expect(mendsOf(idle('no-speed', 'b'), null, standing, standing, [])).toEqual([]);
  });
});

test('a second entrance can take the place of the first, where it is what the sentence is about', () => {
  const twice = { code: 'twice', operation: 'bring-in', layers: ['a'] } as unknown as Finding;
  const mends = (recipe: Recipe | null) => mendsOf(twice, recipe, scene, scene, []);
  const adding = recipeOf({ existing: 'add' });
  expect(mends(adding)).toEqual([{ label: 'Take its place', recipe: { ...adding, existing: 'take-place' } }]);
  expect(mends(recipeOf({ operation: 'send-out', existing: 'add' }))).toEqual([]);
  expect(mends(createLineUp({ by: 'rule' }))).toEqual([]);
  expect(mends(null)).toEqual([]);
});

test('layers that are too short are lengthened to the next whole frame, each as it needs; none where keys come before the scene', () => {
  const FRAME = frameTicks(PAL);
  const span = { in: 10 * FRAME, out: 20 * FRAME };
  const short = (...tracks: readonly Layer['tracks'][]): Scene =>
    sceneOf(tracks.map((own, i) => card(`c${i}`, { span, tracks: own })));
  const finding = (...layers: string[]) => ({ code: 'outside-layer', layers, at: 0, by: 1 }) as unknown as Finding;
  const both = short(
    { rotation: [key(4, 0), key(12, 9)] },
    { opacity: [key(15, 0), { ...key(25, 1), at: 25 * FRAME + 1 }] },
  );
  const [mend, ...others] = mendsOf(finding('c0', 'c1'), null, both, both);
  expect([mend.label, others]).toEqual(['Lengthen the layers', []]);
  const done = apply(both, 'edits' in mend ? mend.edits : []);
  expect(done.ok && done.scene.layers.map((layer) => [layer.span.in / FRAME, layer.span.out / FRAME])).toEqual([
    [4, 20],
    [10, 26],
  ]);
  expect(mendsOf(finding('c1'), null, both, both)[0].label).toBe('Lengthen the layer');
  const before = short({ rotation: [key(-2, 0), key(25, 9)] });
  expect(mendsOf(finding('c0'), null, before, before)).toEqual([]);
  // What fits already needs no mend.
  const fits = short({ rotation: [key(12, 0)] });
  expect(mendsOf(finding('c0'), null, fits, fits)).toEqual([]);
});

test('a revision that is no longer kept gives way to the newest, in the sentence', () => {
  const missing: Finding = { code: 'revision-missing', preset: 'Fade in', revision: 3 };
  const old = recipeOf({ preset: { id: 'fade-in', revision: 3 } });
  expect(mendsOf(missing, old, scene, scene)).toEqual([
    { label: 'Take the newest revision', recipe: { ...old, preset: { id: 'fade-in' } } },
  ]);
  expect(mendsOf(missing, null, scene, scene)).toEqual([]);
});

test('only a line-up can shorten entrance and exit', () => {
  const both = { code: 'short-for-both', layers: ['a'], at: 0 } as Finding;
  const lineUp = createLineUp({ by: 'rule' });
  expect(mendsOf(both, lineUp, scene, scene)).toEqual([
    { label: 'Shorten both', recipe: { ...lineUp, squeeze: true } },
  ]);
  expect(mendsOf(both, recipeOf(), scene, scene)).toEqual([]);
  expect(mendsOf(both, null, scene, scene)).toEqual([]);
});

test('keys between frames move to the nearest; a value held up to a jump goes with the jump, and one key stays of two', () => {
  const FRAME = frameTicks(PAL);
  const at = (ticks: number, value: number): Key => ({ at: ticks, value, ease: { type: 'linear' } });
  // Held up to a tick before it jumps between frames 9 and 10; and two keys that come to stand on one frame.
  const jump = 10 * FRAME - 700;
  const tracks = {
    rotation: [at(0, 5), { ...at(jump - 1, 5), ease: { type: 'hold' } as const }, at(jump, 40), at(20 * FRAME, 0)],
    opacity: [at(4 * FRAME - 9, 0), at(4 * FRAME + 8, 1)],
  };
  const off = sceneOf([card('a', { tracks }), card('b', { tracks })]);
  const finding = { code: 'off-grid', layers: ['a'], at: 0 } as Finding;
  const [mend] = mendsOf(finding, null, off, off);
  const done = apply(off, 'edits' in mend ? mend.edits : []);
  if (!done.ok) throw new Error(done.problem.code);
  const [a, b] = done.scene.layers;
  expect(a.tracks.rotation?.map((one) => [one.at, one.value])).toEqual([
    [0, 5],
    [10 * FRAME - 1, 5],
    [10 * FRAME, 40],
    [20 * FRAME, 0],
  ]);
  expect(a.tracks.opacity?.map((one) => [one.at / FRAME, one.value])).toEqual([[4, 1]]);
  expect(b).toEqual(off.layers[1]);
});
