import { describe, expect, test } from '@jest/globals';
import { oklabFromCss } from '../../basics/colour';
import { LINEAR } from '../../basics/easing';
import { createShelf, type LibraryItem, type PresetItem } from '../../library/library';
import { plan } from '../../runs/plan';
import type { PresetRecipe } from '../../scene/recipe';
import type { Key } from '../../scene/layer';
import { STARTER_CURVES } from '../../library/starter/curves';
import { card, CONTEXT, recipeOf, sceneOf } from '../../testing/scenes';
import { compilePreset, describePresetProblem, type Parameter, type Preset, type Row } from '.';

const parameters: Parameter[] = [
  { name: 'tint', label: 'Tint', kind: 'colour', default: '#ff0000', note: '' },
  {
    name: 'side',
    label: 'Side',
    kind: 'choice',
    default: 'left',
    options: [
      { name: 'left', label: 'Left' },
      { name: 'right', label: 'Right' },
    ],
    note: '',
  },
  { name: 'way', label: 'Way', kind: 'curve', default: 'linear', note: '' },
  { name: 'from', label: 'From', kind: 'layer', default: 'none', note: '' },
];

function presetWith(rows: readonly Row[]): Preset {
  return {
    phase: 'entrance',
    hang: 'in',
    stretch: 'keep',
    grid: 'frames',
    parameters,
    moments: [
      { id: 'start', name: 'Start', at: '0f' },
      { id: 'end', name: 'End', at: '10f' },
    ],
    rows: [...rows],
  };
}

function row(channel: Row['channel'], start: string, ease: Row['cells'][number]['ease'] = LINEAR, when?: string): Row {
  const cells = [
    { moment: 'start', value: start, ease },
    { moment: 'end', value: 'rest', ease: LINEAR },
  ];
  return { channel, cells, ...(when === undefined ? {} : { when }) };
}

function itemOf(body: Preset): PresetItem {
  return {
    id: 'test',
    kind: 'preset',
    name: 'Test',
    tags: [],
    collection: null,
    note: '',
    state: 'published',
    revision: 1,
    author: '',
    when: CONTEXT.when,
    summary: '',
    body,
  };
}

const scene = sceneOf([
  card('a'),
  card('b', { rest: { 'position.x': 500, 'position.y': 300, 'size.x': 40, 'size.y': 40 } }),
]);

function planned(rows: readonly Row[], given: PresetRecipe['parameters'] = {}, more: readonly LibraryItem[] = []) {
  const shelf = createShelf([itemOf(presetWith(rows)), ...more]);
  return plan(scene, shelf, recipeOf({ preset: { id: 'test' }, parameters: given }), CONTEXT);
}

function firstKeys(
  rows: readonly Row[],
  given: PresetRecipe['parameters'] = {},
  more: readonly LibraryItem[] = [],
): Key[] {
  const { layers, findings } = planned(rows, given, more);
  expect(findings).toEqual([]);
  return layers.map(({ after }) => (after.tracks[rows[0].channel] as Key[])[0]);
}

describe('a colour parameter', () => {
  test('stands in each colour channel for the part that the channel is', () => {
    const red = oklabFromCss('#ff0000');
    expect(firstKeys([row('fill.l', '@tint')])[0].value).toBe(red?.l);
    expect(firstKeys([row('fill.a', 'mix(0, @tint, 50%)')])[0].value).toBeCloseTo((red?.a ?? 0) / 2, 12);
    expect(firstKeys([row('opacity', '@tint.l')])[0].value).toBe(red?.l);
  });

  test('goes from one colour to another along the order, in OKLab', () => {
    const ramp = { tint: { by: 'ramp', from: '#000000', to: '#ffffff' } } as const;
    expect(firstKeys([row('fill.l', '@tint')], ramp).map(({ value }) => Number(value.toFixed(6)))).toEqual([0, 1]);
  });

  test('elsewhere is a problem that says where it fits', () => {
    const result = compilePreset(presetWith([row('rotation', '@tint')]));
    expect(!result.ok && describePresetProblem(result.problems[0])).toBe(
      'In rotation at Start, “@tint”: @tint is a colour, and fits the channels of fill and stroke colours.',
    );
  });

  test('that is no colour is said, for the layer’s run as for the default', () => {
    expect(planned([row('fill.l', '@tint')], { tint: { by: 'fixed', value: 'reddish' } }).findings[0]).toMatchObject({
      code: 'bad-field',
      message: '“reddish” is not a colour. Write one such as #f3c98b.',
    });
  });
});

describe('a choice', () => {
  test('is asked by its options, in formulas and for whole rows', () => {
    const rows = [row('rotation', 'if @side.left then 90deg else -90deg')];
    expect(firstKeys(rows)[0].value).toBe(90);
    expect(firstKeys(rows, { side: { by: 'fixed', value: 'right' } })[0].value).toBe(-90);
    expect(firstKeys(rows, { side: { by: 'cycle', values: ['left', 'right'] } }).map(({ value }) => value)).toEqual([
      90, -90,
    ]);
    const switched = planned([row('rotation', '1deg'), row('opacity', '0', LINEAR, 'side.right')]);
    expect(Object.keys(switched.layers[0].after.tracks)).toEqual(['rotation']);
  });

  test('by itself, or with an option that is not there, is a problem', () => {
    const bare = compilePreset(presetWith([row('rotation', 'if @side then 1deg else 2deg')]));
    expect(!bare.ok && bare.problems[0].message).toContain('Ask for one of its options, such as if @side.left');
    const wrong = planned([row('rotation', '1deg')], { side: { by: 'fixed', value: 'up' } });
    expect(wrong.findings[0]).toMatchObject({ message: '“up” is no option here. There are left, right.' });
    const ramp = planned([row('rotation', '1deg')], { side: { by: 'ramp', from: 'left', to: 'right' } });
    expect(ramp.findings[0]).toMatchObject({ message: expect.stringContaining('A choice has nothing in between.') });
  });
});

describe('a curve parameter', () => {
  test('eases a cell, as text and by the name of a library curve', () => {
    const rows = [row('rotation', '1deg', { type: 'parameter', name: 'way' })];
    expect(firstKeys(rows)[0].ease).toEqual(LINEAR);
    expect(firstKeys(rows, { way: { by: 'fixed', value: 'steps(2)' } })[0].ease).toEqual({
      type: 'steps',
      count: 2,
      jump: 'end',
    });
    const byName = firstKeys(rows, { way: { by: 'fixed', value: 'curve curve-soft' } }, STARTER_CURVES);
    expect(byName[0].ease).toEqual(STARTER_CURVES.find(({ id }) => id === 'curve-soft')?.body.easing);
  });

  test('is read by ease() in formulas', () => {
    const rows = [row('rotation', 'ease(@way, 25%) × 100deg')];
    expect(firstKeys(rows)[0].value).toBe(25);
    expect(
      firstKeys(rows, {
        way: { by: 'fixed', value: 'cubic-bezier(0.333333333333, 0, 0.666666666667, 0.333333333333)' },
      })[0].value,
    ).toBeCloseTo(6.25, 6);
    const wrong = compilePreset(presetWith([row('rotation', '@way × 1deg')]));
    expect(!wrong.ok && wrong.problems[0].message).toContain(
      'Read it with ease(@way, share)'.replace('@way', '@curve'),
    );
    const noCurve = compilePreset(presetWith([row('rotation', 'ease(1, 50%) × 1deg')]));
    expect(!noCurve.ok && noCurve.problems[0].message).toContain('ease needs a parameter of kind curve first');
  });
});

describe('a layer parameter', () => {
  test('gives the place of another layer in the rest pose, and its own where none is chosen', () => {
    const rows = [row('position.x', 'rest + @from.x - layer.x')];
    expect(firstKeys(rows).map(({ value }) => value)).toEqual([100, 500]);
    const fromB = firstKeys(rows, { from: { by: 'fixed', value: 'b' } });
    expect(fromB.map(({ value }) => value)).toEqual([500, 500]);
  });

  test('gives the box of that layer, side by side', () => {
    // The layer b: 40 × 40 px around 500, 300.
    const b = { from: { by: 'fixed', value: 'b' } } as const;
    const read = (part: string): number => firstKeys([row('position.x', `@from.${part}`)], b)[0].value;
    const parts = ['left', 'right', 'top', 'bottom', 'x', 'y', 'width', 'height'];
    expect(parts.map(read)).toEqual([480, 520, 280, 320, 500, 300, 40, 40]);
  });
});

describe('a curve of the library', () => {
  const ease = { type: 'curve', id: 'curve-arrive', revision: 1, is: LINEAR } as const;

  test('is taken as it stands there now, backwards too, and else as it was last', () => {
    const rows = [row('rotation', '1deg', ease)];
    const standing = STARTER_CURVES.find(({ id }) => id === 'curve-arrive');
    expect(firstKeys(rows, {}, STARTER_CURVES)[0].ease).toEqual(standing?.body.easing);
    expect(firstKeys(rows)[0].ease).toEqual(LINEAR);
    const back = firstKeys([row('rotation', '1deg', { ...ease, reversed: true })], {}, STARTER_CURVES);
    expect(back[0].ease).toMatchObject({ type: 'bezier', x1: 0.7, y1: 0 });
  });

  test('is noted in the run with its revision', () => {
    const { run } = planned([row('rotation', '1deg', ease)], {}, STARTER_CURVES);
    expect(run?.uses).toMatchObject([
      { id: 'curve-arrive', revision: 1, kind: 'curve', body: { easing: { type: 'bezier' } } },
    ]);
  });
});

describe('free handles of a preset', () => {
  test('on a channel of shares are shares of the rest value, so that they fit every rest pose', () => {
    const handles = { type: 'handles', leave: { time: 0.3, value: 0.5 }, arrive: { time: 0.3, value: -0.1 } } as const;
    const faint = sceneOf([card('a', { rest: { 'size.x': 10, 'size.y': 10, opacity: 0.5 } })]);
    const shelf = createShelf([itemOf(presetWith([row('opacity', '0', handles)]))]);
    const result = plan(faint, shelf, recipeOf({ preset: { id: 'test' } }), CONTEXT);
    expect(result.layers[0].after.tracks.opacity?.[0].ease).toMatchObject({
      leave: { value: 0.25 },
      arrive: { value: -0.05 },
    });
  });
});
