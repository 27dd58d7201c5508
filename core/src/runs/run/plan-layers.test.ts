import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import { createShelf, type PresetItem } from '../../library/library';
import { STARTER_LIBRARY, STARTER_PRESETS } from '../../library/starter';
import { card, CONTEXT, PAL, recipeOf, sceneOf } from '../../testing/scenes';
import type { Preset } from '../../formulas/preset';
import type { PresetRecipe } from '../../scene/recipe';
import { plan } from '../plan';

const FRAME = frameTicks(PAL);
const widths = [40, 100, 100, 250];
const scene = sceneOf(
  widths.map((width, i) =>
    card(`l${i}`, { rest: { 'position.x': i * 200, 'position.y': 100, 'size.x': width, 'size.y': 50 } }),
  ),
);

/** A preset that reads its layer: how far it comes from, and how long it takes. */
const own: Preset = {
  phase: 'entrance',
  hang: 'in',
  stretch: 'scale',
  grid: 'frames',
  parameters: [],
  moments: [
    { id: 'start', name: 'Start', at: '0f' },
    { id: 'end', name: 'End', at: 'layer.width ÷ 100px × 10f' },
  ],
  rows: [
    {
      channel: 'position.x',
      cells: [
        { moment: 'start', value: 'rest - layer.width', ease: { type: 'linear' } },
        { moment: 'end', value: 'rest', ease: { type: 'linear' } },
      ],
    },
  ],
};
const item: PresetItem = { ...STARTER_PRESETS[0], id: 'own', body: own };
const shelf = createShelf([...STARTER_LIBRARY, item]);

function planned(more: Partial<PresetRecipe> = {}) {
  return plan(scene, shelf, recipeOf({ preset: { id: 'own' }, ...more }), CONTEXT).layers;
}

test('facts of a layer, as its preset reads them where it rests', () => {
  // 80 × 60 px, a quarter from its left side over 300, 200; half as wide by its scale, and hanging down twice as high.
  const turned = card('a', {
    span: { in: 25 * FRAME, out: 75 * FRAME },
    source: { type: 'text', text: 'Tide out', font: 'Spline Sans', weight: 400, size: 20, align: 'left' },
    rest: {
      'position.x': 300,
      'position.y': 200,
      'size.x': 80,
      'size.y': 60,
      'anchor.x': 0.25,
      'anchor.y': 1,
      'scale.x': 0.5,
      'scale.y': -2,
    },
  });
  const read = (fact: string, unit: string): number | undefined => {
    const [row] = own.rows;
    const cells = row.cells.map((cell) => ({ ...cell, value: `layer.${fact}${unit}` }));
    const body: Preset = {
      ...own,
      moments: own.moments.map((moment, i) => ({ ...moment, at: `${i * 10}f` })),
      rows: [{ ...row, cells }],
    };
    const [made] = plan(
      sceneOf([card('first'), turned]),
      createShelf([{ ...item, body }]),
      recipeOf({ preset: { id: 'own' } }),
      CONTEXT,
    ).layers.slice(1);
    return made?.after.tracks['position.x']?.[1].value;
  };
  expect(read('width', '')).toBeCloseTo(40, 9);
  expect(read('height', '')).toBeCloseTo(120, 9);
  expect(read('length', ' ÷ 1s × 1px')).toBeCloseTo(2, 9);
  expect(read('letters', ' × 1px')).toBeCloseTo(8, 9);
  // The anchor lies where the layer is put; the box around it by its share.
  expect([read('x', ''), read('y', '')]).toEqual([300, 200]);
  expect([read('left', ''), read('right', '')]).toEqual([290, 330]);
  expect([read('top', ''), read('bottom', '')]).toEqual([200, 320]);
});

describe('what a run gives to its layers', () => {
  test('goes by facts of each: where it comes from, how long it takes, when its moments are', () => {
    const layers = planned();
    expect(layers.map(({ after }) => after.tracks['position.x']?.[0].value)).toEqual([-40, 100, 300, 350]);
    expect(layers.map(({ lasts }) => lasts / FRAME)).toEqual([4, 10, 10, 25]);
    expect(layers.map(({ moments }) => moments.map((at) => at / FRAME))).toEqual([
      [0, 4],
      [0, 10],
      [0, 10],
      [0, 25],
    ]);
    // Layers one after the other with the same moments share one list of them.
    expect(layers[1].moments).toBe(layers[2].moments);
  });

  test('is stretched to one length, a factor or a window', () => {
    const lasts = (length: PresetRecipe['length']) => planned({ length }).map((layer) => layer.lasts / FRAME);
    expect(lasts({ by: 'fixed', length: '20f' })).toEqual([20, 20, 20, 20]);
    expect(lasts({ by: 'factor', factor: 2 })).toEqual([8, 20, 20, 50]);
    expect(lasts({ by: 'fit', window: '1s' })).toEqual([25, 25, 25, 25]);
    expect(planned({ length: { by: 'fixed', length: '20f' } }).map(({ moments }) => moments[1] / FRAME)).toEqual([
      20, 20, 20, 20,
    ]);
  });
});
