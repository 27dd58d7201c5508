import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { ChannelId } from '../../basics/channel';
import type { Edit } from '../../scene/edit';
import { tracksOf, type Key, type Layer } from '../../scene/layer';
import { replan } from '../plan';
import type { PresetRecipe, Recipe } from '../../scene/recipe';
import { sceneSchema, type Scene } from '../../scene/scene';
import {
  anyRecipe,
  BASE,
  byHand,
  HALF,
  handEdit,
  handEditOf,
  KEY_EDITS,
  PICK,
  presetRecipe,
  settledRecipe,
  start,
  styled,
  withTrack,
  type HandEdit,
} from '../../testing/by-hand';
import { applied, edited, layerOf, SHELF } from '../../testing/planning';
import { CONTEXT } from '../../testing/scenes';
import { moveRun, removeRun, switchRun } from '.';
import { createFolding, entriesOn, unnamed } from './fold';
import { unfold } from './unfold';

interface Stage {
  readonly recipe: Partial<Recipe>;
  readonly hand: readonly HandEdit[];
}

function stagesWith(hand: fc.Arbitrary<HandEdit>, recipe: fc.Arbitrary<Partial<Recipe>>): fc.Arbitrary<Stage[]> {
  const stage = fc.record({ recipe, hand: fc.array(hand, { maxLength: 4 }) });
  return fc.array(stage, { minLength: 1, maxLength: 4 });
}

const stages = stagesWith(handEdit, anyRecipe);
/** Where only keys are changed by hand, nothing that a plan reads is. */
const stagesOfKeys = stagesWith(handEditOf(KEY_EDITS), settledRecipe);

function build(list: readonly Stage[]): Scene {
  return list.reduce((scene, { recipe, hand }) => byHand(applied(scene, recipe), hand), start);
}

/** Layers as base, runs, patches and what was done by hand since give them. */
function folded(scene: Scene): Layer[] {
  const folding = createFolding(scene, scene.runs);
  return scene.layers.map((layer) => {
    const { base, levels } = unfold(layer, entriesOn(scene.runs, layer.id), folding);
    return unnamed(levels.at(-1)?.after ?? base);
  });
}

function expectSound(scene: Scene): void {
  expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
  for (const layer of scene.layers) {
    for (const [channel, keys] of tracksOf(layer)) {
      const names = keys.flatMap(({ by }) => (by ? [`${channel} ${by.run} ${by.slot}`] : []));
      expect(new Set(names).size).toBe(names.length);
    }
  }
}

type Change =
  | { readonly type: 'remove' | 'switch' | 'again'; readonly run: number }
  | { readonly type: 'move'; readonly run: number; readonly to: number }
  | { readonly type: 'gap'; readonly run: number; readonly frames: number };

const change: fc.Arbitrary<Change> = fc.oneof(
  fc.record({ type: fc.constantFrom('remove' as const, 'switch' as const, 'again' as const), run: fc.nat(3) }),
  fc.record({ type: fc.constant('move' as const), run: fc.nat(3), to: fc.nat(3) }),
  fc.record({ type: fc.constant('gap' as const), run: fc.nat(3), frames: fc.integer({ min: 0, max: 25 }) }),
);

function withGap(recipe: Recipe, frames: number): Recipe {
  return 'spacing' in recipe ? { ...recipe, spacing: { by: 'gap', gap: `${frames}f` } } : recipe;
}

function editsOf(scene: Scene, one: Change): readonly Edit[] {
  const run = scene.runs[one.run % Math.max(1, scene.runs.length)];
  if (!run) return [];
  switch (one.type) {
    case 'remove':
      return removeRun(scene, run.id).edits;
    case 'switch':
      return switchRun(scene, run.id).edits;
    case 'move':
      return moveRun(scene, run.id, one.to % scene.runs.length).edits;
    case 'again':
      return replan(scene, SHELF, run.id, run.recipe, CONTEXT).edits;
    case 'gap':
      return replan(scene, SHELF, run.id, withGap(run.recipe, one.frames), CONTEXT).edits;
  }
}

/** A key of a run by its name, and what is done to it. */
interface Named {
  readonly kind: 'delete' | 'value' | 'ease';
  readonly layer: string;
  readonly channel: ChannelId;
  readonly name: string;
  readonly amount: number;
}

const namedStages = fc.array(
  fc.record({
    recipe: presetRecipe,
    hand: fc.array(handEditOf(['delete', 'value', 'ease']), { maxLength: 3 }),
  }),
  { minLength: 1, maxLength: 4 },
);

function nameOfKey({ by }: Key): string {
  return by ? `${by.run}/${by.slot}` : '';
}

/** The edit as one of a key's name; null where it hits a key of no run. */
function nameEdit(scene: Scene, { kind, layer, which, amount }: HandEdit): Named | null {
  const all = tracksOf(layerOf(scene, layer)).flatMap(([channel, keys]) => keys.map((one) => [channel, one] as const));
  const [channel, hit] = all[which % Math.max(1, all.length)] ?? [];
  if (!channel || !hit?.by) return null;
  // What is set to what it is was not changed by hand.
  if (kind === 'ease' && hit.ease.type === 'hold') return null;
  return { kind: kind as Named['kind'], layer, channel, name: nameOfKey(hit), amount };
}

/** A slow and plain way to do edits by name; null where a key is not there. */
function editNamed(scene: Scene, edits: readonly Named[]): Scene | null {
  let at: Scene = scene;
  for (const { kind, layer, channel, name, amount } of edits) {
    const subject = layerOf(at, layer);
    const keys = subject.tracks[channel] ?? [];
    const i = keys.findIndex((one) => nameOfKey(one) === name);
    if (i < 0) return null;
    const hand: Key = kind === 'value' ? { ...keys[i], value: amount / 16 } : { ...keys[i], ease: { type: 'hold' } };
    const next = withTrack(subject, channel, kind === 'delete' ? keys.toSpliced(i, 1) : keys.with(i, hand));
    at = { ...at, layers: at.layers.map((one) => (one.id === layer ? next : one)) };
  }
  return at;
}

function expectAlike(one: Layer, other: Layer): void {
  expect([one.span, one.rest, one.look, one.data]).toEqual([other.span, other.rest, other.look, other.data]);
  expect(Object.keys(one.tracks).sort()).toEqual(Object.keys(other.tracks).sort());
  for (const [channel, keys] of tracksOf(one)) {
    const others = other.tracks[channel] ?? [];
    expect(keys.map((each) => [each.at, nameOfKey(each), each.ease.type])).toEqual(
      others.map((each) => [each.at, nameOfKey(each), each.ease.type]),
    );
    keys.forEach(({ value }, i) => expect(value).toBeCloseTo(others[i].value, 6));
  }
}

describe('hand edits and runs', () => {
  test('base, runs and patches give what stands, whatever is done to runs and by hand', () => {
    fc.assert(
      fc.property(
        stages,
        fc.array(fc.tuple(change, fc.array(handEdit, { maxLength: 2 })), { maxLength: 5 }),
        (list, changes) => {
          let scene = build(list);
          for (const [one, hand] of changes) {
            const edits = editsOf(scene, one);
            scene = edited(scene, edits);
            expectSound(scene);
            expect(folded(scene)).toEqual(scene.layers.map(unnamed));
            scene = byHand(scene, hand);
          }
        },
      ),
      { numRuns: 120 },
    );
  });

  test('where nothing was done by hand nothing is taken for it, whatever is done to runs', () => {
    const recipes = fc.array(anyRecipe, { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(recipes, fc.array(change, { maxLength: 5 }), (list, changes) => {
        let scene = build(list.map((recipe) => ({ recipe, hand: [] })));
        for (const one of changes) scene = edited(scene, editsOf(scene, one));
        const again = scene.runs.map(({ id, recipe }) => replan(scene, SHELF, id, recipe, CONTEXT));
        expect(scene.runs.flatMap(({ patches }) => patches ?? [])).toEqual([]);
        expect(again.flatMap(({ findings }) => findings).filter(({ code }) => code === 'kept-by-hand')).toEqual([]);
      }),
      { numRuns: 120 },
    );
  });

  test('planned again without any change is no change, whatever was done by hand', () => {
    fc.assert(
      fc.property(stagesOfKeys, (list) => {
        const scene = build(list);
        for (const { id, recipe } of scene.runs) expect(replan(scene, SHELF, id, recipe, CONTEXT).edits).toEqual([]);
      }),
      { numRuns: 120 },
    );
  });

  test('switched off and on again, a run and all that was done by hand are as they were', () => {
    fc.assert(
      fc.property(stages, fc.nat(3), (list, which) => {
        const scene = build(list);
        const { id } = scene.runs[which % scene.runs.length];
        const off = edited(scene, switchRun(scene, id).edits);
        const on = edited(off, switchRun(off, id).edits);
        expect(on.layers.map(({ tracks, rest, span }) => ({ tracks, rest, span }))).toEqual(
          scene.layers.map(({ tracks, rest, span }) => ({ tracks, rest, span })),
        );
      }),
      { numRuns: 120 },
    );
  });

  test('a long sway whose layer is moved beneath it, and trimmed by hand, has its keys back when that is undone by switching', () => {
    const made = build([
      {
        recipe: {
          pick: PICK,
          operation: 'bring-in',
          preset: { id: 'rise-and-settle' },
          spacing: { by: 'gap', gap: '0f' },
          moves: 'layers',
          existing: 'take-place',
          start: { by: 'time', at: '1f' },
        },
        hand: [],
      },
      {
        recipe: {
          pick: PICK,
          operation: 'move-throughout',
          preset: { id: 'sway-in-the-wind' },
          spacing: { by: 'gap', gap: '0f' },
          moves: 'keys',
          existing: 'take-place',
          start: { by: 'layer' },
        },
        hand: [{ kind: 'trim', layer: 'a', which: 0, amount: 1 }],
      },
    ]);
    const off = edited(made, switchRun(made, made.runs[0].id).edits);
    expect(off.runs[1].earlier?.layers).toContain('a');
    expect(sceneSchema.safeParse(off).success).toBe(true);
    const on = edited(off, switchRun(off, off.runs[0].id).edits);
    expect(on.layers.map(({ tracks, span }) => ({ tracks, span }))).toEqual(
      made.layers.map(({ tracks, span }) => ({ tracks, span })),
    );
    expect(on.runs[1].earlier).toBeUndefined();
  });

  test('a changed run has exactly what a run applied that way has, with the same edits by hand', () => {
    fc.assert(
      fc.property(stagesOfKeys, fc.nat(3), fc.integer({ min: 0, max: 25 }), (list, which, frames) => {
        const scene = build(list);
        const index = which % list.length;
        const run = scene.runs[index];
        if (!run) return;
        const there = edited(scene, editsOf(scene, { type: 'gap', run: index, frames }));
        const back = edited(there, replan(there, SHELF, run.id, run.recipe, CONTEXT).edits);
        expect(back.layers.map(({ tracks, rest, span }) => ({ tracks, rest, span }))).toEqual(
          scene.layers.map(({ tracks, rest, span }) => ({ tracks, rest, span })),
        );
      }),
      { numRuns: 120 },
    );
  });

  test('a changed run gives what applying the changed runs from the start gives, with each edit by hand in its place', () => {
    let compared = 0;
    fc.assert(
      fc.property(namedStages, fc.nat(3), fc.integer({ min: 0, max: 25 }), (list, which, frames) => {
        const index = which % list.length;
        const notes: Named[][] = [];
        const scene = list.reduce((at, { recipe, hand }, i) => {
          const ran = applied(at, recipe);
          notes[i] = hand.flatMap((edit) => nameEdit(ran, edit) ?? []);
          return editNamed(ran, notes[i]) ?? ran;
        }, start);
        const run = scene.runs[index];
        if (!run) return;
        const next = withGap(run.recipe, frames);
        const changed = edited(scene, replan(scene, SHELF, run.id, next, CONTEXT).edits);
        let fresh: Scene | null = start;
        for (const [i, { recipe }] of list.entries()) {
          if (fresh) fresh = editNamed(applied(fresh, i === index ? next : recipe), notes[i]);
        }
        // A key that the changed run does not make any more has nothing to be compared with.
        if (!fresh) return;
        compared++;
        changed.layers.forEach((layer, i) => expectAlike(layer, (fresh as Scene).layers[i]));
      }),
      { numRuns: 150 },
    );
    expect(compared).toBeGreaterThan(100);
  });

  test('a key deleted by hand is the one that is gone, however far its run is moved', () => {
    const slide: Partial<PresetRecipe> = {
      preset: { id: 'rise-and-settle' },
      existing: 'add',
      start: { by: 'time', at: '10f' },
    };
    const ran = applied(start, slide);
    const keys = layerOf(ran, 'a').tracks['position.y'] as Key[];
    const gone = keys[3];
    const scene = edited(ran, [{ type: 'set-track', layer: 'a', channel: 'position.y', keys: keys.toSpliced(3, 1) }]);
    const later = { ...(ran.runs[0].recipe as PresetRecipe), start: { by: 'time' as const, at: '15f' } };
    const planned = replan(scene, SHELF, 'run-1', later, CONTEXT);
    expect(planned.findings).toContainEqual({ code: 'kept-by-hand', layers: ['a'], keys: 1 });
    const fresh = layerOf(applied(start, later), 'a').tracks['position.y'] as Key[];
    expect(layerOf(edited(scene, planned.edits), 'a').tracks['position.y']).toEqual(
      fresh.filter(({ by }) => by?.slot !== gone.by?.slot),
    );
  });

  test('a colour, a border, a cell and a rest value set by hand belong to the run that says them, wherever it is moved', () => {
    const steps = { by: 'step', lightness: -0.1, chroma: 0, hue: 0 } as const;
    const style = styled({ parts: ['fill', 'opacity'], vary: { fill: steps }, numbers: HALF });
    const data: Partial<Recipe> = {
      operation: 'pass-on',
      ...BASE,
      from: { layer: 'model' },
      what: ['data'],
      values: 'as-is',
      later: '0f',
      apart: { x: 0, y: 0 },
    };
    const runs = applied(applied(applied(start, style), data), { preset: { id: 'rise-and-settle' } });
    const border = { colour: '#123456', side: 'outside' } as const;
    const scene = {
      ...runs,
      layers: runs.layers.map((layer) =>
        layer.id === 'b'
          ? {
              ...layer,
              look: { ...layer.look, fill: '#abcdef', border },
              rest: { ...layer.rest, opacity: 0.3 },
              data: { ...layer.data, team: 'red' },
            }
          : layer,
      ),
    };
    const parts = (of: Scene) => {
      const { look, rest, data: cells } = layerOf(of, 'b');
      return [look.fill, look.border, rest.opacity, cells['team']];
    };
    const set = ['#abcdef', border, 0.3, 'red'];
    for (const run of ['run-1', 'run-2']) expect(parts(edited(scene, moveRun(scene, run, 2).edits))).toEqual(set);
    // Nobody's run has a border: it belongs to the layer itself.
    const moved = edited(scene, moveRun(scene, 'run-1', 2).edits);
    const patches = moved.runs.map(({ id, patches: own }) => [
      id,
      own?.map(({ look, data: cells, rest }) => [look, cells, rest]),
    ]);
    expect(patches).toEqual([
      ['run-2', [[undefined, { team: 'red' }, undefined]]],
      ['run-3', undefined],
      ['run-1', [[{ fill: '#abcdef' }, undefined, { opacity: 0.3 }]]],
    ]);
    // Without the run, what was set over it stays.
    expect(parts(edited(moved, removeRun(moved, 'run-1').edits))).toEqual(set);
  });

  test('a value set by hand stays where the run beneath it said what stood there already', () => {
    const say = (value: number) => styled({ parts: ['opacity'], numbers: { opacity: { by: 'fixed', value } } });
    // The layer c is at 60 % of itself.
    const scene = applied(start, say(0.6));
    const layers = scene.layers.map((layer) =>
      layer.id === 'c' ? { ...layer, rest: { ...layer.rest, opacity: 0.3 } } : layer,
    );
    const other = { ...scene.runs[0].recipe, ...say(0.9) } as Recipe;
    const next = replan({ ...scene, layers }, SHELF, 'run-1', other, CONTEXT);
    const changed = edited({ ...scene, layers }, next.edits);
    expect(['b', 'c'].map((id) => layerOf(changed, id).rest.opacity)).toEqual([0.9, 0.3]);
    expect(layerOf(edited(changed, removeRun(changed, 'run-1').edits), 'c').rest.opacity).toBe(0.3);
  });

  test('keys of a channel that were all deleted by hand over a run which clears others stay deleted', () => {
    const ran = applied(start, { operation: 'clear', ...BASE, channels: ['opacity'] } as Partial<Recipe>);
    const scene = edited(ran, [{ type: 'set-track', layer: 'b', channel: 'scale.x', keys: null }]);
    const again = replan(scene, SHELF, 'run-1', scene.runs[0].recipe, CONTEXT);
    expect(layerOf(edited(scene, again.edits), 'b').tracks['scale.x']).toBeUndefined();
  });
});
