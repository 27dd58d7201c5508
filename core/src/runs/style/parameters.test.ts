import { describe, expect, test } from '@jest/globals';
import { codesOf, edited, layerOf } from '../../testing/planning';
import { card, CONTEXT, sceneOf } from '../../testing/scenes';
import {
  createShelf,
  keptLookSchema,
  lookFromPreset,
  lookOfLayer,
  recordOf,
  referencesOf,
  lookPreset,
  type KeptLook,
  type LibraryItem,
  type Shelf,
} from '../../library/library';
import { STARTER_LIBRARY } from '../../library/starter';
import { createStyle, settingsOf, type StyleRecipe } from '../../scene/recipe';
import { sceneSchema, type Scene } from '../../scene/scene';
import { sentenceOf } from '../operations';
import { describeFinding } from '../finding';
import { plan, recipeOfRun, replan } from '../plan';
import { removeRun } from '../stack';
import { checkRecords } from '../../out/pack';
import { compareItems } from '../../library/authoring';
import { lookAsMade, styleReads } from '.';
import { hangsOnLayers } from './parameters';
import { PARTS } from './parts';

const parameter = { note: '' };
const DEEP: KeptLook = {
  parts: ['shadow', 'border'],
  look: { shadow: '#000000', border: { colour: '#ffffff', side: 'outside' } },
  rest: { 'shadow.y': 1, 'shadow.blur': 2, 'shadow.opacity': 0.5, 'border.width': 3 },
  parameters: [
    { ...parameter, name: 'depth', label: 'Depth', kind: 'length', default: '10px', min: '0px', max: '40px' },
    { ...parameter, name: 'tone', label: 'Tone', kind: 'colour', default: '#204060' },
  ],
  formulas: [
    { channel: 'shadow.y', text: '@depth' },
    { channel: 'shadow.blur', text: '@depth × 1.5 + place × 1px' },
    { channel: 'border.width', text: 'layer.width × 2%' },
  ],
  colours: { shadow: 'tone' },
};

function shelfWith(body: KeptLook = DEEP, revision = 1): Shelf {
  const [model] = STARTER_LIBRARY.filter(({ kind }) => kind === 'look');
  return createShelf([...STARTER_LIBRARY, { ...model, id: 'deep', name: 'Deep', revision, body } as LibraryItem]);
}

const at = (x: number, width = 100) => ({ 'position.x': x, 'position.y': 100, 'size.x': width, 'size.y': 50 });
const scene = sceneOf([
  card('a', { rest: at(100) }),
  card('b', { rest: at(300, 200), data: { deep: 7 } }),
  card('c', { rest: at(500) }),
]);

function style(parameters?: StyleRecipe['parameters']): StyleRecipe {
  return {
    ...createStyle({ by: 'rule', kind: 'card' }),
    order: { by: 'across' },
    from: { by: 'look', id: 'deep' },
    parts: ['shadow', 'border'],
    vary: {},
    ...(parameters ? { parameters } : {}),
  };
}

function applied(recipe: StyleRecipe, shelf = shelfWith()): Scene {
  const after = edited(scene, plan(scene, shelf, recipe, CONTEXT).edits);
  expect(sceneSchema.safeParse(after).error?.issues ?? []).toEqual([]);
  return after;
}

const numbers = ({ layers }: Scene): unknown[] =>
  layers.map(({ rest, look }) => [rest['shadow.y'], rest['shadow.blur'], rest['border.width'], look.shadow]);

describe('a look with parameters', () => {
  test('is what its formulas say of each layer, with the parameters as they are made', () => {
    expect(numbers(applied(style()))).toEqual([
      [10, 15, 2, '#204060'],
      [10, 16, 4, '#204060'],
      [10, 17, 2, '#204060'],
    ]);
    // What has no formula is as the look has it.
    expect(layerOf(applied(style()), 'a').rest['shadow.opacity']).toBe(0.5);
  });

  test('is shown on one layer with its parameters as they are made; not where its formulas cannot run', () => {
    const shown = lookAsMade(scene, 1, DEEP, shelfWith());
    expect(shown?.look.shadow).toBe('#204060');
    // It stands alone there, so its place is the first: 10 × 1.5, and 2 % of its 200 px.
    expect(shown?.rest).toMatchObject({
      'shadow.y': 10,
      'shadow.blur': 15,
      'border.width': 4,
    });
    const broken = { ...DEEP, formulas: [{ channel: 'shadow.y' as const, text: '@lost' }] };
    expect(lookAsMade(scene, 1, broken, shelfWith())).toBeNull();
  });

  test('takes parameters that are the same for all, along the order, by turns, or from data', () => {
    const deep = (parameters: StyleRecipe['parameters']): unknown[] =>
      applied(style(parameters)).layers.map(({ rest, look }) => [rest['shadow.y'], look.shadow]);
    expect(deep({ depth: { by: 'fixed', value: '20px' } }).map((one) => (one as unknown[])[0])).toEqual([20, 20, 20]);
    expect(deep({ depth: { by: 'ramp', from: '10px', to: '30px' } }).map((one) => (one as unknown[])[0])).toEqual([
      10, 20, 30,
    ]);
    expect(deep({ tone: { by: 'cycle', values: ['#ff0000', '#00ff00'] } }).map((one) => (one as unknown[])[1])).toEqual(
      ['#ff0000', '#00ff00', '#ff0000'],
    );
  });

  test('holds a parameter within its limits and says so; a setting that it does not have is told', () => {
    const deep = style({ depth: { by: 'fixed', value: '90px' } });
    const planned = plan(scene, shelfWith(), deep, CONTEXT);
    expect(planned.findings).toContainEqual({ code: 'limited', parameter: 'depth', layers: ['a', 'b', 'c'] });
    expect(layerOf(applied(deep), 'a').rest['shadow.y']).toBe(40);
    expect(codesOf(plan(scene, shelfWith(), style({ height: { by: 'fixed', value: '1px' } }), CONTEXT))).toContain(
      'unknown-parameter',
    );
    expect(plan(scene, shelfWith(), style({ depth: { by: 'fixed', value: 'deep' } }), CONTEXT).edits).toEqual([]);
  });

  test('with a formula that cannot run is refused with the reason; what gives no finite number stays as the look has it', () => {
    const broken = shelfWith({ ...DEEP, formulas: [{ channel: 'shadow.y', text: '@depth +' }] });
    const planned = plan(scene, broken, style(), CONTEXT);
    expect(planned.edits).toEqual([]);
    expect(describeFinding(planned.findings[0], scene)).toMatch(/^The look “Deep” cannot be put on\. /);
    const endless = shelfWith({ ...DEEP, formulas: [{ channel: 'shadow.y', text: '@depth ÷ place' }] });
    expect(applied(style(), endless).layers.map(({ rest }) => rest['shadow.y'])).toEqual([1, 10, 5]);
  });

  test('set otherwise afterwards, it has the house values of then, and goes on keeping them', () => {
    const [depth, tone] = DEEP.parameters ?? [];
    const tied = { ...DEEP, parameters: [depth, { ...tone, house: 'house-lamplight' }] } as KeptLook;
    const shelf = shelfWith(tied);
    const first = applied(style(), shelf);
    const { uses = [] } = first.runs[0];
    expect(uses.map(({ kind }) => kind)).toEqual(['look', 'house']);
    const body = { type: 'colour', value: '#123456' };
    const items = [...shelf.items.values()].map((item) =>
      item.id === 'house-lamplight' ? { ...item, revision: 2, body } : item,
    );
    const later = createShelf(items as LibraryItem[]);
    const then = recipeOfRun(first.runs[0], 'used') as StyleRecipe;
    const changed: StyleRecipe = { ...then, parameters: { depth: { by: 'fixed', value: '5px' } } };
    const again = edited(first, replan(first, later, first.runs[0].id, changed, CONTEXT).edits);
    const shadows = (on: Scene): unknown[] => on.layers.map(({ look }) => look.shadow);
    expect(shadows(again)).toEqual(shadows(first));
    expect(again.runs[0].uses).toEqual(uses);
    expect(shadows(applied(style(), later))).toEqual(Array(3).fill('#123456'));
  });

  test('can be set otherwise in its run afterwards, keeps what it was made of, and leaves nothing when the run goes', () => {
    const first = applied(style());
    const [{ id, uses = [] }] = first.runs;
    expect(uses[0]).toMatchObject({ id: 'deep', kind: 'look', revision: 1 });
    const later = shelfWith({ ...DEEP, formulas: [{ channel: 'shadow.y', text: '@depth × 3' }] }, 2);
    const recipe = recipeOfRun(first.runs[0], 'used') as StyleRecipe;
    const changed = { ...recipe, parameters: { depth: { by: 'fixed', value: '5px' } } } as StyleRecipe;
    const again = edited(first, replan(first, later, id, changed, CONTEXT).edits);
    // The run keeps to the revision that it was made with.
    expect(again.layers.map(({ rest }) => rest['shadow.y'])).toEqual([5, 5, 5]);
    expect(again.layers.map(({ rest }) => rest['shadow.blur'])).toEqual([7.5, 8.5, 9.5]);
    const gone = edited(again, removeRun(again, id).edits);
    expect(gone.layers).toEqual(scene.layers);
  });

  test('is said in the sentence by the labels of what is set', () => {
    const recipe = style({ depth: { by: 'ramp', from: '10px', to: '30px' } });
    expect(sentenceOf(recipe, { scene, shelf: shelfWith(), count: 3 })).toBe(
      'Style 3 cards, left to right, with the look “Deep”, in shadows and border, depth 10 px to 30 px along the order.',
    );
    expect(settingsOf(recipe)).toEqual(recipe.parameters);
    expect(settingsOf(style())).toEqual({});
    expect(settingsOf({ ...recipe, from: { by: 'own' } })).toBeNull();
  });
});

describe('what a look with parameters hangs on', () => {
  test('colours are those of parts that it has, and spans count only where it has formulas', () => {
    const shadowOnly = shelfWith({ ...DEEP, parts: ['shadow'], colours: { border: 'tone' } });
    expect(applied(style(), shadowOnly).layers[0].look).toEqual({
      ...scene.layers[0].look,
      shadow: '#000000',
      border: { colour: '#ffffff', side: 'outside' },
    });
    const reads = (body: object) =>
      styleReads(style(), { uses: [{ id: 'deep', revision: 1, kind: 'look', body: { ...body } }] });
    expect([reads(DEEP).spans, reads({ parts: [] }).spans, styleReads(style(), {}).spans]).toEqual([
      true,
      false,
      false,
    ]);
  });
});

describe('a look with parameters in the library', () => {
  const itemOf = (body: KeptLook): LibraryItem => shelfWith(body).items.get('deep') as LibraryItem;

  test('is compared by its parts, its parameters and its formulas', () => {
    const [depth, tone] = DEEP.parameters ?? [];
    const after: KeptLook = {
      ...DEEP,
      rest: { ...DEEP.rest, 'border.width': 4 },
      parameters: [{ ...depth, default: '12px' }, tone],
      formulas: [{ channel: 'shadow.y', text: '@depth × 2' }, ...(DEEP.formulas ?? []).slice(1)],
    };
    expect(compareItems(itemOf(DEEP), itemOf(DEEP))).toEqual([]);
    expect(
      compareItems(itemOf(DEEP), itemOf(after)).map(({ what, before, after: now }) => [what, before, now]),
    ).toEqual([
      ['border width', '3 px', '4 px'],
      ['@depth, default', '10px', '12px'],
      ['formula for shadow.y', '@depth', '@depth × 2'],
    ]);
  });

  test('needs the house value that a default is, and comes in a pack only with formulas that run', () => {
    const [depth, tone] = DEEP.parameters ?? [];
    const tied: KeptLook = { ...DEEP, parameters: [{ ...depth, house: 'breath' }, tone] };
    expect(referencesOf(itemOf(tied))).toEqual([{ id: 'breath', use: 'default', where: 'default of @depth' }]);
    expect(referencesOf(itemOf(DEEP))).toEqual([]);
    const broken: KeptLook = { ...DEEP, formulas: [{ channel: 'shadow.y', text: '@height' }] };
    const codes = (body: KeptLook): string[] => checkRecords([recordOf(itemOf(body))], []).map(({ code }) => code);
    expect([codes(DEEP), codes(broken)]).toEqual([[], ['broken-formula']]);
  });
});

describe('the data of a look with parameters', () => {
  test('hangs together, or is refused with sentences', () => {
    const problems = (look: KeptLook): string[] =>
      keptLookSchema.safeParse(look).error?.issues.map(({ message }) => message) ?? [];
    expect(problems(DEEP)).toEqual([]);
    // A matte is another layer of a scene.
    const matte = { layer: 'a', by: 'alpha' };
    expect(problems({ ...DEEP, look: { ...DEEP.look, matte } } as KeptLook)).toHaveLength(1);
    expect(problems({ ...DEEP, colours: { shadow: 'depth' } })).toEqual([
      'The colour of the shadow is to be @depth, which is not a colour parameter.',
    ]);
    expect(
      problems({
        ...DEEP,
        formulas: [
          { channel: 'blur', text: '1px' },
          { channel: 'blur', text: '2px' },
        ],
      }),
    ).toEqual(['The channel blur has two rows.']);
    const [depth] = DEEP.parameters ?? [];
    expect(problems({ ...DEEP, parameters: [depth, depth], colours: {} })).toEqual([
      'The parameter @depth is there twice.',
    ]);
  });

  test('a colour goes with its parameter to another name, and goes when that is no colour any more', () => {
    const preset = lookPreset(DEEP);
    const [depth, tone] = preset.parameters;
    const withTone = (next: object) => lookFromPreset(DEEP, { ...preset, parameters: [depth, { ...tone, ...next }] });
    expect(withTone({ name: 'shade' }).colours).toEqual({ shadow: 'shade' });
    expect(withTone({ kind: 'number', default: '1' }).colours).toBeUndefined();
    expect(lookFromPreset(DEEP, { ...preset, parameters: [depth] }).colours).toBeUndefined();
  });

  test('masks that are files of scenes stay out of the library, and are left out of what is kept from a layer', () => {
    const mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 0 } as const;
    const href = `files/${'ab'.repeat(32)}.png`;
    const pictured = { ...mask, shape: 'picture', picture: { href, by: 'brightness' } } as const;
    const look: KeptLook = { parts: ['masks'], look: { masks: [mask, pictured] }, rest: {} };
    expect(keptLookSchema.safeParse(look).error?.issues.map(({ message }) => message)).toEqual([
      'A look of the library has no masks by pictures or by words in a font of one’s own: those are files of scenes.',
    ]);
    expect(lookOfLayer({ look: look.look, rest: {} }, PARTS)?.look.masks).toEqual([mask]);
    expect(lookOfLayer({ look: { masks: [pictured] }, rest: {} }, PARTS)).toBeNull();
  });

  test('there and back is the same look, and a plain one stays plain', () => {
    expect(lookFromPreset(DEEP, lookPreset(DEEP))).toEqual(DEEP);
    const { parameters: _p, formulas: _f, colours: _c, ...plain } = DEEP;
    expect(lookFromPreset(plain, lookPreset(plain))).toEqual(plain);
    expect(lookPreset(plain)).toBe(lookPreset(plain));
  });
});

test('a look hangs on layers by its parameters, its formulas, or what a recipe sets', () => {
  const { parameters, formulas, ...plain } = DEEP;
  expect(hangsOnLayers(plain, {})).toBe(false);
  expect(hangsOnLayers({ ...plain, parameters }, {})).toBe(true);
  expect(hangsOnLayers({ ...plain, formulas }, {})).toBe(true);
  expect(hangsOnLayers(plain, { parameters: {} })).toBe(true);
});
