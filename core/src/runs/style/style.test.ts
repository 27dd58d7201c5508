import { describe, expect, test } from '@jest/globals';
import { oklabFromCss } from '../../basics/colour';
import { codesOf, edited, layerOf } from '../../testing/planning';
import { card, CONTEXT, sceneOf } from '../../testing/scenes';
import { createShelf, lookOfLayer, type LibraryItem, type Shelf } from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import { createStyle, type StyleRecipe } from '../../scene/recipe';
import { sceneSchema, type Scene } from '../../scene/scene';
import { sentenceOf, withFollowers } from '../operations';
import { mendsOf, waitingUpdate } from '../check';
import { describeFinding } from '../finding';
import { plan, recipeOfRun, replan } from '../plan';
import { removeRun, switchRun } from '../stack';
import { PARTS } from './parts';
import { styleFollows } from './style';

const shelf = createShelf([]);
const at = (x: number) => ({ 'position.x': x, 'position.y': 100, 'size.x': 100, 'size.y': 50 });

const scene = sceneOf([
  card('a', { rest: at(100), look: { fill: '#58a07c', border: { colour: '#ffffff', side: 'inside' } } }),
  card('b', { rest: at(300), look: { fill: '#112233' } }),
  card('c', { rest: at(500), look: { fill: '#445566', stroke: '#ff0000' }, data: { team: 'rgb(255 0 0)' } }),
]);
const framed: Scene = {
  ...scene,
  layers: scene.layers.map((layer) =>
    layer.id === 'a' ? { ...layer, rest: { ...layer.rest, 'border.width': 6, corner: 12 } } : layer,
  ),
};

function style(more: Partial<StyleRecipe> = {}): StyleRecipe {
  return { ...createStyle({ by: 'rule', kind: 'card' }), order: { by: 'across' }, ...more };
}

function applied(on: Scene, recipe: StyleRecipe): Scene {
  const planned = plan(on, shelf, recipe, CONTEXT);
  const after = edited(on, planned.edits);
  expect(sceneSchema.safeParse(after).success).toBe(true);
  return after;
}

const fills = ({ layers }: Scene): unknown[] => layers.map(({ look }) => look.fill);
const like = { by: 'layer', layer: 'a' } as const;
const darker = { fill: { by: 'step', lightness: -0.1, chroma: 0, hue: 0 } } as const;

describe('styling', () => {
  test('layers that share one place differ in nothing that goes along the order, which is told', () => {
    const told = (more: Partial<StyleRecipe>) =>
      plan(scene, shelf, style({ order: { by: 'down' }, ...more }), CONTEXT).findings.map(({ code }) => code);
    expect(told({ vary: darker })).toContain('one-place');
    expect(told({ vary: {}, numbers: { 'border.width': { by: 'ramp', from: 1, to: 9 } }, parts: ['border'] })).toEqual([
      'one-place',
    ]);
    expect(told({ vary: { fill: { by: 'data', column: 'team' } } })).not.toContain('one-place');
    expect(told({ vary: darker, order: { by: 'across' } })).not.toContain('one-place');
    expect(told({ vary: darker, parts: ['border'], from: like })).not.toContain('one-place');
  });

  test('a step from a colour that a layer does not have changes nothing, which is told', () => {
    const picture = card('p', {
      rest: at(700),
      kind: 'picture',
      source: { type: 'picture', href: 'data:image/png;base64,AA' },
      look: {},
    });
    const mixed: Scene = { ...scene, layers: [...scene.layers, picture] };
    const both = style({ pick: { by: 'layers', layers: ['a', 'p'] }, vary: darker });
    const { findings, edits } = plan(mixed, shelf, both, CONTEXT);
    const found = findings.find(({ code }) => code === 'no-part');
    expect(found).toEqual({ code: 'no-part', part: 'fill', layers: ['p'] });
    expect(found && describeFinding(found, mixed)).toMatch(/^“p” has no fill whose colour could go on step by step/);
    expect(layerOf(edited(mixed, edits), 'p').look.fill).toBeUndefined();
    const listed: StyleRecipe['vary'] = { fill: { by: 'colours', colours: ['#112233'], how: 'turns' } };
    expect(codesOf(plan(mixed, shelf, { ...both, vary: listed }, CONTEXT))).not.toContain('no-part');
  });

  test('three panels a step darker each, from the first one', () => {
    const after = applied(scene, style({ from: like, parts: ['fill'], vary: darker }));
    const lightness = fills(after).map((fill) => oklabFromCss(String(fill))?.l ?? 0);
    expect(lightness[0] - lightness[1]).toBeCloseTo(0.1, 2);
    expect(lightness[1] - lightness[2]).toBeCloseTo(0.1, 2);
    expect(after.layers[0]).toBe(scene.layers[0]);
    expect(after.runs[0].sentence).toBe('Style 2 cards, left to right, like “a”, in fill, fill each 10 % darker.');
  });

  test('a border with its width and the corners are taken over, and what the source does not have goes', () => {
    const after = applied(framed, style({ from: like, parts: ['border', 'corner', 'stroke'], vary: {} }));
    for (const id of ['b', 'c']) {
      const { look, rest } = layerOf(after, id);
      expect([look.border, rest['border.width'], rest.corner, look.stroke]).toEqual([
        { colour: '#ffffff', side: 'inside' },
        6,
        12,
        undefined,
      ]);
    }
    expect(fills(after)).toEqual(fills(framed));
  });

  test('colours by turns, at random by seed, as a ramp, and from data', () => {
    const colours = ['#ff0000', '#00ff00', '#0000ff'];
    const by = (how: 'turns' | 'random' | 'ramp', seed = 1): unknown[] =>
      fills(applied(scene, style({ seed, vary: { fill: { by: 'colours', colours, how } } })));
    expect(by('turns')).toEqual(colours);
    expect(by('ramp')).toEqual(colours);
    expect(by('random', 3)).toEqual(by('random', 3));
    expect(new Set([1, 2, 3, 4, 5, 6].map((seed) => String(by('random', seed)))).size).toBeGreaterThan(2);
    const data = plan(scene, shelf, style({ vary: { fill: { by: 'data', column: 'team' } } }), CONTEXT);
    expect(codesOf(data)).toContain('no-colour');
    expect(data.findings).toContainEqual({ code: 'no-colour', column: 'team', layers: ['a', 'b'] });
    expect(fills(edited(scene, data.edits))).toEqual(['#58a07c', '#112233', 'rgb(255 0 0)']);
    const all = { ...scene, layers: scene.layers.map((layer) => ({ ...layer, data: { team: 'teal' } })) };
    expect(codesOf(plan(all, shelf, style({ vary: { fill: { by: 'data', column: 'team' } } }), CONTEXT))).toEqual([]);
  });

  test('a run of it is changed, switched off and removed; what was set by hand over it stays, part by part', () => {
    const first = applied(framed, style({ from: like, parts: ['fill', 'border'], vary: darker }));
    const hand = edited(first, [
      { type: 'set-layer', layer: 'b', fields: { look: { ...layerOf(first, 'b').look, fill: '#abcdef' } } },
    ]);
    const recipe = style({
      from: like,
      parts: ['fill', 'border'],
      vary: { ...darker, border: { by: 'colours', colours: ['#0000ff'], how: 'turns' } },
    });
    const changed = edited(hand, replan(hand, shelf, CONTEXT.runId, recipe, CONTEXT).edits);
    expect(layerOf(changed, 'b').look).toMatchObject({
      fill: '#abcdef',
      border: { colour: '#0000ff', side: 'inside' },
    });
    expect(layerOf(changed, 'c').look.fill).toBe(layerOf(first, 'c').look.fill);
    const off = edited(changed, switchRun(changed, CONTEXT.runId).edits);
    expect(layerOf(off, 'c').look).toEqual(layerOf(framed, 'c').look);
    expect(layerOf(off, 'b').look.fill).toBe('#abcdef');
    const on = edited(off, switchRun(off, CONTEXT.runId).edits);
    expect(on.layers).toEqual(changed.layers);
    const removed = edited(changed, removeRun(changed, CONTEXT.runId).edits);
    expect(layerOf(removed, 'c')).toEqual(layerOf(framed, 'c'));
    expect(layerOf(removed, 'b').look).toEqual({ ...layerOf(framed, 'b').look, fill: '#abcdef' });
  });

  test('linked, the others follow when the first is changed, in the same step', () => {
    const linked = style({ from: { ...like, isLinked: true }, parts: ['border'], vary: {} });
    const first = applied(framed, linked);
    const { look, rest } = layerOf(first, 'a');
    const edits = withFollowers(
      first,
      [
        {
          type: 'set-layer',
          layer: 'a',
          fields: {
            look: { ...look, border: { colour: '#00ffff', side: 'on' } },
            rest: { ...rest, 'border.width': 9 },
          },
        },
      ],
      shelf,
      CONTEXT,
      (on, _shelf, run, context) => replan(on, shelf, run.id, run.recipe, context).edits,
    );
    const after = edited(first, edits);
    for (const id of ['a', 'b', 'c']) {
      expect(layerOf(after, id).look.border).toEqual({ colour: '#00ffff', side: 'on' });
      expect(layerOf(after, id).rest['border.width']).toBe(9);
    }
    const other = [{ type: 'set-layer', layer: 'b', fields: { look: {} } }] as const;
    expect(withFollowers(first, [...other], shelf, CONTEXT, () => [])).toHaveLength(1);
  });

  test('a revision that neither the run nor the library has is told, and the newest one is a step away', () => {
    const full = createShelf(STARTER_LIBRARY);
    const look = STARTER_LIBRARY.find(({ kind }) => kind === 'look') as LibraryItem;
    const recipe = style({ from: { by: 'look', id: look.id, revision: 7 }, parts: ['fill', 'border'], vary: {} });
    const planned = plan(scene, full, recipe, CONTEXT);
    expect(planned.findings).toEqual([{ code: 'revision-missing', preset: look.name, revision: 7 }]);
    expect(planned.edits).toEqual([]);
    const [mend] = mendsOf(planned.findings[0], recipe, scene, scene);
    expect('recipe' in mend ? mend.recipe : null).toEqual(
      style({ from: { by: 'look', id: look.id }, parts: ['fill', 'border'], vary: {} }),
    );
    expect(
      plan(scene, full, style({ from: { by: 'look', id: look.id, revision: look.revision }, vary: {} }), CONTEXT)
        .findings,
    ).toEqual([]);
  });

  test('numbers of the parts differ: by a step, as a ramp, at random by the seed, from data, within what can be drawn', () => {
    const widths = (numbers: StyleRecipe['numbers'], seed = 1): unknown[] =>
      applied(framed, style({ from: like, parts: ['border', 'shadow'], vary: {}, numbers, seed })).layers.map(
        ({ rest }) => rest['border.width'],
      );
    expect(widths({ 'border.width': { by: 'step', step: 2 } })).toEqual([6, 8, 10]);
    expect(widths({ 'border.width': { by: 'step', step: -5 } })).toEqual([6, 1, 0]);
    expect(widths({ 'border.width': { by: 'ramp', from: 0, to: 20 } })).toEqual([6, 10, 20]);
    expect(widths({ 'border.width': { by: 'fixed', value: 3 } })).toEqual([6, 3, 3]);
    const drawn = widths({ 'border.width': { by: 'random', from: 10, to: 20 } });
    expect(drawn.slice(1).every((one) => Number(one) >= 10 && Number(one) < 20)).toBe(true);
    expect(widths({ 'border.width': { by: 'random', from: 10, to: 20 } })).toEqual(drawn);
    expect(widths({ 'border.width': { by: 'random', from: 10, to: 20 } }, 2)).not.toEqual(drawn);
    // A number that belongs to no chosen part is left alone.
    expect(
      applied(framed, style({ parts: ['border'], vary: {}, numbers: { corner: { by: 'fixed', value: 3 } } })).layers[0]
        .rest.corner,
    ).toBe(12);
  });

  test('a number from data is per cent for shares, and who has none is told', () => {
    const recipe = style({
      parts: ['shadow'],
      vary: {},
      numbers: { 'shadow.opacity': { by: 'data', column: 'depth' } },
    });
    const counted: Scene = {
      ...scene,
      layers: scene.layers.map((layer) => (layer.id === 'b' ? { ...layer, data: { depth: '40' } } : layer)),
    };
    const planned = plan(counted, shelf, recipe, CONTEXT);
    expect(planned.findings).toEqual([{ code: 'no-number', column: 'depth', layers: ['a', 'c'] }]);
    expect(layerOf(edited(counted, planned.edits), 'b').rest['shadow.opacity']).toBe(0.4);
    expect(layerOf(edited(counted, planned.edits), 'a').rest['shadow.opacity']).toBeUndefined();
    expect(planned.run?.sentence).toContain('shadow opacity from “depth”');
  });

  test('what cannot be done says why, and the sentence reads', () => {
    expect(codesOf(plan(scene, shelf, style({ from: { by: 'layer', layer: 'ghost' } }), CONTEXT))).toEqual([
      'source-gone',
    ]);
    const alone = style({ from: like, pick: { by: 'layers', layers: ['a'] } });
    expect(codesOf(plan(scene, shelf, alone, CONTEXT))).toEqual(['nothing-picked']);
    const facts = { scene, shelf, count: 3 };
    expect(
      sentenceOf(style({ from: { ...like, isLinked: true }, parts: ['border', 'shadow', 'corner'], vary: {} }), facts),
    ).toBe('Style 3 cards, left to right, like “a”, following it, in border, shadows and corners.');
  });
});

test('a style that is linked follows the look and the rest values of its layer, and no keys', () => {
  const from = { by: 'layer', layer: 'p' } as const;
  expect(styleFollows(style({ from: { ...from, isLinked: true } }))).toEqual({
    layer: 'p',
    fields: ['look', 'rest'],
    keys: false,
  });
  expect(styleFollows(style({ from }))).toBeNull();
  expect(styleFollows(style())).toBeNull();
});

describe('looks and palettes of the library', () => {
  const looks = createShelf(STARTER_LIBRARY);
  const print = style({ from: { by: 'look', id: 'look-print' }, parts: ['border', 'shadow'], vary: {} });
  const appliedWith = (on: Scene, recipe: StyleRecipe, library = looks): Scene => {
    const after = edited(on, plan(on, library, recipe, CONTEXT).edits);
    expect(sceneSchema.safeParse(after).error?.issues ?? []).toEqual([]);
    return after;
  };
  /** The library with the next revision of an item. */
  const withNext = (id: string, body: object): Shelf =>
    createShelf(
      STARTER_LIBRARY.map((item) =>
        item.id === id ? ({ ...item, revision: item.revision + 1, body } as LibraryItem) : item,
      ),
    );

  test('a look is put on all, and its run keeps what it was', () => {
    const after = appliedWith(scene, print);
    for (const { look, rest } of after.layers) {
      expect([look.border?.side, rest['border.width'], look.shadow, rest['shadow.blur']]).toEqual([
        'outside',
        10,
        '#000000',
        14,
      ]);
      expect(look.fill).toBeDefined();
    }
    expect(after.runs[0].uses).toMatchObject([{ id: 'look-print', revision: 1, kind: 'look' }]);
    // A run that used nothing of the library keeps nothing of it.
    expect(applied(scene, style()).runs[0]).not.toHaveProperty('uses');
    expect(after.runs[0].sentence).toBe('Style 3 cards, left to right, with the look “Print”, in border and shadows.');
  });

  test('a newer revision waits; the one of then is used where it is asked for, also when the item is gone', () => {
    const after = appliedWith(scene, print);
    const thin = {
      parts: ['border'],
      look: { border: { colour: '#ff0000', side: 'on' } },
      rest: { 'border.width': 2 },
    };
    const newer = withNext('look-print', thin);
    expect(waitingUpdate(after.runs[0], looks)).toBeNull();
    expect(waitingUpdate(after.runs[0], newer)).toEqual({ from: 1, to: 2 });
    const [run] = after.runs;
    const kept = replan(after, newer, run.id, recipeOfRun(run, 'used'), CONTEXT);
    expect(edited(after, kept.edits).layers.map(({ rest }) => rest['border.width'])).toEqual([10, 10, 10]);
    const updated = edited(after, replan(after, newer, run.id, recipeOfRun(run, 'newest'), CONTEXT).edits);
    expect(updated.layers.map(({ rest }) => rest['border.width'])).toEqual([2, 2, 2]);
    expect(updated.runs[0].uses?.[0].revision).toBe(2);
    const gone = replan(after, createShelf([]), run.id, { ...print, parts: ['border'] }, CONTEXT);
    expect(gone.findings.map(({ code }) => code)).not.toContain('item-gone');
    expect(codesOf(plan(scene, createShelf([]), print, CONTEXT))).toEqual(['item-gone']);
  });

  test('colours come from a palette by turns, and along one of its ramps', () => {
    const turns = { by: 'palette', id: 'palette-ember', how: 'turns' } as const;
    const along = { by: 'palette', id: 'palette-ember', ramp: 'fire', how: 'ramp' } as const;
    const own = { from: { by: 'own' }, parts: ['fill'] } as const;
    expect(fills(appliedWith(scene, style({ ...own, parts: ['fill'], vary: { fill: turns } })))).toEqual([
      '#2b1a16',
      '#9a3b1c',
      '#e0702a',
    ]);
    const ramped = appliedWith(scene, style({ ...own, parts: ['fill'], vary: { fill: along } }));
    expect([fills(ramped)[0], fills(ramped)[2]]).toEqual(['#2b1a16', '#f7c65c']);
    expect(ramped.runs[0].sentence).toContain('fill along “fire” of “Ember”');
    // Of two palettes the second alone has a newer revision.
    const both = { fill: { ...turns, id: 'palette-night' }, stroke: turns } as const;
    const [two] = appliedWith(scene, style({ parts: ['fill', 'stroke'], vary: both })).runs;
    expect(waitingUpdate(two, withNext('palette-ember', { colours: [{ name: 'blue', colour: '#0000ff' }] }))).toEqual({
      from: 1,
      to: 2,
    });
    const bluer = withNext('palette-ember', { colours: [{ name: 'blue', colour: '#0000ff' }] });
    expect(waitingUpdate(appliedWith(scene, style({ parts: ['fill'], vary: { fill: turns } })).runs[0], bluer)).toEqual(
      {
        from: 1,
        to: 2,
      },
    );
  });

  test('a look is made of what a layer has, without its matte', () => {
    const layer = card('x', {
      look: { fill: '#123456', shadow: '#000', matte: { layer: 'b', how: 'reveals', isShown: false } },
      rest: { ...at(1), 'shadow.y': 5, corner: 8 },
    });
    expect(lookOfLayer(layer, PARTS)).toEqual({
      parts: ['fill', 'shadow', 'corner'],
      look: { fill: '#123456', shadow: '#000' },
      rest: { 'shadow.y': 5, corner: 8 },
    });
    expect(lookOfLayer(card('y', { look: {}, rest: at(1) }), PARTS)).toBeNull();
  });
});
