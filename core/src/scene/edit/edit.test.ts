import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CHANNEL_IDS } from '../../basics/channel';
import { createClear } from '../recipe';
import { sceneSchema, type Scene } from '../scene';
import { card, key, sceneOf } from '../../testing/scenes';
import {
  apply,
  describeEditProblem,
  difference,
  editSchema,
  invert,
  isEmptyDifference,
  layersOfEdits,
  type Edit,
} from '.';

const ids = ['a', 'b', 'c', 'd'];
const start: Scene = sceneOf([
  card('a', { tracks: { opacity: [key(0, 0), key(5, 1)] } }),
  card('b'),
  card('c', { tracks: { rotation: [key(3, 90)] } }),
]);

const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({ type: fc.constant('set-scene' as const), fields: fc.record({ name: fc.constantFrom('One', 'Two') }) }),
  fc.record({
    type: fc.constant('add-layer' as const),
    index: fc.nat(4),
    layer: fc.constantFrom(...ids).map((id) => card(id)),
  }),
  fc.record({ type: fc.constant('remove-layer' as const), layer: fc.constantFrom(...ids) }),
  fc.record({ type: fc.constant('move-layer' as const), layer: fc.constantFrom(...ids), index: fc.nat(3) }),
  fc.record({
    type: fc.constant('set-layer' as const),
    layer: fc.constantFrom(...ids),
    fields: fc.record({ name: fc.constantFrom('x', 'y'), locked: fc.boolean() }),
  }),
  fc.record({
    type: fc.constant('set-track' as const),
    layer: fc.constantFrom(...ids),
    channel: fc.constantFrom(...CHANNEL_IDS),
    keys: fc.option(fc.integer({ min: 0, max: 50 }).map((frame) => [key(frame, frame)])),
  }),
);

describe('edits', () => {
  test('undoing a list of edits gives the scene back exactly, or it was refused and nothing changed', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { maxLength: 8 }), (edits) => {
        const before = structuredClone(start);
        const done = apply(start, edits);
        expect(start).toEqual(before);
        if (!done.ok) return expect(describeEditProblem(done.problem)).toContain('Nothing was changed');
        expect(sceneSchema.safeParse(done.scene).success).toBe(true);
        const undone = apply(done.scene, done.inverse);
        expect(undone.ok && undone.scene).toEqual(before);
        expect(undone.ok && apply(undone.scene, undone.inverse)).toMatchObject({ ok: true, scene: done.scene });
        expect(invert(start, edits)).toEqual(done.inverse);
      }),
      { numRuns: 300 },
    );
  });

  test('edits are plain data that the schema reads back', () => {
    fc.assert(fc.property(anyEdit, (edit) => expect(editSchema.parse(JSON.parse(JSON.stringify(edit)))).toEqual(edit)));
  });

  test('all or nothing: a list with one wrong edit changes nothing and says which layer', () => {
    const result = apply(start, [
      { type: 'set-layer', layer: 'a', fields: { name: 'new' } },
      { type: 'remove-layer', layer: 'ghost' },
    ]);
    expect(result).toEqual({ ok: false, problem: { code: 'no-such-layer', layer: 'ghost' } });
  });

  test('a place that is none is refused with how many there are: one more to add at than to move to', () => {
    const count = start.layers.length;
    const refused = (edit: Edit) => apply(start, [edit]);
    const problem = { code: 'index-out-of-range', index: count + 1 };
    expect(refused({ type: 'add-layer', index: count + 1, layer: card('new') })).toMatchObject({
      problem: { ...problem, count: count + 1 },
    });
    expect(refused({ type: 'move-layer', layer: 'a', index: count + 1 })).toMatchObject({
      problem: { ...problem, count },
    });
    expect(refused({ type: 'add-layer', index: count, layer: card('new') }).ok).toBe(true);
  });

  test('runs are added, replaced and removed at their places, and each is undone; what cannot be is refused', () => {
    const [one, two, three] = ['one', 'two', 'three'].map((id) => ({ id }) as Scene['runs'][number]);
    const ran = { ...start, runs: [one, two] };
    const idsAfter = (...edits: Edit[]): string[] => {
      const result = apply(ran, edits);
      if (!result.ok) throw new Error(result.problem.code);
      const back = apply(result.scene, result.inverse);
      expect(back.ok && back.scene.runs).toEqual(ran.runs);
      return result.scene.runs.map(({ id }) => id);
    };
    expect(idsAfter({ type: 'add-run', index: 1, run: three })).toEqual(['one', 'three', 'two']);
    expect(idsAfter({ type: 'add-run', index: 2, run: three })).toEqual(['one', 'two', 'three']);
    expect(idsAfter({ type: 'remove-run', run: 'one' })).toEqual(['two']);
    const other = { ...two, sentence: 'Another.' };
    const set = apply(ran, [{ type: 'set-run', run: other }]);
    expect(set.ok && set.scene.runs).toEqual([one, other]);
    const problemOf = (edit: Edit) => {
      const result = apply(ran, [edit]);
      return result.ok ? null : describeEditProblem(result.problem);
    };
    expect(problemOf({ type: 'add-run', index: 0, run: two })).toContain('The id “two” is already in use');
    expect(problemOf({ type: 'add-run', index: 3, run: three })).toContain('Place 3 lies outside the 3 that there are');
    for (const edit of [{ type: 'remove-run', run: 'three' } as const, { type: 'set-run', run: three } as const])
      expect(problemOf(edit)).toBe('The run “three” is no longer in the scene. Nothing was changed.');
  });

  test('no two layers of a list have one id, and an id that is free again can be taken', () => {
    const [first] = start.layers;
    const other = { ...first, id: 'new' };
    const add = { type: 'add-layer', index: 0, layer: other } as const;
    expect(apply(start, [add, { ...add, index: 1 }])).toEqual({ ok: false, problem: { code: 'id-taken', id: 'new' } });
    const again = apply(start, [add, { type: 'remove-layer', layer: 'new' }, { ...add, index: start.layers.length }]);
    expect(again.ok ? again.scene.layers.map(({ id }) => id) : []).toEqual([
      ...start.layers.map(({ id }) => id),
      'new',
    ]);
  });

  test('name the layers that they touch', () => {
    const [layer] = start.layers;
    expect(
      layersOfEdits([
        { type: 'set-scene', fields: { name: 'One' } },
        { type: 'add-layer', index: 0, layer: { ...layer, id: 'new' } },
        { type: 'set-layer', layer: 'b', fields: { name: 'x' } },
        { type: 'remove-layer', layer: 'c' },
        { type: 'remove-run', run: 'r' },
      ]),
    ).toEqual(['new', 'b', 'c']);
  });

  test('what did not change is shared', () => {
    const result = apply(start, [{ type: 'set-track', layer: 'a', channel: 'opacity', keys: null }]);
    if (!result.ok) throw new Error();
    expect(result.scene.layers[1]).toBe(start.layers[1]);
    expect(result.scene.runs).toBe(start.runs);
    const same = apply(start, [{ type: 'set-scene', fields: { name: 'Other' } }]);
    expect(same.ok && same.scene.layers).toBe(start.layers);
  });

  test('a group cannot be removed while layers belong to it, nor be its own child', () => {
    const group = card('g', { kind: 'group' });
    const grouped = sceneOf([group, card('a', { parent: 'g' })]);
    const gone = apply(grouped, [{ type: 'remove-layer', layer: 'g' }]);
    expect(!gone.ok && describeEditProblem(gone.problem)).toContain('belongs to a group that is not in the scene');
    const circle = apply(grouped, [{ type: 'set-layer', layer: 'g', fields: { parent: 'g' } }]);
    expect(!circle.ok && circle.problem.code).toBe('broken-tree');
  });

  test('a new layer belongs to a group that is there, or to none', () => {
    const grouped = sceneOf([card('g', { kind: 'group' }), card('a')]);
    const added = (parent: string | null) =>
      apply(grouped, [{ type: 'add-layer', index: 0, layer: card('new', { parent }) }]);
    const told = (parent: string): string => {
      const result = added(parent);
      return result.ok ? '' : describeEditProblem(result.problem);
    };
    expect([added('g').ok, added(null).ok]).toEqual([true, true]);
    expect(told('gone')).toContain('belongs to a group that is not in the scene');
    expect(told('a')).toContain('which is not a group');
  });

  test('a group cannot become something else while layers belong to it', () => {
    const grouped = sceneOf([card('g', { kind: 'group' }), card('a', { parent: 'g' })]);
    const turned = apply(grouped, [{ type: 'set-layer', layer: 'g', fields: { kind: 'card' } }]);
    expect(!turned.ok && describeEditProblem(turned.problem)).toContain('which is not a group');
    const alone = sceneOf([card('g', { kind: 'group' })]);
    expect(apply(alone, [{ type: 'set-layer', layer: 'g', fields: { kind: 'card' } }]).ok).toBe(true);
  });

  test('what stood before the runs is set and taken away, and undone', () => {
    const based = apply(start, [{ type: 'set-base', layer: 'a', base: { tracks: { opacity: [] } } }]);
    if (!based.ok) throw new Error();
    expect(based.scene.layers[0].base).toEqual({ tracks: { opacity: [] } });
    const undone = apply(based.scene, based.inverse);
    expect(undone.ok && undone.scene).toEqual(start);
    // One that takes another's place gives way to that again.
    const other = apply(based.scene, [{ type: 'set-base', layer: 'a', base: { tracks: {} } }]);
    if (!other.ok) throw new Error();
    const back = apply(other.scene, other.inverse);
    expect(back.ok && back.scene).toEqual(based.scene);
  });
});

describe('difference', () => {
  test('tells the order of runs where it is not what adding at the end gives', () => {
    const run = (id: string) => ({
      id,
      sentence: id,
      recipe: createClear({ by: 'rule' }),
      by: 'A',
      when: '2026-01-01T00:00:00.000Z',
      layers: [],
      made: {},
    });
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map(run);
    const of = (...runs: (typeof a)[]): Scene => ({ ...start, runs });
    const orderOf = (before: Scene, after: Scene) => difference(before, after).runOrder;
    expect(orderOf(of(a, b), of(a, b, c))).toBeNull();
    expect(orderOf(of(a, b, c), of(a, c))).toBeNull();
    expect(orderOf(of(a, b), of(b, a))).toEqual(['b', 'a']);
    expect(orderOf(of(a, b), of(a, d, b))).toEqual(['a', 'd', 'b']);
    expect(difference(of(a, b), of(b)).removedRuns).toEqual(['a']);
  });

  test('names just the layers that an edit touched', () => {
    const result = apply(start, [{ type: 'set-layer', layer: 'b', fields: { name: 'B' } }]);
    if (!result.ok) throw new Error();
    const change = difference(start, result.scene);
    expect(change.layers.map(({ id }) => id)).toEqual(['b']);
    expect(change).toMatchObject({ header: null, order: null, removedLayers: [], runs: [], removedRuns: [] });
    expect(isEmptyDifference(difference(start, start))).toBe(true);
  });

  test('tells a new order alone, of layers and of runs, and none where what is added comes last', () => {
    const moved = apply(start, [{ type: 'move-layer', layer: 'c', index: 0 }]);
    if (!moved.ok) throw new Error(moved.problem.code);
    expect(difference(start, moved.scene)).toMatchObject({ layers: [], removedLayers: [], order: ['c', 'a', 'b'] });
    expect(isEmptyDifference(difference(start, moved.scene))).toBe(false);
    const [one, two, three] = ['one', 'two', 'three'].map((id) => ({ id }) as Scene['runs'][number]);
    const runs = (...list: Scene['runs']) => difference({ ...start, runs: [one, two] }, { ...start, runs: list });
    expect(runs(two, one)).toMatchObject({ runs: [], removedRuns: [], runOrder: ['two', 'one'] });
    expect(isEmptyDifference(runs(two, one))).toBe(false);
    expect(runs(one, two, three)).toMatchObject({ runs: [three], runOrder: null });
    expect(runs(two)).toMatchObject({ runs: [], removedRuns: ['one'], runOrder: null });
    expect(runs(three, one, two)).toMatchObject({ runs: [three], runOrder: ['three', 'one', 'two'] });
  });

  test('tells new order and removed layers', () => {
    const result = apply(start, [
      { type: 'remove-layer', layer: 'a' },
      { type: 'move-layer', layer: 'c', index: 0 },
    ]);
    if (!result.ok) throw new Error();
    expect(difference(start, result.scene)).toMatchObject({ removedLayers: ['a'], order: ['c', 'b'], layers: [] });
  });
});
