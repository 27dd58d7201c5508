import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply } from '../../scene/edit';
import { sampleTrack } from '../../scene/sample';
import type { Key, Layer } from '../../scene/layer';
import { sceneSchema } from '../../scene/scene';
import { STARTER_PRESETS } from '../../library/starter';
import { applied, codesOf, framesOf, planOn, startsOf } from '../../testing/planning';
import { card, CONTEXT, inFrames, key, PAL, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { describeFinding } from '../finding';
import type { PresetRecipe } from '../../scene/recipe';

const three = sceneOf([card('a'), card('b'), card('c')]);

describe('check values (common practice)', () => {
  test('five-step pop: frames 0, 8, 11, 14, 16, 18; 0, 120, 80, 110, 90, 100 %; gap 8 ends at 18 + 8(n−1)', () => {
    const scene = applied(three, { preset: { id: 'pop-in-five-steps' }, spacing: { by: 'gap', gap: '8f' } });
    const pop = [
      [0, 0],
      [8, 1.2],
      [11, 0.8],
      [14, 1.1],
      [16, 0.9],
      [18, 1],
    ];
    scene.layers.forEach(({ tracks }, i) => {
      expect(framesOf(tracks['scale.x'])).toEqual(pop.map(([frame, value]) => [frame + 8 * i, value]));
      expect(framesOf(tracks['scale.y'])).toEqual(framesOf(tracks['scale.x']));
    });
    expect(framesOf(scene.layers[2].tracks['scale.x']).at(-1)?.[0]).toBe(18 + 8 * 2);
  });

  test('three panels at 60 fps: the last lands 1:10; exit from 1:40, the last gone 2:50', () => {
    const rate = { num: 60, den: 1 };
    const panels = sceneOf([card('a'), card('b'), card('c')], rate);
    const way = { spacing: { by: 'gap', gap: '5f' }, length: { by: 'fixed', length: '60f' } } as const;
    const entrance = planOn(panels, { ...way, preset: { id: 'slide-from-left-edge' } });
    expect(startsOf(entrance, rate)).toEqual([0, 5, 10]);
    expect(entrance.layers.map(({ starts, lasts }) => inFrames(starts + lasts, rate)).at(-1)).toBe(70);
    const exit = planOn(panels, {
      ...way,
      operation: 'send-out',
      preset: { id: 'slide-to-right-edge' },
      start: { by: 'time', at: '1:40' },
    });
    expect(startsOf(exit, rate)).toEqual([100, 105, 110]);
    expect(exit.layers.map(({ starts, lasts }) => inFrames(starts + lasts, rate)).at(-1)).toBe(170);
  });

  test('half-second beats at 30 fps: 15 f apart from 3:00, and the entrance keeps its 15 f when layers are lengthened', () => {
    const rate = { num: 30, den: 1 };
    const layers = ['a', 'b', 'c', 'd', 'e'].map((id) => card(id, { span: { in: 0, out: ticksFromSeconds(1) } }));
    const scene = sceneOf(layers, rate);
    const recipe: Partial<PresetRecipe> = {
      start: { by: 'time', at: '3:00' },
      spacing: { by: 'gap', gap: '15f' },
      length: { by: 'fixed', length: '15f' },
      moves: 'layers',
    };
    expect(startsOf(planOn(scene, recipe), rate)).toEqual([90, 105, 120, 135, 150]);
    const beats = applied(scene, recipe);
    expect(beats.layers.map(({ span }) => inFrames(span.in, rate))).toEqual([90, 105, 120, 135, 150]);
    const longer = apply(
      beats,
      beats.layers.map(({ id, span }) => ({
        type: 'set-layer',
        layer: id,
        fields: { span: { ...span, out: ticksFromSeconds(8) } },
      })),
    );
    if (!longer.ok) throw new Error();
    for (const { tracks, span } of longer.scene.layers) {
      const [first, last] = tracks.opacity as Key[];
      expect(first.at).toBe(span.in);
      expect(inFrames(last.at - first.at, rate)).toBe(15);
    }
  });

  test('fade in and out is four keys, and a layer at 60 % fades to 60 %', () => {
    const pale = sceneOf([card('a', { rest: { opacity: 0.6 } })]);
    const both = applied(applied(pale, {}), { operation: 'send-out', preset: { id: 'fade-out' } });
    expect(framesOf(both.layers[0].tracks.opacity)).toEqual([
      [0, 0],
      [12, 0.6],
      [238, 0.6],
      [250, 0],
    ]);
  });

  test('the same frames come at another rate: presets count frames, not seconds', () => {
    const rate = { num: 60000, den: 1001 };
    const scene = applied(sceneOf([card('a')], rate), { preset: { id: 'pop-in-five-steps' } });
    expect(framesOf(scene.layers[0].tracks['scale.x'], rate).map(([frame]) => frame)).toEqual([0, 8, 11, 14, 16, 18]);
  });

  test('n layers in a window: the starts spread evenly over the total', () => {
    const ten = sceneOf(Array.from({ length: 10 }, (_, i) => card(`l${i}`)));
    expect(startsOf(planOn(ten, { spacing: { by: 'total', total: '90f' } }))).toEqual([
      0, 10, 20, 30, 40, 50, 60, 70, 80, 90,
    ]);
  });
});

describe('who takes part', () => {
  const scene = sceneOf([
    card('a', { name: 'Row 1', tags: ['row'] }),
    card('b', { name: 'Row 2', tags: ['row'], locked: true }),
    card('c', { name: 'Row 10', tags: ['row'], hidden: true }),
    card('g', { kind: 'group', locked: true }),
    card('d', { name: 'Row 3', tags: ['row'], parent: 'g' }),
    card('e', { name: 'Other', kind: 'word' }),
    card('u', { name: 'Row guide', tags: ['row'], kind: 'guide' }),
  ]);

  test('locked, hidden and guide layers stay out and are named; a locked group holds for its layers', () => {
    const planned = planOn(scene, { pick: { by: 'rule', tag: 'row' } });
    expect(planned.layers.map(({ layer }) => layer)).toEqual(['a']);
    expect(planned.findings).toEqual([
      { code: 'guides', layers: ['u'] },
      { code: 'locked', layers: ['b', 'd'] },
      { code: 'hidden', layers: ['c'] },
    ]);
    expect(describeFinding(planned.findings[1], scene)).toBe('“Row 2” and “Row 3” are locked and stay as they are.');
  });

  test('name patterns know * and ?, and conditions hold together', () => {
    const rows = planOn(scene, { pick: { by: 'rule', name: 'row ?' } });
    expect(rows.layers.map(({ layer }) => layer)).toEqual(['a']);
    expect(planOn(scene, { pick: { by: 'rule', name: '*', kind: 'word' } }).layers).toHaveLength(1);
    expect(codesOf(planOn(scene, { pick: { by: 'rule', name: 'row (1' } }))).toContain('nothing-picked');
  });

  test('nothing picked is an error that says what to do, and gives no edits', () => {
    const planned = planOn(scene, { pick: { by: 'layers', layers: ['ghost'] } });
    expect(planned.edits).toEqual([]);
    expect(codesOf(planned)).toEqual(['nothing-picked', 'vanished']);
  });

  test('layers that have keys are left alone where that is asked for', () => {
    const keyed = sceneOf([card('a', { tracks: { opacity: [key(0, 1)] } }), card('b')]);
    const planned = planOn(keyed, { existing: 'leave' });
    expect(planned.layers.map(({ layer }) => layer)).toEqual(['b']);
    expect(planned.findings).toEqual([{ code: 'left-alone', layers: ['a'] }]);
  });
});

describe('order', () => {
  const at = (id: string, x: number, y: number, name = id): Layer =>
    card(id, { name, rest: { 'position.x': x, 'position.y': y } });
  const scene = sceneOf([
    at('a', 500, 10, 'Row 10'),
    at('b', 100, 250, 'Row 9'),
    at('c', 900, 490, 'Row 1'),
    at('d', 100, 300, 'Row 2'),
  ]);
  const placesFor = (order: PresetRecipe['order']): number[] =>
    planOn(scene, { order }).layers.map(({ place }) => place);

  test.each<[string, PresetRecipe['order'], number[]]>([
    ['as layered', { by: 'layered' }, [0, 1, 2, 3]],
    ['as layered, front first', { by: 'layered', reversed: true }, [3, 2, 1, 0]],
    ['by name, naturally', { by: 'name' }, [3, 2, 0, 1]],
    ['across, equal ones together', { by: 'across' }, [1, 0, 2, 0]],
    ['down', { by: 'down' }, [0, 1, 3, 2]],
    ['up', { by: 'down', reversed: true }, [3, 2, 0, 1]],
    ['out from a corner', { by: 'out-from', x: 0, y: 0 }, [2, 0, 3, 1]],
  ])('%s', (_, order, places) => expect(placesFor(order)).toEqual(places));

  test('shuffled gives every place once, the same for the same seed', () => {
    const places = placesFor({ by: 'shuffled', seed: 3 });
    expect([...places].sort()).toEqual([0, 1, 2, 3]);
    expect(placesFor({ by: 'shuffled', seed: 3 })).toEqual(places);
    const others = Array.from({ length: 8 }, (_, seed) => placesFor({ by: 'shuffled', seed }).join());
    expect(new Set(others).size).toBeGreaterThan(3);
  });
});

describe('timing', () => {
  test('exits end at each out point, earlier ones before the last', () => {
    const planned = planOn(three, {
      operation: 'send-out',
      preset: { id: 'fade-out' },
      spacing: { by: 'gap', gap: '5f' },
    });
    expect(planned.layers.map(({ starts, lasts }) => inFrames(starts + lasts))).toEqual([240, 245, 250]);
    expect(codesOf(planned)).toEqual([]);
  });

  test('whole layers move with their keys, and undo moves them back', () => {
    const scene = sceneOf([card('a', { tracks: { rotation: [key(0, 0), key(10, 9)] } }), card('b')]);
    const planned = planOn(scene, {
      moves: 'layers',
      spacing: { by: 'gap', gap: '20f' },
      order: { by: 'layered', reversed: true },
    });
    const moved = apply(scene, planned.edits);
    if (!moved.ok) throw new Error();
    expect(inFrames(moved.scene.layers[0].span.in)).toBe(20);
    expect(framesOf(moved.scene.layers[0].tracks.rotation)).toEqual([
      [20, 0],
      [30, 9],
    ]);
    expect(moved.scene.layers[0].base?.span).toEqual(scene.layers[0].span);
    expect(apply(moved.scene, moved.inverse)).toMatchObject({ ok: true, scene });
  });

  test('a factor stretches the preset’s own length, a fixed length sets it', () => {
    expect(planOn(three, { length: { by: 'factor', factor: 2 } }).layers[0].lasts).toBe(24 * frameTicks(PAL));
    expect(planOn(three, { length: { by: 'fixed', length: '1s' } }).layers[0].lasts).toBe(25 * frameTicks(PAL));
    expect(codesOf(planOn(three, { length: { by: 'fixed', length: '0f' } }))).toEqual(['bad-field']);
  });

  test('keys land on whole frames, and moments that meet on one frame become one with a finding', () => {
    const planned = planOn(three, { preset: { id: 'pop-in-five-steps' }, length: { by: 'fixed', length: '3f' } });
    const track = planned.layers[0].after.tracks['scale.x'] as Key[];
    expect(framesOf(track).map(([frame]) => frame)).toEqual([0, 1, 2, 3]);
    expect(track.at(-1)?.value).toBe(1);
    expect(codesOf(planned)).toContain('too-short');
  });

  test('over the whole span, a preset is as long as its layer', () => {
    const planned = planOn(three, { operation: 'move-throughout', preset: { id: 'drift' } });
    expect(inFrames(planned.layers[0].lasts)).toBe(250);
    expect(framesOf(planned.layers[0].after.tracks['position.x'])).toEqual([
      [0, 80],
      [250, 120],
    ]);
  });
});

describe('parameters', () => {
  const tilts = (tilt: PresetRecipe['parameters'][string]): number[] =>
    planOn(three, { preset: { id: 'rise-and-settle' }, parameters: { tilt } }).layers.map(({ values }) =>
      Number(values.tilt),
    );

  test('fixed, by turns, along the order, as a formula', () => {
    expect(tilts({ by: 'fixed', value: '9deg' })).toEqual([9, 9, 9]);
    expect(tilts({ by: 'cycle', values: ['-6deg', '6deg'] })).toEqual([-6, 6, -6]);
    expect(tilts({ by: 'ramp', from: '0deg', to: '10deg' })).toEqual([0, 5, 10]);
    expect(tilts({ by: 'fixed', value: 'place × 2deg' })).toEqual([0, 2, 4]);
  });

  test('at random: within the limits, the same for the same seed, and of each layer alone', () => {
    const random = { by: 'random', from: '-6deg', to: '6deg', seed: 5 } as const;
    const values = tilts(random);
    expect(tilts(random)).toEqual(values);
    expect(new Set(values).size).toBe(3);
    for (const value of values) expect(Math.abs(value)).toBeLessThanOrEqual(6);
    const fewer = planOn(sceneOf([card('b')]), { preset: { id: 'rise-and-settle' }, parameters: { tilt: random } });
    expect(fewer.layers[0].values.tilt).toBe(values[1]);
  });

  test('hard limits hold and say so; a wrong value names its field', () => {
    const limited = planOn(three, {
      preset: { id: 'pop-in-five-steps' },
      parameters: { over: { by: 'fixed', value: '900%' } },
    });
    expect(limited.layers[0].values.over).toBe(1);
    expect(limited.findings).toContainEqual({ code: 'limited', parameter: 'over', layers: ['a', 'b', 'c'] });
    const weighed = sceneOf([
      card('a', { data: { by: 900 } }),
      card('b', { data: { by: 30 } }),
      card('c', { data: { by: -5 } }),
    ]);
    const fromData = planOn(weighed, {
      preset: { id: 'pop-in-five-steps' },
      parameters: { over: { by: 'data', column: 'by' } },
    });
    expect(fromData.layers.map(({ values }) => values.over)).toEqual([1, 0.3, 0]);
    expect(fromData.findings).toContainEqual({ code: 'limited', parameter: 'over', layers: ['a', 'c'] });
    const wrong = planOn(three, {
      preset: { id: 'rise-and-settle' },
      parameters: { tilt: { by: 'fixed', value: '20px' } },
    });
    expect(describeFinding(wrong.findings[0], three)).toBe(
      'Tilt: “20px” does not work. This gives a length, and an angle is needed. Did you mean 20deg?',
    );
    expect(codesOf(planOn(three, { parameters: { ghost: { by: 'fixed', value: '1' } } }))).toEqual([
      'unknown-parameter',
    ]);
  });

  test('slides begin just outside the frame, whatever the anchor', () => {
    const scene = sceneOf([
      card('a', { rest: { 'position.x': 300, 'position.y': 90, 'size.x': 80, 'size.y': 20, 'anchor.x': 0.25 } }),
    ]);
    const [first] = planOn(scene, { preset: { id: 'slide-from-left-edge' } }).layers[0].after.tracks[
      'position.x'
    ] as Key[];
    expect(first.value + 80 * 0.75).toBeCloseTo(0, 9);
    const [right] = planOn(scene, { preset: { id: 'slide-from-right-edge' } }).layers[0].after.tracks[
      'position.x'
    ] as Key[];
    expect(right.value - 80 * 0.25).toBeCloseTo(1000, 9);
  });
});

describe('over existing keys', () => {
  const old = [key(0, 1), key(6, 0.5), key(100, 0.5), key(200, 0)];
  const scene = sceneOf([card('a', { tracks: { opacity: old } })]);
  const opacity = (existing: PresetRecipe['existing'], more: Partial<PresetRecipe> = {}) =>
    planOn(scene, { existing, ...more });

  test('replace takes away only what lies in the time it touches, and keeps what it took', () => {
    const planned = opacity('replace');
    expect(framesOf(planned.layers[0].after.tracks.opacity)).toEqual([
      [0, 0],
      [12, 1],
      [100, 0.5],
      [200, 0],
    ]);
    const kept = planned.edits.find((edit) => edit.type === 'set-base');
    expect(kept).toMatchObject({ layer: 'a', base: { tracks: { opacity: old } } });
    expect(planned.counts).toEqual({ layers: 1, added: 1, replaced: 1, removed: 1, kept: 2 });
  });

  test('replace whole channels takes every key on them', () => {
    expect(framesOf(opacity('replace-channels').layers[0].after.tracks.opacity)).toEqual([
      [0, 0],
      [12, 1],
    ]);
  });

  test('adding on top of a still value is exact', () => {
    const planned = opacity('add', { start: { by: 'time', at: '50f' } });
    expect(framesOf(planned.layers[0].after.tracks.opacity)).toEqual([
      [0, 1],
      [6, 0.5],
      [50, 0],
      [62, 0.5],
      [100, 0.5],
      [200, 0],
    ]);
  });

  test('adding on top of a moving value follows the sum within 0.1 % of the way', () => {
    const ease = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;
    const moving = sceneOf([card('a', { tracks: { 'position.y': [key(0, 100, ease), key(30, 400)] } })]);
    const recipe: Partial<PresetRecipe> = { preset: { id: 'rise-and-settle' }, start: { by: 'time', at: '5f' } };
    const made = planOn(sceneOf([card('a')]), recipe).layers[0].after.tracks['position.y'] as Key[];
    const sum = planOn(moving, { ...recipe, existing: 'add' }).layers[0].after.tracks['position.y'] as Key[];
    const standing = moving.layers[0].tracks['position.y'] as Key[];
    for (let frame = 5; frame <= 25; frame += 0.25) {
      const at = key(frame, 0).at;
      const expected = sampleTrack(standing, at) + sampleTrack(made, at) - 100;
      expect(Math.abs(sampleTrack(sum, at) - expected)).toBeLessThan(0.4);
    }
  });
});

describe('findings', () => {
  test('keys outside the layer and the scene are named with how far', () => {
    const short = sceneOf([card('a', { span: { in: 0, out: 8 * frameTicks(PAL) } })]);
    const planned = planOn(short, {});
    expect(planned.findings).toEqual([
      { code: 'outside-layer', layers: ['a'], at: 12 * frameTicks(PAL), by: 4 * frameTicks(PAL) },
    ]);
    expect(describeFinding(planned.findings[0], short)).toContain('up to 4 f outside the layer');
    expect(codesOf(planOn(three, { start: { by: 'time', at: '9:20' } }))).toEqual(['outside-scene', 'outside-layer']);
  });

  test('an exit that begins before the entrance has ended is found', () => {
    const scene = applied(three, { length: { by: 'fixed', length: '100f' } });
    const exit = planOn(scene, {
      operation: 'send-out',
      preset: { id: 'sink-away' },
      start: { by: 'time', at: '90f' },
    });
    expect(exit.findings).toContainEqual({
      code: 'entrance-meets-exit',
      layers: ['a', 'b', 'c'],
      at: 90 * frameTicks(PAL),
      by: 10 * frameTicks(PAL),
    });
    const later = planOn(scene, {
      operation: 'send-out',
      preset: { id: 'sink-away' },
      start: { by: 'time', at: '100f' },
    });
    expect(codesOf(later)).not.toContain('entrance-meets-exit');
  });

  test('an unknown preset, a verb of another phase and a wrong time stop the run with a sentence', () => {
    for (const recipe of [
      { preset: { id: 'ghost' } },
      { preset: { id: 'fade-out' } },
      { spacing: { by: 'gap', gap: '1:99' } as const },
    ]) {
      const planned = planOn(three, recipe);
      expect(planned.edits).toEqual([]);
      expect(describeFinding(planned.findings[0], three)).toMatch(/\.$/);
    }
  });
});

describe('laws', () => {
  const anyRecipe: fc.Arbitrary<Partial<PresetRecipe>> = fc
    .record({
      item: fc.constantFrom(...STARTER_PRESETS),
      order: fc.constantFrom<PresetRecipe['order']>(
        { by: 'down' },
        { by: 'name', reversed: true },
        { by: 'shuffled', seed: 9 },
        { by: 'out-from', x: 0.5, y: 0.5 },
      ),
      gap: fc.integer({ min: 0, max: 30 }),
      moves: fc.constantFrom<PresetRecipe['moves']>('keys', 'layers'),
      existing: fc.constantFrom<PresetRecipe['existing']>('replace', 'replace-channels', 'add', 'leave'),
      at: fc.option(fc.integer({ min: 0, max: 200 })),
    })
    .map(({ item, order, gap, moves, existing, at }) => ({
      operation: ({ entrance: 'bring-in', exit: 'send-out', accent: 'accent', throughout: 'move-throughout' } as const)[
        item.body.phase
      ],
      preset: { id: item.id },
      order,
      spacing: { by: 'gap', gap: `${gap}f` },
      moves,
      existing,
      start: at === null ? { by: 'layer' } : { by: 'time', at: `${at}f` },
    }));

  const scene = sceneOf([
    card('a', { tracks: { opacity: [key(0, 0.2), key(40, 1)], 'position.y': [key(3, 50), key(90, 200)] } }),
    card('b', { span: { in: ticksFromSeconds(1), out: ticksFromSeconds(6) } }),
    card('c', { rest: { 'position.x': 10, 'position.y': 400, rotation: 20, opacity: 0.6 } }),
  ]);

  test('planning changes nothing, gives the same plan twice, a valid scene, and undo gives the scene back', () => {
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const before = structuredClone(scene);
        const planned = planOn(scene, recipe);
        expect(scene).toEqual(before);
        expect(planOn(scene, recipe)).toEqual(planned);
        const result = apply(scene, planned.edits);
        if (!result.ok) throw new Error(result.problem.code);
        expect(sceneSchema.safeParse(result.scene).error?.issues ?? []).toEqual([]);
        expect(apply(result.scene, result.inverse)).toMatchObject({ ok: true, scene: before });
      }),
      { numRuns: 200 },
    );
  });

  test('every key that a run makes carries the run and its slot, and the rest pose is never touched', () => {
    fc.assert(
      fc.property(anyRecipe, (recipe) => {
        const planned = planOn(scene, { ...recipe, existing: 'replace' });
        for (const { after, layer } of planned.layers) {
          expect(after.rest).toEqual(scene.layers.find(({ id }) => id === layer)?.rest);
          const made = Object.values(after.tracks)
            .flat()
            .filter(({ by }) => by?.run === CONTEXT.runId);
          expect(made.length).toBeGreaterThan(0);
          for (const { by } of made) expect(by?.slot).toMatch(/^[\w.-]+\/[\w.-]+(~held)?$/);
        }
      }),
    );
  });
});

test('the sentence says the whole recipe', () => {
  const planned = planOn(three, {
    preset: { id: 'rise-and-settle' },
    pick: { by: 'layers', layers: ['a', 'b', 'c'] },
    order: { by: 'down' },
    start: { by: 'time', at: '0:10' },
    spacing: { by: 'gap', gap: '4f' },
    length: { by: 'fixed', length: '20f' },
    parameters: { tilt: { by: 'cycle', values: ['-6deg', '6deg'] } },
  });
  expect(planned.run?.sentence).toBe(
    'Bring in Rise & settle on 3 layers, top to bottom, from 0:10, one every 4 f, moving keys only, each lasting 20 f, tilt −6°, 6° by turns, and take the place of any earlier entrance.',
  );
});

test('a preset that is not there is told by its name, whatever revision of it is asked for', () => {
  for (const preset of [{ id: 'ghost' }, { id: 'ghost', revision: 2 }])
    expect(planOn(three, { preset }).findings).toEqual([{ code: 'unknown-preset', id: 'ghost' }]);
  const [{ id, name }] = STARTER_PRESETS;
  expect(planOn(three, { preset: { id, revision: 7 } }).findings).toEqual([
    { code: 'revision-missing', preset: name, revision: 7 },
  ]);
});
