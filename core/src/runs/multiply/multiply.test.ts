import { describe, expect, test } from '@jest/globals';
import { codesOf, edited, layerOf, SHELF } from '../../testing/planning';
import { card, CONTEXT, inFrames, key, sceneOf } from '../../testing/scenes';
import { createMultiply, createStyle, exchanged, type MultiplyRecipe } from '../../scene/recipe';
import { sceneSchema, type Scene } from '../../scene/scene';
import type { Layer } from '../../scene/layer';
import { severityOf } from '../finding';
import { createShelf, type PresetItem, type Shelf } from '../../library/library';
import { STARTER_LIBRARY, STARTER_RECIPES } from '../../library/starter';
import { waitingUpdate } from '../check';
import { sentenceOf } from '../operations';
import { dryRun, plan, recipeOfRun, replan } from '../plan';
import { removeRun, switchRun } from '../stack';
import { layersOfCopies } from '.';

const scene = sceneOf([
  card('star', { tags: ['shape'], rest: { 'position.x': 500, 'position.y': 250, 'size.x': 20, 'size.y': 20 } }),
  card('moon', { tags: ['shape'], source: { type: 'ellipse' }, look: { fill: '#ffeecc' } }),
  card('ground'),
]);
const SHAPES = { by: 'rule', tag: 'shape' } as const;

function multiply(more: Partial<MultiplyRecipe> = {}): MultiplyRecipe {
  return { ...createMultiply(SHAPES), ...more };
}

function applied(recipe: MultiplyRecipe, on: Scene = scene): Scene {
  const planned = plan(on, SHELF, recipe, CONTEXT);
  const after = edited(on, planned.edits);
  const checked = sceneSchema.safeParse(after);
  expect(checked.error?.issues ?? []).toEqual([]);
  return after;
}

const copiesIn = ({ layers }: Scene): Layer[] => layers.filter(({ parent }) => parent === 'run-1-all');
const framesIn = (on: Scene): [number, number][] =>
  copiesIn(on).map(({ span }) => [inFrames(span.in), inFrames(span.out)]);
const pathOf = (layer: Layer, channel: 'position.x' | 'position.y'): number[] =>
  layer.tracks[channel]?.map(({ value }) => value) ?? [layer.rest[channel] ?? NaN];

describe('copies', () => {
  test('that would be more layers than a scene may have are refused, counted with what is in groups', () => {
    const group = sceneOf([
      card('board', { kind: 'group', source: { type: 'none' }, look: {}, tags: ['shape'] }),
      card('one', { parent: 'board' }),
      card('two', { parent: 'board' }),
      card('alone', { tags: ['shape'] }),
    ]);
    const many = plan(group, SHELF, multiply({ copies: 4_000 }), CONTEXT);
    expect(many.findings).toEqual([{ code: 'too-many-copies', count: 12_000, most: 10_000 }]);
    expect(many.edits).toEqual([]);
    expect(codesOf(plan(group, SHELF, multiply({ copies: 3_000 }), CONTEXT))).not.toContain('too-many-copies');
  });

  test('of a layer in a group begin where it stands in the frame, wherever the group is in the list', () => {
    const placed = (x: number, y: number, width: number, height: number) => ({
      'position.x': x,
      'position.y': y,
      'size.x': width,
      'size.y': height,
    });
    const inside = sceneOf([
      card('board', { kind: 'group', source: { type: 'none' }, look: {}, rest: placed(300, 100, 400, 200) }),
      card('dot', { parent: 'board', tags: ['shape'], rest: placed(50, 20, 20, 20) }),
    ]);
    const { layers } = inside;
    // The group's box goes from 100, 0: the dot is at 150, 20 of the frame.
    for (const on of [inside, { ...inside, layers: [...layers].reverse() }]) {
      const [copy] = copiesIn(applied(multiply({ copies: 2, begin: { by: 'own' } }), on));
      expect(copy.rest).toMatchObject({ 'position.x': 150, 'position.y': 20 });
    }
  });

  test('are layers in a group, by turns of the layers that are multiplied, all within the window', () => {
    const after = applied(multiply({ copies: 10, life: { by: 'fixed', length: '30f' } }));
    const copies = copiesIn(after);
    expect(copies.map(({ name }) => name).slice(0, 3)).toEqual(['star 1', 'moon 2', 'star 3']);
    // 10 shapes in 2 s (50 frames here), 30 frames each: the first begins with the window and the last ends with it (DESIGN).
    const frames = framesIn(after);
    expect(frames.every(([from, to]) => to - from === 30)).toBe(true);
    expect([frames[0][0], frames[9][1]]).toEqual([0, 50]);
    expect(frames.map(([from]) => from)).toEqual([0, 2, 4, 7, 9, 11, 13, 16, 18, 20]);
    expect(copies.every(({ rest }) => (rest['position.x'] ?? -1) >= 0 && (rest['position.x'] ?? 1e4) <= 1000)).toBe(
      true,
    );
    expect(after.layers.slice(0, 3)).toEqual(scene.layers);
    expect(after.runs[0].layers).toHaveLength(10);
  });

  test.each([
    [7, '1s', 25],
    [100, '10f', 50],
    [3, '1f', 2],
    [2, '1f', 1],
  ])('%i of %s in %i frames: each lives so long, none beyond the window', (count, length, frames) => {
    const after = applied(
      multiply({ copies: count, life: { by: 'fixed', length }, to: { by: 'time', at: `${frames}f` } }),
    );
    const lives = framesIn(after);
    expect(lives).toHaveLength(count);
    expect(Math.min(...lives.map(([from]) => from))).toBe(0);
    expect(Math.max(...lives.map(([, to]) => to))).toBe(frames);
  });

  test('a life of no frame, a window of none, and a life that is longer than it are refused with what to do', () => {
    const problem = (more: Partial<MultiplyRecipe>): string => {
      const [finding] = plan(scene, SHELF, multiply(more), CONTEXT).findings;
      return 'message' in finding ? finding.message : finding.code;
    };
    expect(problem({ to: { by: 'time', at: '0f' } })).toMatch(/at least one frame/);
    expect(problem({ life: { by: 'fixed', length: '0f' } })).toMatch(/at least one frame/);
    // Of two lengths the one is named that is too short.
    const named = (least: string, most: string) => {
      const [finding] = plan(scene, SHELF, multiply({ life: { by: 'random', least, most } }), CONTEXT).findings;
      return finding.code === 'bad-field' ? finding.text : finding.code;
    };
    expect([named('0f', '10f'), named('1f', '0f'), named('10f', '0f')]).toEqual(['0f', '0f', '0f']);
    expect(named('0.2f', '0.4f')).toBe('0.2f');
    // And the one that is too long for a stretch of 50 frames; as long as that fits.
    expect([named('10f', '60f'), named('60f', '10f'), named('51f', '60f')]).toEqual(['60f', '60f', '51f']);
    expect(
      codesOf(plan(scene, SHELF, multiply({ life: { by: 'random', least: '10f', most: '50f' } }), CONTEXT)),
    ).toEqual([]);
    expect(problem({ life: { by: 'fixed', length: '3s' } })).toMatch(/only 50 frames long/);
    expect(problem({ to: { by: 'cue', cue: 'Beat' } })).toMatch(/no cues/);
    expect(codesOf(plan(scene, SHELF, multiply({ pick: { by: 'rule', tag: 'none' } }), CONTEXT))).toContain(
      'nothing-picked',
    );
    expect(problem({ in: { presets: [{ id: 'ghost', weight: 1 }], length: '5f' } })).toBe('unknown-preset');
  });

  test('left to right and back: beginning and end are exchanged in one step', () => {
    const half = { by: 'spread', shape: 'box', y: 0.5, width: 0.5, height: 1 } as const;
    const recipe = multiply({ copies: 30, begin: { ...half, x: 0.25 }, end: { ...half, x: 0.75 } });
    for (const [one, isBack] of [
      [recipe, false],
      [exchanged(recipe), true],
    ] as const) {
      for (const copy of copiesIn(applied(one))) {
        const [from, to] = pathOf(copy, 'position.x');
        expect(from < 500).toBe(!isBack);
        expect(to < 500).toBe(isBack);
      }
    }
    expect(exchanged(exchanged(recipe))).toEqual(recipe);
    // Where a copy stays, it still does; size, turn and opacity are exchanged, what brings it in and out is not.
    const presets = (id: string) => ({ presets: [{ id, weight: 1 }], length: '5f' });
    const [scale, turn, opacity] = [
      [0, 1],
      [10, 20],
      [0.5, 1],
    ].map(([a, b]) => ({ begin: [a, a], end: [b, b] }) as MultiplyRecipe['scale']);
    const still = multiply({ end: { by: 'stays' }, scale, turn, opacity, in: presets('a'), out: presets('b') });
    expect(exchanged(still)).toEqual({
      ...still,
      scale: { begin: scale.end, end: scale.begin },
      turn: { begin: turn.end, end: turn.begin },
      opacity: { begin: opacity.end, end: opacity.begin },
    });
    expect(exchanged(recipe)).not.toHaveProperty('in');
  });

  test('size, turn and opacity go from one range to another; a channel that stays has no keys', () => {
    const after = applied(
      multiply({
        copies: 40,
        scale: { begin: [0, 0], end: [0.5, 2] },
        turn: { begin: [-90, 90], end: [-90, 90] },
        opacity: { begin: [1, 1], end: [0, 0] },
      }),
    );
    for (const { tracks, rest } of copiesIn(after)) {
      expect(tracks['scale.x']?.map(({ value }) => value)).toEqual([0, rest['scale.x']]);
      expect(rest['scale.x']).toBe(rest['scale.y']);
      expect(rest['scale.x']).toBeGreaterThanOrEqual(0.5);
      expect(rest['scale.x']).toBeLessThanOrEqual(2);
      expect([tracks.rotation, tracks['position.x']]).toEqual([undefined, undefined]);
      expect(tracks.opacity?.map(({ value }) => value)).toEqual([1, 0]);
    }
  });

  test('keep the presets that they were made with until they are asked for the newest ones', () => {
    const fade = SHELF.items.get('fade-in') as PresetItem;
    const row = fade.body.rows[0];
    const brighter: PresetItem = {
      ...fade,
      revision: fade.revision + 1,
      body: {
        ...fade.body,
        rows: [{ ...row, cells: row.cells.map((cell, i) => (i === 0 ? { ...cell, value: '40%' } : cell)) }],
      },
    };
    const newer = createShelf(STARTER_LIBRARY.map((item) => (item.id === fade.id ? brighter : item)));
    const gone = createShelf(STARTER_LIBRARY.filter(({ id }) => id !== fade.id));
    const first = applied(multiply({ copies: 4, in: { presets: [{ id: 'fade-in', weight: 1 }], length: '5f' } }));
    const [run] = first.runs;
    expect(run.uses?.find(({ id }) => id === 'fade-in')).toMatchObject({ kind: 'preset', revision: fade.revision });
    const begins = (on: Scene): unknown[] => copiesIn(on).map(({ tracks }) => tracks.opacity?.[0].value);
    const changed = (shelf: Shelf, revision: 'used' | 'newest'): Scene => {
      const recipe = { ...(recipeOfRun(run, revision) as MultiplyRecipe), copies: 6 };
      return edited(first, replan(first, shelf, run.id, recipe, CONTEXT).edits);
    };
    expect(begins(changed(newer, 'used'))).toEqual(Array(6).fill(0));
    expect(begins(changed(gone, 'used'))).toEqual(Array(6).fill(0));
    expect(begins(changed(newer, 'newest'))).toEqual(Array(6).fill(0.4));
    expect(waitingUpdate(run, newer)).toEqual({ from: fade.revision, to: fade.revision + 1 });
    expect(waitingUpdate(run, SHELF)).toBeNull();
    // A revision that is nowhere is told.
    const nowhere = multiply({ in: { presets: [{ id: 'fade-in', revision: 9, weight: 1 }], length: '5f' } });
    expect(codesOf(plan(scene, SHELF, nowhere, CONTEXT))).toEqual(['revision-missing']);
  });

  test('are brought in and sent out by presets of the library, by chance, on top of their ways', () => {
    const presets = [
      { id: 'fade-in', weight: 1 },
      { id: 'rise-and-settle', weight: 3 },
    ];
    const after = applied(
      multiply({
        copies: 40,
        in: { presets, length: '8f' },
        out: { presets: [{ id: 'fade-out', weight: 1 }], length: '5f' },
      }),
    );
    const slots = copiesIn(after).map(({ tracks }) =>
      Object.values(tracks).flatMap((keys) => keys.map(({ by }) => by?.slot ?? '')),
    );
    expect(
      slots.every((own) => own.some((slot) => slot.startsWith('in/')) && own.some((slot) => slot.startsWith('out/'))),
    ).toBe(true);
    const risen = copiesIn(after).filter(({ tracks }) => tracks['position.y'] !== undefined).length;
    expect(risen).toBeGreaterThan(20);
    expect(risen).toBeLessThan(40);
    expect(
      codesOf(
        plan(scene, SHELF, multiply({ life: { by: 'fixed', length: '6f' }, in: { presets, length: '8f' } }), CONTEXT),
      ),
    ).toContain('short-for-both');
  });

  test('that cannot be brought in or sent out as asked are refused, and nothing is made', () => {
    const one = (id: string, length = '8f') => ({ presets: [{ id, weight: 1 }], length });
    const told = (more: Partial<MultiplyRecipe>) => {
      const planned = plan(scene, SHELF, multiply(more), CONTEXT);
      expect(planned.edits).toEqual([]);
      return planned.findings.filter((finding) => severityOf(finding) === 'error');
    };
    expect(told({ in: one('lost') })).toMatchObject([{ code: 'unknown-preset', id: 'lost' }]);
    expect(told({ out: one('lost') })).toMatchObject([{ code: 'unknown-preset', id: 'lost' }]);
    expect(told({ in: one('lost'), out: one('gone') })).toMatchObject([{ code: 'unknown-preset', id: 'lost' }]);
    expect(told({ in: one('fade-in', '100000000s') })).toMatchObject([{ code: 'bad-field', field: 'In' }]);
    expect(told({ out: one('fade-out', '100000000s') })).toMatchObject([{ code: 'bad-field', field: 'Out' }]);
    const none = plan(
      scene,
      SHELF,
      multiply({
        copies: 1,
        in: {
          presets: [
            { id: 'fade-in', weight: 1 },
            { id: 'lost', weight: 0 },
          ],
          length: '8f',
        },
      }),
      CONTEXT,
    );
    expect(none.edits.length).toBeGreaterThan(0);
  });

  test('a dry run shows the copies as they will be, and those that go', () => {
    const recipe = multiply({ copies: 3 });
    const shown = dryRun(scene, SHELF, recipe, CONTEXT);
    const after = applied(recipe);
    expect(shown.added?.filter(({ parent }) => parent === 'run-1-all').map(({ id, tracks }) => [id, tracks])).toEqual(
      copiesIn(after).map(({ id, tracks }) => [id, tracks]),
    );
    expect(shown).not.toHaveProperty('removed');
    const fewer = replan(after, SHELF, 'run-1', multiply({ copies: 1 }), CONTEXT);
    expect(copiesIn(edited(after, fewer.edits))).toHaveLength(1);
    expect(dryRun(scene, SHELF, createStyle(SHAPES), CONTEXT)).not.toHaveProperty('added');
  });

  test('what is only drawn as an outline keeps to it in its colours', () => {
    const colours = { colours: [{ colour: '#ff0000', weight: 1 }], how: 'turns' as const, outlined: 0 };
    const kinds = [{ fill: '#ffffff' }, { stroke: '#ffffff' }, { fill: '#ffffff', stroke: '#000000' }].map((look, i) =>
      card(`kind-${i}`, { tags: ['shape'], look }),
    );
    const recipe = multiply({ copies: 3, colours, sources: 'turns' });
    const { edits } = plan(sceneOf(kinds), SHELF, recipe, CONTEXT);
    const looks = copiesIn(edited(sceneOf(kinds), edits)).map(({ look }) => [look.fill, look.stroke]);
    expect(looks).toEqual([
      ['#ff0000', undefined],
      [undefined, '#ff0000'],
      ['#ff0000', '#000000'],
    ]);
  });

  test('what is in a group that is multiplied too is copied with that, once, with its keys as keys by hand', () => {
    const way = { 'position.x': [{ ...key(10, 5), by: { run: 'other', slot: 's' } }, key(20, 40)] };
    const nested = sceneOf([
      card('board', {
        kind: 'group',
        source: { type: 'none' },
        look: {},
        tags: ['shape'],
        rest: { 'position.x': 100 },
      }),
      card('inner', { kind: 'group', source: { type: 'none' }, look: {}, parent: 'board' }),
      card('leaf', { tags: ['shape'], parent: 'inner', tracks: way }),
    ]);
    const recipe = multiply({ copies: 2 });
    const after = edited(nested, plan(nested, SHELF, recipe, CONTEXT).edits);
    expect(sceneSchema.safeParse(after).error?.issues ?? []).toEqual([]);
    const copies = copiesIn(after);
    expect(copies.map(({ kind }) => kind)).toEqual(['group', 'group']);
    const leaves = after.layers.filter(({ name, id }) => name.startsWith('leaf') && id !== 'leaf');
    expect(leaves).toHaveLength(2);
    leaves.forEach((leaf, i) => {
      const by = copies[i].span.in - nested.layers[0].span.in;
      expect(leaf.tracks['position.x']).toEqual(
        way['position.x'].map(({ at, value, ease }) => ({ at: at + by, value, ease })),
      );
    });
  });

  test('words and pictures are filled, though all shapes become outlines', () => {
    const colours = { colours: [{ colour: '#ff0000', weight: 1 }], how: 'turns' as const, outlined: 1 };
    const font = { font: 'Spline Sans', weight: 400, size: 20, align: 'left' } as const;
    const mixed = sceneOf([
      card('shape', { tags: ['shape'] }),
      card('words', { tags: ['shape'], source: { type: 'text', text: 'Tide', ...font } }),
      card('picture', { tags: ['shape'], source: { type: 'picture', href: 'data:image/png;base64,AA' } }),
    ]);
    const { edits } = plan(mixed, SHELF, multiply({ copies: 3, colours, sources: 'turns' }), CONTEXT);
    expect(copiesIn(edited(mixed, edits)).map(({ look }) => [look.fill, look.stroke])).toEqual([
      [undefined, '#ff0000'],
      ['#ff0000', undefined],
      ['#ff0000', undefined],
    ]);
  });

  test('colours by weight, some as outlines', () => {
    const colours = {
      colours: [
        { colour: '#ff0000', weight: 3 },
        { colour: '#0000ff', weight: 1 },
      ],
      how: 'random',
      outlined: 0.5,
    } as const;
    const after = applied(multiply({ copies: 400, colours: { ...colours, colours: [...colours.colours] } }));
    const looks = copiesIn(after).map(({ look }) => look);
    const red = looks.filter(({ fill, stroke }) => (fill ?? stroke) === '#ff0000').length;
    expect(red).toBeGreaterThan(260);
    expect(red).toBeLessThan(340);
    const outlined = looks.filter(({ fill }) => fill === undefined).length;
    expect(outlined).toBeGreaterThan(150);
    expect(outlined).toBeLessThan(250);
  });

  test('a group is copied with all that is in it', () => {
    const grouped = sceneOf([
      card('g', { kind: 'group', tags: ['shape'], source: { type: 'none' }, look: {} }),
      card('inside', { parent: 'g' }),
    ]);
    const after = applied(multiply({ copies: 3 }), grouped);
    expect(after.layers).toHaveLength(2 + 1 + 3 * 2);
    expect(layerOf(after, 'run-1-c2-1').parent).toBe('run-1-c2');
  });
});

describe('a run of copies', () => {
  const first = applied(multiply({ copies: 12 }));
  const restyled = edited(first, [
    { type: 'set-layer', layer: 'run-1-c3', fields: { look: { fill: '#123456' }, name: 'My own' } },
  ]);

  test('is changed: copies that stay keep who they are and what was done by hand, others come and go', () => {
    const more = edited(restyled, replan(restyled, SHELF, 'run-1', multiply({ copies: 20, seed: 5 }), CONTEXT).edits);
    expect(sceneSchema.safeParse(more).success).toBe(true);
    expect(copiesIn(more)).toHaveLength(20);
    expect(layerOf(more, 'run-1-c3')).toMatchObject({ name: 'My own', look: { fill: '#123456' } });
    expect(layerOf(more, 'run-1-c3').rest['position.x']).not.toBe(layerOf(first, 'run-1-c3').rest['position.x']);
    const fewer = edited(more, replan(more, SHELF, 'run-1', multiply({ copies: 5, seed: 5 }), CONTEXT).edits);
    expect(copiesIn(fewer).map(({ id }) => id)).toEqual([1, 2, 3, 4, 5].map((n) => `run-1-c${n}`));
    expect(replan(fewer, SHELF, 'run-1', multiply({ copies: 5, seed: 5 }), CONTEXT).edits).toEqual([]);
  });

  test('a later run on the copies goes on when it is changed, and does not multiply them again', () => {
    const style = {
      ...createStyle({ by: 'group', group: 'run-1-all' }),
      vary: { fill: { by: 'colours' as const, colours: ['#00ff00'], how: 'turns' as const } },
    };
    const styled = edited(first, plan(first, SHELF, style, { ...CONTEXT, runId: 'run-2' }).edits);
    const byKind = multiply({ pick: { by: 'rule', kind: 'card' }, copies: 6 });
    const changed = edited(styled, replan(styled, SHELF, 'run-1', byKind, CONTEXT).edits);
    expect(copiesIn(changed)).toHaveLength(6);
    expect(
      copiesIn(changed)
        .slice(0, 2)
        .map(({ look }) => look.fill),
    ).toEqual(['#00ff00', '#00ff00']);
  });

  test('is switched off and on again, and removed without a trace', () => {
    const off = edited(restyled, switchRun(restyled, 'run-1').edits);
    expect(layerOf(off, 'run-1-all').hidden).toBe(true);
    const on = edited(off, switchRun(off, 'run-1').edits);
    expect(on.layers).toEqual(restyled.layers);
    // The group goes last, as only an empty one can.
    const { layers } = restyled;
    const isGroup = ({ id }: Layer): boolean => id === 'run-1-all';
    const inFront = { ...restyled, layers: [...layers.filter((one) => !isGroup(one)), ...layers.filter(isGroup)] };
    for (const on of [restyled, inFront]) expect(layersOfCopies(on, on.runs[0]).at(-1)).toBe('run-1-all');
    expect(edited(restyled, removeRun(restyled, 'run-1').edits).layers).toEqual(scene.layers);
    const kept = edited(first, [{ type: 'add-layer', index: 3, layer: card('own', { parent: 'run-1-all' }) }]);
    expect(edited(kept, removeRun(kept, 'run-1').edits).layers.map(({ id }) => id)).toEqual([
      'star',
      'moon',
      'ground',
      'own',
      'run-1-all',
    ]);
  });

  test('the sentence reads', () => {
    const recipe = multiply({ copies: 60, in: { presets: [{ id: 'fade-in', weight: 1 }], length: '5f' } });
    expect(sentenceOf(recipe, { scene, shelf: SHELF, count: 2 })).toBe(
      'Multiply the layers tagged “shape” into 60 copies between 0:00 and 2 s, each living 1 s, from a spread over the whole frame to where they began, at their own size, in by Fade in, seed 1.',
    );
  });
});

test.each(STARTER_RECIPES.map((item) => [item.name, item.body] as const))(
  'the recipe %s of the starter library makes a scene that can be held',
  (_name, recipe) => {
    const sky = sceneOf([card('sky', { locked: true }), card('star', { look: { fill: '#ffffff' } }), card('moon')]);
    const wide = { ...sky, width: 1_920, height: 1_080 };
    const planned = plan(wide, SHELF, recipe, CONTEXT);
    expect(planned.findings.filter((finding) => severityOf(finding) === 'error')).toEqual([]);
    const after = edited(wide, planned.edits);
    expect(sceneSchema.safeParse(after).error?.issues ?? []).toEqual([]);
    expect(planned.layers.length).toBeGreaterThan(0);
  },
);
