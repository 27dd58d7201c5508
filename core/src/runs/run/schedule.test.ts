import { describe, expect, test } from '@jest/globals';
import { frameTicks } from '../../basics/time';
import type { PresetRecipe } from '../../scene/recipe';
import { card, inFrames, PAL, recipeOf, sceneOf } from '../../testing/scenes';
import { createSchedule, createTiming, isStaggered, type Entrant } from './schedule';

const FRAME = frameTicks(PAL);

interface Wanted {
  readonly recipe?: Partial<PresetRecipe>;
  readonly hang?: 'in' | 'out';
  /** In and out points, places and lengths of the layers, in frames. */
  readonly layers?: readonly (readonly [first: number, end: number, place: number, lasts: number])[];
  /** In frames. */
  readonly cues?: readonly number[];
  readonly isOnGrid?: boolean;
}

const THREE = [0, 1, 2].map((place) => [0, 250, place, 10] as const);

function timed({ recipe, hang = 'in', layers = THREE, cues = [], isOnGrid = true }: Wanted) {
  const scene = {
    ...sceneOf([]),
    cues: cues.map((at, i) => ({ id: `c${i}`, at: at * FRAME, name: `${i}` })),
  };
  const { timing, problems } = createTiming(recipeOf(recipe), hang, scene, isOnGrid);
  const entrants = layers.map(([first, end, place, lasts]): Entrant => ({
    layer: card(`l${place}`, { span: { in: first * FRAME, out: end * FRAME } }),
    place,
    lasts: lasts * FRAME,
  }));
  const schedule = createSchedule(timing, entrants);
  return {
    timing,
    problems,
    found: schedule.problems,
    starts: schedule.slots.map(({ start }) => inFrames(start)),
    lasts: schedule.slots.map((slot) => inFrames(slot.lasts)),
    moved: schedule.slots.map((slot) => inFrames(slot.moved)),
    finish: inFrames(schedule.finish),
  };
}

describe('when layers of a run begin', () => {
  test('one every so often, each counted from its own in point, or all from one time', () => {
    const layers = [
      [5, 250, 0, 10],
      [20, 250, 1, 10],
      [0, 250, 2, 30],
    ] as const;
    const spacing = { by: 'gap', gap: '4f' } as const;
    expect(timed({ recipe: { spacing }, layers })).toMatchObject({ starts: [5, 24, 8], finish: 38 });
    expect(timed({ recipe: { spacing, start: { by: 'time', at: '2s' } }, layers }).starts).toEqual([50, 54, 58]);
    expect(timed({ recipe: { spacing: { by: 'gap', gap: '-4f' } }, layers: THREE }).starts).toEqual([0, -4, -8]);
  });

  test('spread over a time: the first at its beginning, the last at its end; one alone begins at once', () => {
    const spacing = { by: 'total', total: '30f', curve: { type: 'linear' } } as const;
    const four = [0, 1, 2, 3].map((place) => [0, 250, place, 10] as const);
    expect(timed({ recipe: { spacing }, layers: four }).starts).toEqual([0, 10, 20, 30]);
    expect(timed({ recipe: { spacing }, layers: [[3, 250, 0, 10]] }).starts).toEqual([3]);
  });

  test('one after the other: each as the longest of the place before is over, and a gap later', () => {
    const layers = [
      [0, 250, 0, 10],
      [0, 250, 0, 25],
      [0, 250, 1, 5],
      [0, 250, 2, 5],
    ] as const;
    const relay = (gap: string) => timed({ recipe: { spacing: { by: 'relay', gap } }, layers }).starts;
    expect(relay('0f')).toEqual([0, 0, 25, 30]);
    expect(relay('-3f')).toEqual([0, 0, 22, 24]);
  });

  test('on cues from the start on; beyond the last one as far apart as the last two, which is said', () => {
    const cues = [10, 30, 45, 60];
    const spacing = { by: 'cues' } as const;
    const five = [0, 1, 2, 3, 4].map((place) => [0, 250, place, 10] as const);
    const late = timed({ recipe: { spacing, start: { by: 'time', at: '20f' } }, layers: five, cues });
    expect(late.starts).toEqual([30, 45, 60, 75, 90]);
    expect(late.found).toEqual([{ code: 'cues-run-out', cues: 3, places: 5 }]);
    expect(timed({ recipe: { spacing }, layers: THREE, cues }).found).toEqual([]);
    expect(timed({ recipe: { spacing }, layers: five.slice(0, 4), cues }).found).toEqual([]);
    // One cue alone says no distance, so the others begin with it.
    expect(timed({ recipe: { spacing }, layers: THREE, cues: [10] }).starts).toEqual([10, 10, 10]);
    expect(timed({ recipe: { spacing }, cues: [] }).problems).toEqual([{ code: 'no-cues', at: 0 }]);
  });

  test('on cues that begin again with the first one', () => {
    const five = [0, 1, 2, 3, 4].map((place) => [0, 250, place, 10] as const);
    const again = timed({ recipe: { spacing: { by: 'cues', wrap: true } }, layers: five, cues: [10, 30, 45] });
    expect(again.starts).toEqual([10, 30, 45, 10, 30]);
    expect(again.found).toEqual([]);
  });

  test('in rows that take turns, and again from the beginning where the scene would be over', () => {
    const spacing = { by: 'rows', rows: 2, apart: '5f', hold: '100f' } as const;
    const layers = Array.from({ length: 7 }, (_, place) => [0, 250, place, 45] as const);
    expect(timed({ recipe: { spacing }, layers }).starts).toEqual([0, 5, 100, 105, 200, 205, 300]);
    // Of 250 frames the one that begins at 205 needs the last: what follows it begins with the first.
    const wrapped = timed({ recipe: { spacing: { ...spacing, wrap: true } }, layers });
    expect(wrapped.starts).toEqual([0, 5, 100, 105, 200, 205, 0]);
    const longer = layers.map(([first, end, place]) => [first, end, place, 46] as const);
    expect(timed({ recipe: { spacing: { ...spacing, wrap: true } }, layers: longer }).starts).toEqual([
      0, 5, 100, 105, 200, 0, 5,
    ]);
    // Where all are over in time, nothing begins again, the last one neither.
    const shorter = layers.slice(0, 4).map(([first, end, place]) => [first, end, place, 20] as const);
    expect(timed({ recipe: { spacing: { ...spacing, wrap: true } }, layers: shorter }).starts).toEqual([
      0, 5, 100, 105,
    ]);
    // Where not even the first is over in time, nothing can begin again.
    const endless = layers.map(([first, end, place]) => [first, end, place, 300] as const);
    expect(timed({ recipe: { spacing: { ...spacing, wrap: true } }, layers: endless }).starts[6]).toBe(300);
  });

  test('on whole frames where the preset does, else where the sum falls', () => {
    const spacing = { by: 'gap', gap: '0.1s' } as const;
    expect(timed({ recipe: { spacing } }).starts).toEqual([0, 3, 5]);
    expect(timed({ recipe: { spacing }, isOnGrid: false }).starts).toEqual([0, 2.5, 5]);
  });

  test('exits end at their out points: the last one with its keys, the ones before it earlier', () => {
    const spacing = { by: 'gap', gap: '4f' } as const;
    expect(timed({ recipe: { spacing }, hang: 'out' })).toMatchObject({ starts: [232, 236, 240], finish: 250 });
    // From a time they begin one after the other, as entrances do.
    const from = timed({ recipe: { spacing, start: { by: 'time', at: '2s' } }, hang: 'out' });
    expect(from.starts).toEqual([50, 54, 58]);
  });

  test('moving whole layers, each is moved by what it begins later than its own hook', () => {
    const layers = [
      [10, 100, 0, 10],
      [30, 100, 1, 20],
    ] as const;
    const recipe = { moves: 'layers', spacing: { by: 'gap', gap: '4f' } } as const;
    expect(timed({ recipe, layers })).toMatchObject({ starts: [10, 34], moved: [0, 4] });
    const from = { ...recipe, start: { by: 'time', at: '0s' } } as const;
    expect(timed({ recipe: from, layers })).toMatchObject({ starts: [0, 4], moved: [-10, -26] });
    expect(timed({ recipe: from, layers, hang: 'out' })).toMatchObject({ starts: [0, 4], moved: [-90, -76] });
  });

  test('only a gap other than nothing sets them apart', () => {
    const isApart = (spacing: PresetRecipe['spacing']) => isStaggered(timed({ recipe: { spacing } }).timing);
    expect(isApart({ by: 'gap', gap: '0f' })).toBe(false);
    expect(isApart({ by: 'gap', gap: '1f' })).toBe(true);
    expect(isApart({ by: 'total', total: '0f', curve: { type: 'linear' } })).toBe(false);
    expect(isApart({ by: 'relay', gap: '0f' })).toBe(true);
  });
});

describe('what follows from a finish', () => {
  test('a gap: the widest whole frames with which nobody ends later', () => {
    const gap = (at: string, layers: Wanted['layers'] = THREE) =>
      timed({ recipe: { spacing: { by: 'finish', at } }, layers });
    expect(gap('61f')).toMatchObject({ starts: [0, 25, 50], found: [] });
    // The one in the middle is long: its end says how wide the gap may be.
    const long = [THREE[0], [0, 250, 1, 40] as const, THREE[2]];
    expect(gap('61f', long)).toMatchObject({ starts: [0, 21, 42], finish: 61 });
    // Less than a frame is not rounded away to nothing, but starts are whole frames.
    expect(timed({ recipe: { spacing: { by: 'finish', at: '11f' } }, isOnGrid: false }).starts).toEqual([0, 0.5, 1]);
    expect(gap('5f')).toMatchObject({
      starts: [0, 0, 0],
      found: [{ code: 'cannot-meet', field: 'Finish', wanted: 5 * FRAME, nearest: 10 * FRAME, why: 'longer' }],
    });
    expect(gap('61f', [THREE[0]]).starts).toEqual([0]);
  });

  test('a length: all as long as lets the last one end there', () => {
    const length = (at: string, spacing: PresetRecipe['spacing'] = { by: 'gap', gap: '10f' }) =>
      timed({ recipe: { spacing, length: { by: 'finish', at } } });
    expect(length('61f')).toMatchObject({ starts: [0, 10, 20], lasts: [41, 41, 41], finish: 61 });
    // One after the other with two gaps of 3 f between them: (61 − 6) / 3, whole frames.
    expect(length('61f', { by: 'relay', gap: '3f' })).toMatchObject({ lasts: [18, 18, 18], starts: [0, 21, 42] });
    expect(length('20f')).toMatchObject({
      lasts: [1, 1, 1],
      found: [{ code: 'cannot-meet', field: 'Finish', wanted: 20 * FRAME, nearest: 21 * FRAME, why: 'frames' }],
    });
    expect(length('21f').found).toEqual([]);
  });

  test('a length by a window, from the first start to the last end', () => {
    const fit = (window: string) =>
      timed({
        recipe: { spacing: { by: 'gap', gap: '10f' }, length: { by: 'fit', window } },
        layers: THREE.map(([, end, place, lasts]) => [40, end, place, lasts] as const),
      });
    expect(fit('50f')).toMatchObject({ starts: [40, 50, 60], lasts: [30, 30, 30], finish: 90 });
    expect(fit('12f').found).toEqual([
      { code: 'cannot-meet', field: 'Window', wanted: 12 * FRAME, nearest: 21 * FRAME, why: 'frames' },
    ]);
  });

  test('a start: all of it is moved so that the last one ends there, unless that were before the scene', () => {
    const spacing = { by: 'gap', gap: '4f' } as const;
    const start = (at: string, more: Partial<PresetRecipe> = {}) =>
      timed({ recipe: { spacing, start: { by: 'finish', at }, ...more } });
    expect(start('100f')).toMatchObject({ starts: [82, 86, 90], moved: [0, 0, 0], finish: 100, found: [] });
    expect(start('100f', { moves: 'layers' }).moved).toEqual([82, 86, 90]);
    expect(start('18f')).toMatchObject({ starts: [0, 4, 8], found: [] });
    expect(start('17f')).toMatchObject({
      starts: [0, 4, 8],
      finish: 18,
      found: [{ code: 'cannot-meet', field: 'Finish', wanted: 17 * FRAME, nearest: 18 * FRAME, why: 'before-scene' }],
    });
  });

  test('only one of the three can', () => {
    const { problems } = timed({
      recipe: { start: { by: 'finish', at: '2s' }, spacing: { by: 'finish', at: '3s' } },
    });
    expect(problems).toEqual([
      {
        code: 'bad-field',
        field: 'Finish',
        text: '3s',
        message: 'Only one of start, gap and length can follow from the finish. Fix the others.',
      },
    ]);
  });
});

test('times that cannot be read are said with their field', () => {
  const { problems } = timed({ recipe: { start: { by: 'cue', cue: 'Nowhere' }, spacing: { by: 'gap', gap: 'soon' } } });
  expect(problems.map((problem) => ('field' in problem ? problem.field : ''))).toEqual(['Start', 'Gap']);
});
