import { describe, expect, test } from '@jest/globals';
import { checkScene, mendsOf } from '../check';
import { describeFinding } from '../finding';
import { createRecipe } from '../../scene/recipe';
import { replan } from '../plan';
import { removeRun, switchRun } from '../stack';
import { sampleTrack } from '../../scene/sample';
import type { Layer } from '../../scene/layer';
import { applied, codesOf, edited, framesOf, layerOf, planOn, SHELF } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';

const three = sceneOf(['a', 'b', 'c'].map((id) => card(id)));
const first = applied(three, { operation: 'bring-in', preset: { id: 'fade-in' } });
const later = { operation: 'bring-in', preset: { id: 'fade-in' }, start: { by: 'time', at: '100f' } } as const;

function fades(layer: Layer): (readonly [number, number])[] {
  return framesOf(layer.tracks.opacity);
}

describe('a second entrance', () => {
  test('takes the place of the first where it says so, and that is what a new recipe says', () => {
    expect(createRecipe('bring-in', 'fade-in', { by: 'layers', layers: [] }).existing).toBe('take-place');
    expect(createRecipe('send-out', 'fade-out', { by: 'layers', layers: [] }).existing).toBe('take-place');
    expect(createRecipe('accent', 'bump', { by: 'layers', layers: [] }).existing).toBe('add');
    const planned = planOn(first, { ...later, existing: 'take-place' });
    expect(codesOf(planned)).not.toContain('twice');
    expect(planned.counts).toMatchObject({ added: 6, removed: 6 });
    // Keys of hands stay, and are not counted.
    const turning = sceneOf(three.layers.map((layer) => ({ ...layer, tracks: { rotation: [key(0, 0), key(9, 5)] } })));
    const again = planOn(applied(turning, { preset: { id: 'fade-in' } }), { ...later, existing: 'take-place' });
    expect(again.counts).toMatchObject({ added: 6, removed: 6 });
    expect(fades(layerOf(edited(first, planned.edits), 'a'))).toEqual([
      [100, 0],
      [112, 1],
    ]);
  });

  test('on other channels takes the place of the first all the same', () => {
    const slid = applied(first, {
      operation: 'bring-in',
      preset: { id: 'slide-from-left-edge' },
      start: later.start,
      existing: 'take-place',
    });
    const { opacity, ...others } = layerOf(slid, 'a').tracks;
    expect(opacity).toBeUndefined();
    expect(Object.keys(others)).toContain('position.x');
  });

  test('over the keys it touches leaves the first, holds in between, and is named with a mend', () => {
    const planned = planOn(first, { ...later, existing: 'replace' });
    const twice = planned.findings.find(({ code }) => code === 'twice');
    if (!twice) throw new Error('Not found.');
    expect(twice).toMatchObject({ layers: ['a', 'b', 'c'], operation: 'bring-in' });
    expect(describeFinding(twice, first)).toContain('appear twice: an earlier run brings them in too');
    const scene = edited(first, planned.edits);
    const track = layerOf(scene, 'a').tracks.opacity ?? [];
    for (let frame = 12; frame < 100; frame++) expect(sampleTrack(track, key(frame, 0).at)).toBe(1);
    expect(checkScene(scene, SHELF).map(({ code }) => code)).toContain('twice');
    const [mend] = mendsOf(twice, planned.run?.recipe as never, first, scene);
    expect(mend).toMatchObject({ label: 'Take its place', recipe: { existing: 'take-place' } });
  });

  test('taken out, switched off or changed gives the first back, whatever came since', () => {
    const both = applied(first, { ...later, existing: 'take-place' });
    expect(layerOf(edited(both, removeRun(both, 'run-2').edits), 'a')).toEqual(layerOf(first, 'a'));
    const off = edited(both, switchRun(both, 'run-2').edits);
    expect(layerOf(off, 'a')).toEqual(layerOf(first, 'a'));
    expect(edited(off, switchRun(off, 'run-2').edits).layers).toEqual(both.layers);
    const withoutFirst = edited(both, removeRun(both, 'run-1').edits);
    expect(fades(layerOf(withoutFirst, 'a'))).toEqual(fades(layerOf(both, 'a')));
    const replanned = replan(
      both,
      SHELF,
      'run-1',
      { ...(both.runs[0].recipe as never as Record<string, unknown>), length: { by: 'fixed', length: '30f' } } as never,
      { by: 'x', when: '2026-01-01T00:00:00.000Z' },
    );
    expect(fades(layerOf(edited(both, replanned.edits), 'a'))).toEqual(fades(layerOf(both, 'a')));
  });
});

test('an accent on top of an entrance changes none of its keys, and none of its motion before', () => {
  const accented = applied(first, {
    operation: 'accent',
    preset: { id: 'bump' },
    start: { by: 'time', at: '60f' },
    existing: 'add',
  });
  expect(fades(layerOf(accented, 'b'))).toEqual(fades(layerOf(first, 'b')));
});

describe('what cannot be held is refused', () => {
  test.each([
    ['a time', { spacing: { by: 'gap', gap: '10000000s' } }],
    ['a length', { length: { by: 'fixed', length: '12000000s' }, spacing: { by: 'relay', gap: '0f' } }],
  ] as const)('%s', (_, change) => {
    const planned = planOn(three, {
      operation: 'bring-in',
      preset: { id: 'fade-in' },
      order: { by: 'name' },
      ...change,
    });
    expect(planned.findings).toMatchObject([{ code: 'cannot-hold', what: 'time' }]);
    expect(planned.edits).toEqual([]);
    expect(describeFinding(planned.findings[0], three)).toContain('147 days');
  });

  test('a length by a small factor is a frame at least', () => {
    const planned = planOn(three, {
      operation: 'bring-in',
      preset: { id: 'fade-in' },
      length: { by: 'factor', factor: 0.01 },
    });
    expect(planned.layers.map(({ lasts }) => lasts / 28_224_000)).toEqual([1, 1, 1]);
  });
});

describe('rows and cues that run out can begin again with the first', () => {
  const six = { ...sceneOf(['a', 'b', 'c', 'd', 'e', 'f'].map((id) => card(id))), length: 705_600_000 * 5 };
  const rows = { by: 'rows', rows: 2, apart: '10f', hold: '50f' } as const;
  const startsOf = (spacing: object): number[] =>
    planOn(six, {
      operation: 'bring-in',
      preset: { id: 'fade-in' },
      order: { by: 'name' },
      spacing: spacing as never,
    }).layers.map(({ starts }) => starts / 28_224_000);

  test('rows wrap after the last one that is over in time', () => {
    expect(startsOf(rows)).toEqual([0, 10, 50, 60, 100, 110]);
    expect(startsOf({ ...rows, hold: '60f', wrap: true })).toEqual([0, 10, 60, 70, 0, 10]);
  });

  test('cues wrap after the last one', () => {
    const scene = {
      ...six,
      cues: [5, 20].map((frame, i) => ({ id: `c${i}`, name: `Cue ${i}`, at: frame * 28_224_000 })),
    };
    const planned = planOn(scene, {
      operation: 'bring-in',
      preset: { id: 'fade-in' },
      order: { by: 'name' },
      spacing: { by: 'cues', wrap: true },
    });
    expect(planned.layers.map(({ starts }) => starts / 28_224_000)).toEqual([5, 20, 5, 20, 5, 20]);
    expect(codesOf(planned)).not.toContain('cues-run-out');
  });
});
