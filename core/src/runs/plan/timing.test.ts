import { describe, expect, test } from '@jest/globals';
import { describeFinding } from '../finding';
import type { PresetRecipe } from '../../scene/recipe';
import type { Layer } from '../../scene/layer';
import { codesOf, planOn, startsOf } from '../../testing/planning';
import { card, CONTEXT, inFrames, PAL, recipeOf, sceneOf } from '../../testing/scenes';
import type { Preset } from '../../formulas/preset';
import { createShelf } from '../../library/library';
import { STARTER_LIBRARY, STARTER_PRESETS } from '../../library/starter';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { plan, solvedIn } from '.';

const FRAME = frameTicks(PAL);
const at = (id: string, x: number, y: number, more: Partial<Layer> = {}): Layer =>
  card(id, { ...more, rest: { 'position.x': x, 'position.y': y, 'size.x': 60, 'size.y': 40 } });

const three = sceneOf([card('a'), card('b'), card('c')]);
const grid = sceneOf([
  at('a', 700, 102),
  at('b', 100, 300),
  at('c', 100, 100, { data: { rank: '10', name: 'Zinnia' } }),
  at('d', 400, 98, { data: { rank: '9', name: 'aster' } }),
  at('e', 700, 300, { data: { rank: 'x' } }),
  at('f', 400, 300),
]);

function placed(order: PresetRecipe['order']): string {
  const { layers } = planOn(grid, { order });
  return [...layers]
    .sort((a, b) => a.place - b.place)
    .map(({ layer, place }) => `${layer}${place}`)
    .join(' ');
}

describe('orders', () => {
  test.each<[string, PresetRecipe['order'], string]>([
    ['row by row', { by: 'grid', lead: 'rows' }, 'c0 d1 a2 b3 f4 e5'],
    ['row by row, snaking', { by: 'grid', lead: 'rows', snaking: true }, 'c0 d1 a2 e3 f4 b5'],
    ['column by column', { by: 'grid', lead: 'columns' }, 'c0 b1 d2 f3 a4 e5'],
    ['along 0° is across', { by: 'angle', degrees: 0 }, 'b0 c0 d1 f1 a2 e2'],
    ['along 90° is down', { by: 'angle', degrees: 90 }, 'd0 c1 a2 b3 e3 f3'],
    ['by a data column, numbers first, those without last', { by: 'data', column: 'rank' }, 'd0 c1 e2 a3 b3 f3'],
    ['by hand, the others after', { by: 'hand', layers: ['e', 'a'] }, 'e0 a1 b2 c3 d4 f5'],
    ['blocks of three move as one', { by: 'grid', lead: 'rows', blocks: 3 }, 'a0 c0 d0 b1 e1 f1'],
  ])('%s', (_, order, expected) => expect(placed(order)).toBe(expected));

  test('by in point', () => {
    const scene = sceneOf(
      [2, 0, 1, 0].map((second, i) =>
        card(`l${i}`, { span: { in: ticksFromSeconds(second), out: ticksFromSeconds(9) } }),
      ),
    );
    expect(planOn(scene, { order: { by: 'in-point' } }).layers.map(({ place }) => place)).toEqual([2, 0, 1, 0]);
  });
});

describe('spacings', () => {
  const lasting = { length: { by: 'fixed', length: '10f' } } as const;
  const starts = (spacing: PresetRecipe['spacing'], more: Partial<PresetRecipe> = {}): number[] =>
    startsOf(planOn(three, { ...lasting, spacing, ...more }));

  test('relay: the next starts as the one before ends, with a gap or an overlap', () => {
    expect(starts({ by: 'relay', gap: '2f' })).toEqual([0, 12, 24]);
    expect(starts({ by: 'relay', gap: '-3f' })).toEqual([0, 7, 14]);
  });

  test('a total along a curve keeps its ends and bends what lies between, on whole frames', () => {
    const curve = { type: 'bezier', x1: 0.5, y1: 0, x2: 1, y2: 1 } as const;
    const [first, middle, last] = starts({ by: 'total', total: '40f', curve });
    expect([first, last]).toEqual([0, 40]);
    expect(middle).toBeLessThan(20);
    expect(Number.isInteger(middle)).toBe(true);
  });

  test('on cues: one each from the first at or after the start; beyond the last they go on', () => {
    const cues = [100, 10, 30].map((frame, i) => ({ id: `c${i}`, name: `Cue ${i}`, at: frame * FRAME }));
    const scene = { ...three, cues };
    expect(startsOf(planOn(scene, { ...lasting, spacing: { by: 'cues' } }))).toEqual([10, 30, 100]);
    const late = planOn(scene, { ...lasting, spacing: { by: 'cues' }, start: { by: 'time', at: '20f' } });
    expect(startsOf(late)).toEqual([30, 100, 170]);
    expect(codesOf(late)).toContain('cues-run-out');
    expect(codesOf(planOn(three, { spacing: { by: 'cues' } }))).toEqual(['no-cues']);
    expect(startsOf(planOn(scene, { ...lasting, start: { by: 'cue', cue: 'cue 2' } }))).toEqual([30, 30, 30]);
    expect(describeFinding(planOn(scene, { start: { by: 'cue', cue: 'Nope' } }).findings[0], scene)).toContain(
      'no cue of this name',
    );
  });

  test('rows × replacements: 3 rows of 3 stills of 9 s, rows 3 s apart (common practice): 0, 3 … 24 s', () => {
    const nine = { ...sceneOf(Array.from({ length: 9 }, (_, i) => card(`s${i}`))), length: ticksFromSeconds(40) };
    const planned = planOn(nine, { spacing: { by: 'rows', rows: 3, apart: '3s', hold: '9s' } });
    expect(startsOf(planned).map((frame) => frame / 25)).toEqual([0, 3, 6, 9, 12, 15, 18, 21, 24]);
  });
});

describe('lengths', () => {
  const lengths = (length: PresetRecipe['length'], more: Partial<PresetRecipe> = {}): number[] =>
    planOn(three, { length, ...more }).layers.map(({ lasts }) => inFrames(lasts));

  test('fit: first start to last end fill the window', () => {
    expect(lengths({ by: 'fit', window: '40f' }, { spacing: { by: 'gap', gap: '10f' } })).toEqual([20, 20, 20]);
    expect(lengths({ by: 'fit', window: '30f' }, { spacing: { by: 'relay', gap: '0f' } })).toEqual([10, 10, 10]);
  });

  test('from a speed: distance over speed; who does not travel is named', () => {
    const parameters = { over: { by: 'fixed', value: '0px' } } as const;
    const slide = planOn(three, {
      preset: { id: 'slide-from-left-edge' },
      parameters,
      length: { by: 'speed', speed: 300 },
    });
    // The box is 100 px wide around 100 px, so the way in from beyond the left edge is 150 px: half a second.
    expect(slide.layers.map(({ lasts }) => inFrames(lasts))).toEqual([13, 13, 13]);
    expect(codesOf(planOn(three, { length: { by: 'speed', speed: 300 } }))).toContain('no-distance');
  });

  test('from a speed the way is the one from key to key, in whatever order the channels have theirs', () => {
    const to = (moment: string, value: string) => ({ moment, value, ease: { type: 'linear' as const } });
    // 30 px aside and 40 px up are 50 px; as many are left. Not by 60 px aside first, which would be 110.
    const body: Preset = {
      phase: 'entrance',
      hang: 'in',
      stretch: 'scale',
      grid: 'frames',
      parameters: [],
      moments: ['0f', '10f', '20f'].map((time, i) => ({ id: `m${i}`, name: `Moment ${i}`, at: time })),
      rows: [
        { channel: 'position.x', cells: [to('m0', 'rest - 60px'), to('m2', 'rest')] },
        { channel: 'position.y', cells: [to('m0', 'rest'), to('m1', 'rest - 40px'), to('m2', 'rest')] },
      ],
    };
    const shelf = createShelf([...STARTER_LIBRARY, { ...STARTER_PRESETS[0], id: 'aside', body }]);
    const recipe = recipeOf({ preset: { id: 'aside' }, length: { by: 'speed', speed: 100 } });
    const { layers } = plan(three, shelf, recipe, CONTEXT);
    expect(layers.map(({ lasts }) => inFrames(lasts))).toEqual([25, 25, 25]);
  });

  test('at random: within the limits, the same for the same seed', () => {
    const random = { by: 'random', from: '10f', to: '20f', seed: 4 } as const;
    const found = lengths(random);
    expect(lengths(random)).toEqual(found);
    for (const length of found) expect(length >= 10 && length <= 20 && Number.isInteger(length)).toBe(true);
  });
});

describe('any three of start, gap, length and finish give the fourth', () => {
  const base: Partial<PresetRecipe> = {
    start: { by: 'time', at: '10f' },
    spacing: { by: 'gap', gap: '5f' },
    length: { by: 'fixed', length: '20f' },
  };
  const solved = (more: Partial<PresetRecipe>) => {
    const { start, gap, length, finish } = solvedIn(planOn(three, { ...base, ...more }).layers);
    return [start, gap, length, finish].map((ticks) => (ticks === null ? null : inFrames(ticks)));
  };

  test.each<[string, Partial<PresetRecipe>, number[]]>([
    ['the finish', {}, [10, 5, 20, 40]],
    ['the start', { start: { by: 'finish', at: '2:00' } }, [20, 5, 20, 50]],
    ['the gap', { spacing: { by: 'finish', at: '2:00' } }, [10, 10, 20, 50]],
    ['the length', { length: { by: 'finish', at: '2:00' } }, [10, 5, 30, 50]],
  ])('%s', (_, more, expected) => expect(solved(more)).toEqual(expected));

  test.each<[Partial<PresetRecipe>, number]>([
    [{ start: { by: 'finish', at: '5f' } }, 30],
    [{ spacing: { by: 'finish', at: '20f' } }, 30],
    [{ length: { by: 'finish', at: '15f' } }, 21],
  ])('what cannot be met says the nearest that can: %j', (more, nearest) => {
    const { findings, edits } = planOn(three, { ...base, ...more });
    expect(edits).toEqual([]);
    expect(findings[0]).toMatchObject({ code: 'cannot-meet', nearest: nearest * FRAME });
    const [way] = Object.keys(more) as ('start' | 'spacing' | 'length')[];
    const met = planOn(three, { ...base, [way]: { by: 'finish', at: `${nearest}f` } });
    expect(codesOf(met)).not.toContain('cannot-meet');
    expect(inFrames(solvedIn(met.layers).finish as number)).toBeLessThanOrEqual(nearest);
  });

  test('two at once are refused with a sentence', () => {
    const twice = planOn(three, { start: { by: 'finish', at: '2:00' }, length: { by: 'finish', at: '2:00' } });
    expect(describeFinding(twice.findings[0], three)).toContain('Only one of start, gap and length');
  });
});

describe('values of each layer', () => {
  const tilts = (
    scene: typeof three,
    tilt: PresetRecipe['parameters'][string],
    more: Partial<PresetRecipe> = {},
  ): number[] =>
    planOn(scene, { preset: { id: 'rise-and-settle' }, parameters: { tilt }, ...more }).layers.map(({ values }) =>
      Number(values.tilt),
    );

  test('along the order with a curve', () => {
    const [first, middle, last] = tilts(three, {
      by: 'ramp',
      from: '0deg',
      to: '10deg',
      curve: { type: 'bezier', x1: 0.5, y1: 0, x2: 1, y2: 1 },
    });
    expect([first, last]).toEqual([0, 10]);
    expect(middle).toBeLessThan(4);
  });

  test('normal: never beyond the limits, around the middle (three deviations to each limit)', () => {
    const many = sceneOf(Array.from({ length: 400 }, (_, i) => card(`l${i}`)));
    const values = tilts(many, { by: 'random', from: '-6deg', to: '6deg', seed: 3, spread: 'normal' });
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    const deviation = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
    expect(Math.max(...values.map(Math.abs))).toBeLessThanOrEqual(6);
    expect(Math.abs(mean)).toBeLessThan(0.4);
    expect(deviation).toBeGreaterThan(1.7);
    expect(deviation).toBeLessThan(2.3);
  });

  test('from a data column: plain numbers take the unit, and who has none takes the default and is named', () => {
    const scene = sceneOf([card('a', { data: { lean: '4' } }), card('b', { data: { lean: '-9deg' } }), card('c')]);
    const planned = planOn(scene, {
      preset: { id: 'rise-and-settle' },
      parameters: { tilt: { by: 'data', column: 'lean' } },
    });
    expect(planned.layers.map(({ values }) => values.tilt).slice(0, 2)).toEqual([4, -9]);
    expect(planned.findings).toContainEqual({ code: 'no-data', column: 'lean', layers: ['c'] });
  });

  test('from a data column a plain number is frames where a time is wanted', () => {
    const scene = sceneOf([card('a', { data: { lasts: '30' } }), card('b', { data: { lasts: '1s' } })]);
    const planned = planOn(scene, {
      preset: { id: 'rise-and-settle' },
      parameters: { lasts: { by: 'data', column: 'lasts' } },
    });
    expect(planned.layers.map(({ lasts }) => inFrames(lasts))).toEqual([30, 25]);
    expect(codesOf(planned)).not.toContain('no-data');
  });

  test.each([
    ['place × 10px', [0, 10, 20]],
    ['share × 100px', [0, 50, 100]],
    ['count × 10px', [30, 30, 30]],
    ['seed × 10px', [70, 70, 70]],
    ['frame.width × 10%', [100, 100, 100]],
    ['frame.height × 10%', [50, 50, 50]],
    ['layer.width × 50%', [50, 50, 50]],
    ['layer.height × 50%', [25, 25, 25]],
    ['layer.x × 1', [100, 100, 100]],
  ])('a value may say of each layer who it is: %s is %j', (value, expected) => {
    const recipe = { preset: { id: 'rise-and-settle' }, order: { by: 'layered' as const }, seed: 7 };
    const { layers, findings } = planOn(three, { ...recipe, parameters: { rise: { by: 'fixed', value } } });
    expect(findings.filter(({ code }) => code === 'bad-field')).toEqual([]);
    expect(layers.map(({ values }) => values.rise)).toEqual(expected.map((one) => expect.closeTo(one, 9)));
  });

  test('one layer’s start, length and value can be set by hand over the sentence', () => {
    const planned = planOn(three, {
      preset: { id: 'rise-and-settle' },
      spacing: { by: 'gap', gap: '5f' },
      overrides: { b: { start: '1:00', length: '30f', parameters: { tilt: '2deg' } } },
    });
    expect(startsOf(planned)).toEqual([0, 25, 10]);
    expect(planned.layers.map(({ lasts }) => inFrames(lasts))[1]).toBe(30);
    expect(planned.layers[1].values.tilt).toBe(2);
    expect(planned.layers[0].values.tilt).not.toBe(2);
  });

  test('a start by hand moves the whole layer where the run moves layers, and its keys with it', () => {
    const moving = { preset: { id: 'fade-in' }, spacing: { by: 'gap', gap: '5f' }, moves: 'layers' } as const;
    const plain = planOn(three, moving).layers;
    const byHand = planOn(three, { ...moving, overrides: { b: { start: '1:00' } } }).layers;
    expect(byHand.map(({ starts }) => inFrames(starts))).toEqual([0, 25, 10]);
    expect(byHand.map(({ after }) => inFrames(after.span.in))).toEqual([0, 25, 10]);
    expect(plain.map(({ after }) => inFrames(after.span.in))).toEqual([0, 5, 10]);
    expect(byHand.map(({ after }) => inFrames(after.tracks.opacity?.[0].at ?? 0))).toEqual([0, 25, 10]);
    // Where it moves keys alone, the layer stays.
    const keys = planOn(three, { ...moving, moves: 'keys', overrides: { b: { start: '1:00' } } }).layers;
    expect(keys.map(({ after }) => inFrames(after.span.in))).toEqual([0, 0, 0]);
  });

  test('what is set by hand and cannot be read is said, and nothing is planned', () => {
    const told = (override: object) =>
      planOn(three, { preset: { id: 'rise-and-settle' }, overrides: { b: override } } as never).findings;
    expect(told({ parameters: { rise: 'up' } })).toMatchObject([{ code: 'bad-field' }]);
    expect(told({ parameters: { nothing: '3px' } }).map(({ code }) => code)).not.toContain('bad-field');
  });
});
