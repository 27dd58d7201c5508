import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { tracksOf, type Key, type Layer } from '../../scene/layer';
import type { AdjustRecipe, AdjustStep, PresetRecipe } from '../../scene/recipe';
import { addStep, ADJUST_TYPES, removeStep } from '../../scene/recipe';
import { sampleTrack } from '../../scene/sample';
import { sceneSchema, type Scene } from '../../scene/scene';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { adjust } from '../../testing/adjusting';
import { applied, codesOf, edited, framesOf, layerOf, planOn, SHELF } from '../../testing/planning';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';
import { stepByHand } from './by-hand';
import { runMoments } from './picked';
import { replan } from '../plan';
import { removeRun, switchRun } from '../stack';

const FRAME = frameTicks(PAL);
const soft: Key['ease'] = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 };

const moving: Scene = sceneOf([
  card('a', {
    tracks: {
      'position.x': [key(10, 0, soft), key(20, 100, soft), key(40, 60)],
      rotation: [key(10, 0), key(30, 90)],
    },
  }),
  card('b', { tracks: { 'position.x': [key(15, 0, soft), key(25, 50), key(35, 80)] } }),
]);

function frames(scene: Scene, id: string, channel: 'position.x' | 'rotation' = 'position.x') {
  return framesOf(layerOf(scene, id).tracks[channel]);
}

/** The scene after an adjustment. */
function after(recipe: AdjustRecipe, scene: Scene = moving): Scene {
  return applied(scene, recipe);
}

describe('steps in time', () => {
  test('shift, stretch about each first key, fit and window', () => {
    expect(frames(after(adjust({ type: 'shift' }, { by: '-5f' })), 'a')).toEqual([
      [5, 0],
      [15, 100],
      [35, 60],
    ]);
    const stretched = after(adjust({ type: 'stretch', pivot: { by: 'first' } }, { to: '200%' }));
    expect(frames(stretched, 'a')).toEqual([
      [10, 0],
      [30, 100],
      [70, 60],
    ]);
    expect(frames(stretched, 'a', 'rotation')).toEqual([
      [10, 0],
      [50, 90],
    ]);
    expect(frames(stretched, 'b')).toEqual([
      [15, 0],
      [35, 50],
      [55, 80],
    ]);
    const about = after(adjust({ type: 'stretch', pivot: { by: 'time', at: '20f' } }, { to: '50%' }));
    expect(frames(about, 'a').map(([at]) => at)).toEqual([15, 20, 30]);
    expect(frames(after(adjust({ type: 'fit' }, { length: '60f' })), 'a').map(([at]) => at)).toEqual([10, 30, 70]);
    expect(frames(after(adjust({ type: 'window' }, { from: '0f', to: '30f' })), 'b').map(([at]) => at)).toEqual([
      0, 15, 30,
    ]);
    expect(frames(after(adjust({ type: 'window' }, { from: '20f', to: '80f' })), 'b').map(([at]) => at)).toEqual([
      20, 50, 80,
    ]);
  });

  test.each([
    // The keys of “a” are at 10, 20, 30 and 40; it is shown from 5 to 200.
    ['first', [10, 15, 20, 25]],
    ['last', [25, 30, 35, 40]],
    ['middle', [17.5, 22.5, 27.5, 32.5]],
    ['in', [7.5, 12.5, 17.5, 22.5]],
    ['out', [105, 110, 115, 120]],
  ] as const)('halved about the %s of what is picked, or of the layer, keys are at %j', (by, expected) => {
    const span = { in: 5 * FRAME, out: 200 * FRAME };
    const tracks = { opacity: [10, 20, 30, 40].map((at) => key(at, 1)) };
    const halved = after(
      adjust({ type: 'stretch', pivot: { by } }, { to: '50%' }),
      sceneOf([card('a', { span, tracks })]),
    );
    expect(framesOf(layerOf(halved, 'a').tracks.opacity).map(([at]) => at)).toEqual(expected);
  });

  test('restagger keeps each shape and gives the starts a new spacing; gaps are closed', () => {
    const order = { by: 'layered', reversed: true } as const;
    const scene = after({ ...adjust({ type: 'restagger' }, { gap: '8f' }), order });
    expect(frames(scene, 'b')[0][0]).toBe(10);
    expect(frames(scene, 'a').map(([at]) => at)).toEqual([18, 28, 48]);
    expect(frames(scene, 'a', 'rotation').map(([at]) => at)).toEqual([18, 38]);
    const closed = after(adjust({ type: 'close-gaps' }, { gap: '2f' }));
    expect([frames(closed, 'a')[0][0], frames(closed, 'b')[0][0]]).toEqual([10, 42]);
  });

  test('moments of several layers that are spread lie apart evenly, and the outermost stay', () => {
    const uneven = [3, 7, 21, 22, 43].map((at, i) => key(at, i));
    const scene = sceneOf([card('a', { tracks: { rotation: uneven, opacity: [key(7, 0), key(43, 1)] } })]);
    const { tracks } = applied(scene, adjust({ type: 'spread', of: 'time' })).layers[0];
    expect(tracks.rotation?.map(({ at }) => at / FRAME)).toEqual([3, 13, 23, 33, 43]);
    expect(tracks.opacity?.map(({ at }) => at / FRAME)).toEqual([13, 43]);
  });

  test('spread, retime with its ends kept, whole frames, another rate, cues', () => {
    expect(frames(after(adjust({ type: 'spread', of: 'time' })), 'a').map(([at]) => at)).toEqual([10, 20, 40]);
    const late: Key['ease'] = { type: 'bezier', x1: 0.8, y1: 0, x2: 1, y2: 0.6 };
    const retimed = frames(after(adjust({ type: 'retime', ease: late }, {}, { channels: ['position.x'] })), 'a');
    expect([retimed[0][0], retimed[2][0]]).toEqual([10, 40]);
    expect(retimed[1][0]).toBeLessThan(15);
    const odd = after(adjust({ type: 'shift' }, { by: '0.01s' }));
    const plan = planOn(odd, adjust({ type: 'whole-frames' }));
    expect(plan.findings.map((finding) => describeFinding(finding, odd))).toContain(
      '8 keys were between frames and moved by at most 25 % of a frame.',
    );
    expect(frames(after(adjust({ type: 'whole-frames' }), odd), 'a')).toEqual(frames(moving, 'a'));
    // Frame 24 of 24 a second is a second; here it stands on frame 24 of 25.
    const film = sceneOf([card('a', { tracks: { rotation: [key(0, 0), { ...key(0, 9), at: ticksFromSeconds(1) }] } })]);
    expect(frames(after(adjust({ type: 'conform' }, { rate: '24' }), film), 'a', 'rotation')[1][0]).toBe(24);
    // There is no frame n at no rate: all stay.
    for (const rate of ['0', '-24'])
      expect(frames(after(adjust({ type: 'conform' }, { rate }), film), 'a', 'rotation')[1][0]).toBe(25);
    const cued = {
      ...moving,
      cues: [
        { id: 'c', name: 'Beat', at: 18 * FRAME },
        { id: 'd', name: 'End', at: 41 * FRAME },
      ],
    } as Scene;
    expect(frames(after(adjust({ type: 'to-cues' }, {}, { which: 'last' }), cued), 'a').at(-1)).toEqual([41, 60]);
    // As near to one as to the other, it goes to the earlier.
    const between = {
      ...cued,
      cues: [38, 42].map((at, i) => ({ id: `c${i}`, name: 'Beat', at: at * FRAME })),
    } as Scene;
    expect(frames(after(adjust({ type: 'to-cues' }, {}, { which: 'last' }), between), 'a').at(-1)).toEqual([38, 60]);
  });

  test('how many keys were moved to whole frames, of which layers, and how far at most; those that are not picked do not count', () => {
    const off = (frame: number, by: number) => ({ ...key(frame, 1), at: frame * FRAME + by });
    const mixed = sceneOf([
      card('a', { tracks: { opacity: [off(3, 500), key(5, 0), off(9, -900)], rotation: [off(4, 7_000)] } }),
      card('b', { tracks: { opacity: [key(2, 0), key(6, 1)] } }),
    ]);
    const found = (channels?: ['opacity']) =>
      planOn(mixed, adjust({ type: 'whole-frames' }, {}, channels ? { channels } : {})).findings.filter(
        ({ code }) => code === 'rounded',
      );
    expect(found(['opacity'])).toEqual([{ code: 'rounded', layers: ['a'], keys: 2, most: 900 }]);
    expect(found()).toEqual([{ code: 'rounded', layers: ['a'], keys: 3, most: 7_000 }]);
    const even = { ...mixed, layers: [mixed.layers[1]] };
    expect(planOn(even, adjust({ type: 'whole-frames' })).findings.filter(({ code }) => code === 'rounded')).toEqual(
      [],
    );
  });

  test('time is inserted for all that follows, and taken out again', () => {
    const more = after(adjust({ type: 'move-later' }, { at: '20f', by: '10f' }));
    expect(frames(more, 'a').map(([at]) => at)).toEqual([10, 30, 50]);
    const less = applied(more, adjust({ type: 'move-later' }, { at: '20f', by: '-10f' }));
    expect(frames(less, 'a')).toEqual(frames(moving, 'a'));
  });

  test('a hold of 30 f after the first key holds every channel and moves as before on both sides', () => {
    const scene = after(adjust({ type: 'hold' }, { for: '30f' }, { which: 'inner', channels: ['position.x'] }));
    const [before, now] = [layerOf(moving, 'a').tracks, layerOf(scene, 'a').tracks];
    for (const channel of ['position.x', 'rotation'] as const) {
      const [old, held] = [before[channel] ?? [], now[channel] ?? []];
      for (let f = 0; f <= 20; f++) expect(sampleTrack(held, f * FRAME)).toBeCloseTo(sampleTrack(old, f * FRAME), 6);
      for (let f = 20; f <= 50; f++) expect(sampleTrack(held, f * FRAME)).toBeCloseTo(sampleTrack(old, 20 * FRAME), 6);
      for (let f = 50; f <= 80; f++)
        expect(sampleTrack(held, f * FRAME)).toBeCloseTo(sampleTrack(old, (f - 30) * FRAME), 6);
    }
  });

  test('a hold in the middle of free handles cuts them: what is before and after moves as it did', () => {
    const swing = { type: 'handles', leave: { time: 0.2, value: 120 }, arrive: { time: 0.3, value: -60 } } as const;
    const steps = { type: 'steps', count: 5, jump: 'end' } as const;
    for (const ease of [swing, steps, soft]) {
      const tracks = { 'position.x': [key(0, 0, ease), key(40, 100)], rotation: [key(17, 5)] };
      const one = sceneOf([card('a', { tracks })]);
      const held = after(adjust({ type: 'hold' }, { for: '10f' }, { channels: ['rotation'] }), one);
      const [was, now] = [one, held].map((scene) => layerOf(scene, 'a').tracks['position.x'] ?? []);
      for (let frame = 0; frame <= 40; frame += 0.5) {
        const later = frame > 17 ? frame + 10 : frame;
        expect(sampleTrack(now, later * FRAME)).toBeCloseTo(sampleTrack(was, frame * FRAME), 6);
      }
      for (let frame = 17; frame < 27; frame++)
        expect(sampleTrack(now, frame * FRAME)).toBeCloseTo(sampleTrack(was, 17 * FRAME), 6);
    }
  });

  describe('entrances and exits that keep their length', () => {
    const made = (frame: number, value: number, run: string): Key => ({
      ...key(frame, value),
      by: { run, slot: `opacity/m${frame}` },
    });
    /** An entrance from 10 to 20, a key by hand in between, an exit from 40 to 46. */
    const runs = [
      { operation: 'bring-in', id: 'come' },
      { operation: 'send-out', id: 'go' },
    ].map(({ operation, id }) => ({ id, recipe: { operation } }) as Scene['runs'][number]);
    const whole = (step: AdjustStep, numbers: Readonly<Record<string, number>>, tracks: Key[]): number[] => {
      const scene = { ...sceneOf([card('a', { tracks: { opacity: tracks } })]), runs };
      const picks = new Map([['a', new Map([['opacity' as const, new Set(tracks.map(({ at }) => at))]])]]);
      const { picks: now } = stepByHand(scene, picks, step, (name) => numbers[name]);
      return [...(now.get('a')?.get('opacity') ?? [])].map((at) => at / FRAME);
    };
    const tracks = [made(10, 0, 'come'), made(20, 1, 'come'), key(30, 1), made(40, 1, 'go'), made(46, 0, 'go')];

    test('stretched to double about the first key, what is in between takes up the change', () => {
      const step = { id: 's1', type: 'stretch', pivot: { by: 'first' } } as const;
      expect(whole(step, { to: 2 }, tracks)).toEqual([10, 30, 50, 70, 82]);
      // 10 + 10 behind the first, 82 − 6 before the last, and half way between them.
      expect(whole({ ...step, keepsEnds: true }, { to: 2 }, tracks)).toEqual([10, 20, 48, 76, 82]);
    });

    test('made to last a time or to fill a window', () => {
      const fit = { id: 's1', type: 'fit', pivot: { by: 'last' }, keepsEnds: true } as const;
      expect(whole(fit, { length: 20 / 25 }, tracks)).toEqual([26, 36, 38, 40, 46]);
      const window = { id: 's1', type: 'window', keepsEnds: true } as const;
      expect(whole(window, { from: 0, to: 2 }, tracks)).toEqual([0, 10, 27, 44, 50]);
    });

    test('without room between them, all changes alike; an entrance alone stays as it is', () => {
      const fit = { id: 's1', type: 'fit', pivot: { by: 'first' }, keepsEnds: true } as const;
      expect(whole(fit, { length: 9 / 25 }, tracks)).toEqual([10, 12.5, 15, 17.5, 19]);
      expect(whole({ ...fit, type: 'stretch' }, { to: 3 }, tracks.slice(0, 2))).toEqual([10, 20]);
      expect(whole({ ...fit, type: 'stretch' }, { to: 3 }, tracks.slice(0, 3))).toEqual([10, 20, 70]);
      // An exit alone ends where all would, and is as long as before.
      expect(whole({ ...fit, type: 'stretch' }, { to: 3 }, tracks.slice(3))).toEqual([52, 58]);
      expect(whole({ ...fit, type: 'stretch' }, { to: 3 }, [key(10, 0), ...tracks.slice(3)])).toEqual([10, 112, 118]);
    });
  });

  test('keys by their place, and by the moment of the preset that made them', () => {
    const second = after(adjust({ type: 'shift' }, { by: '1f' }, { which: 'nth', nth: 2 }));
    expect(frames(second, 'a').map(([at]) => at)).toEqual([10, 21, 40]);
    expect(frames(second, 'b').map(([at]) => at)).toEqual([15, 26, 35]);
    expect(codesOf(planOn(moving, adjust({ type: 'shift' }, {}, { which: 'nth', nth: 9 })))).toContain(
      'nothing-to-adjust',
    );
    const risen = applied(moving, { preset: { id: 'rise-and-settle' } } as Partial<PresetRecipe>);
    const [run] = risen.runs;
    const moment = runMoments(run).at(-1);
    const later = after(adjust({ type: 'shift' }, { by: '7f' }, { run: run.id, moment: moment?.id ?? '' }), risen);
    const moved = tracksOf(layerOf(risen, 'a')).flatMap(([channel, keys]) =>
      keys.map(({ at, by }, i) => ({
        isMeant: by?.slot === `${channel}/${moment?.id ?? ''}`,
        by: ((layerOf(later, 'a').tracks[channel] ?? [])[i].at - at) / FRAME,
      })),
    );
    expect(moved.filter(({ isMeant }) => isMeant).map(({ by }) => by)).toContain(7);
    expect(moved.every(({ isMeant, by }) => by === (isMeant ? 7 : 0))).toBe(true);
  });

  test('reverse plays backwards', () => {
    const scene = after(adjust({ type: 'reverse' }));
    const [old, now] = [moving, scene].map((one) => layerOf(one, 'a').tracks['position.x'] ?? []);
    for (let f = 10; f <= 40; f++)
      expect(sampleTrack(now, (50 - f) * FRAME)).toBeCloseTo(sampleTrack(old, f * FRAME), 6);
  });
});

describe('steps in value', () => {
  const values = (recipe: AdjustRecipe): number[] => frames(after(recipe), 'a').map(([, value]) => value);

  test('scale about rest, the mean or 0; offset, mirror, limit, smooth, spread', () => {
    expect(values(adjust({ type: 'scale', about: 'zero' }, { to: '50%' }))).toEqual([0, 50, 30]);
    expect(values(adjust({ type: 'scale', about: 'rest' }, { to: '0%' }))).toEqual([100, 100, 100]);
    const [a, b, c] = values(adjust({ type: 'scale', about: 'mean' }, { to: '50%' }));
    expect((a + b + c) / 3).toBeCloseTo(160 / 3, 9);
    expect(values(adjust({ type: 'offset' }, { by: '-7' }))).toEqual([-7, 93, 53]);
    expect(values(adjust({ type: 'mirror' }))).toEqual([200, 100, 140]);
    expect(values(adjust({ type: 'limit' }, { low: '10', high: '70' }))).toEqual([10, 70, 60]);
    expect(values(adjust({ type: 'smooth' }, { by: '100%' }))).toEqual([0, 30, 60]);
    expect(values(adjust({ type: 'spread', of: 'value' }))).toEqual([0, 30, 60]);
  });

  test('shares are meant as per cent', () => {
    const faded = sceneOf([card('a', { tracks: { opacity: [key(0, 0), key(10, 1)] } })]);
    const [first] = layerOf(after(adjust({ type: 'offset' }, { by: '20' }), faded), 'a').tracks.opacity ?? [];
    expect(first.value).toBeCloseTo(0.2, 12);
    expect(codesOf(planOn(faded, adjust({ type: 'offset' }, {}, { low: 50 })))).toEqual(['adjusted']);
    expect(planOn(faded, adjust({ type: 'offset' }, { by: '1' }, { low: 50 })).counts.replaced).toBe(1);
  });
});

describe('easings', () => {
  const eases = (scene: Scene) => (layerOf(scene, 'a').tracks['position.x'] ?? []).map(({ ease }) => ease);

  test('the same arrival on all, departures added to, every key held', () => {
    const arrived = eases(after(adjust({ type: 'strengths', way: 'set', parts: 'arrival' }, { reach: '60%' })));
    expect(arrived[0]).toEqual({ type: 'bezier', x1: 0.3, y1: 0, x2: 0.4, y2: 1 });
    const left = eases(after(adjust({ type: 'strengths', way: 'add', parts: 'departure' }, { leave: '20%' })));
    expect(left[0]).toEqual({ type: 'bezier', x1: 0.5, y1: 0, x2: 0.2, y2: 1 });
    expect(eases(after(adjust({ type: 'freeze' }))).map(({ type }) => type)).toEqual(['hold', 'hold', 'hold']);
    expect(eases(after(adjust({ type: 'ease', ease: soft }, {}, { which: 'last' })))[2]).toEqual(soft);
  });
});

test('thinning out stays within its tolerance, by far fewer keys', () => {
  const many = Array.from({ length: 101 }, (_, i) => key(i, 100 * Math.sin(i / 16), { type: 'linear' }));
  const scene = sceneOf([card('a', { tracks: { 'position.x': many } })]);
  const thin = layerOf(after(adjust({ type: 'thin-out' }, { within: '0.5' }), scene), 'a').tracks['position.x'] ?? [];
  expect(thin.length).toBeLessThan(15);
  for (let f = 0; f <= 100; f += 0.25) {
    expect(Math.abs(sampleTrack(thin, f * FRAME) - sampleTrack(many, f * FRAME))).toBeLessThanOrEqual(0.51);
  }
});

describe('laws', () => {
  const keysOf = fc
    .uniqueArray(fc.integer({ min: 0, max: 200 }), { minLength: 1, maxLength: 12 })
    .chain((times) =>
      fc
        .array(fc.integer({ min: -500, max: 500 }), { minLength: times.length, maxLength: times.length })
        .map((values) => times.sort((a, b) => a - b).map((at, i) => key(at, values[i], soft))),
    );
  const anyScene = fc
    .array(keysOf, { minLength: 1, maxLength: 3 })
    .map((tracks) =>
      sceneOf(tracks.map((keys, i) => card(`l${i}`, { tracks: { 'position.x': keys, rotation: keys.slice(0, 2) } }))),
    );
  const tracksIn = (scene: Scene) =>
    scene.layers.map(({ tracks }) =>
      Object.entries(tracks).map(([channel, keys]) => [
        channel,
        (keys as Key[]).map(({ at, value }) => [at, Number(value.toFixed(6))]),
      ]),
    );

  test('a stretch by k and by 1/k is nothing; a shift there and back is nothing; backwards twice is nothing', () => {
    fc.assert(
      fc.property(anyScene, fc.constantFrom(2, 4, 5), (scene, k) => {
        const long = after(adjust({ type: 'stretch', pivot: { by: 'first' } }, { to: `${k * 100}%` }), scene);
        const short = applied(long, adjust({ type: 'stretch', pivot: { by: 'first' } }, { to: `${100 / k}%` }));
        expect(tracksIn(short)).toEqual(tracksIn(scene));
        const later = after(adjust({ type: 'shift' }, { by: '7f' }), scene);
        expect(tracksIn(applied(later, adjust({ type: 'shift' }, { by: '-7f' })))).toEqual(tracksIn(scene));
        const twice = applied(after(adjust({ type: 'reverse' }), scene), adjust({ type: 'reverse' }));
        expect(tracksIn(twice)).toEqual(tracksIn(scene));
        // 1 − (1 − 0.3) is 0.3 but for the last digit.
        const easesIn = (one: Scene): string =>
          JSON.stringify(
            one.layers.map(({ tracks }) => tracks['position.x']?.map(({ ease }) => ease)),
            (_, value: unknown) => (typeof value === 'number' ? Number(value.toFixed(12)) : value),
          );
        expect(easesIn(twice)).toBe(easesIn(scene));
      }),
      { numRuns: 40 },
    );
  });

  test('any step, applied and removed, gives the scene back; switched off and on again it is the same', () => {
    fc.assert(
      fc.property(anyScene, fc.constantFrom(...ADJUST_TYPES), (scene, type) => {
        const recipe = addStep({ ...adjust({ type: 'shift' }, { by: '0f' }) }, type);
        const planned = planOn(scene, recipe);
        if (planned.run === null) return;
        const done = edited(scene, planned.edits);
        expect(sceneSchema.safeParse(done).success).toBe(true);
        const gone = edited(done, removeRun(done, 'run-1').edits);
        expect(tracksIn(gone)).toEqual(tracksIn(scene));
        const off = edited(done, switchRun(done, 'run-1').edits);
        const on = edited(off, switchRun(off, 'run-1').edits);
        expect(on.layers).toEqual(done.layers);
      }),
      { numRuns: 80 },
    );
  });

  test('a shift commutes with a stagger: the order of both does not matter', () => {
    fc.assert(
      fc.property(anyScene, (scene) => {
        const shift = adjust({ type: 'shift' }, { by: '9f' });
        const stagger = adjust({ type: 'restagger' }, { gap: '3f' });
        expect(tracksIn(applied(applied(scene, shift), stagger))).toEqual(
          tracksIn(applied(applied(scene, stagger), shift)),
        );
      }),
      { numRuns: 30 },
    );
  });

  test('retiming keeps the ends and the order', () => {
    fc.assert(
      fc.property(
        anyScene,
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (scene, x1, x2) => {
          const ease: Key['ease'] = { type: 'bezier', x1, y1: 1.4, x2, y2: -0.4 };
          const now = after(adjust({ type: 'retime', ease }), scene);
          now.layers.forEach(({ tracks }, i) => {
            const [old, keys] = [scene.layers[i].tracks['position.x'] ?? [], tracks['position.x'] ?? []];
            expect(keys[0].at).toBeGreaterThanOrEqual(old[0].at);
            expect(keys.at(-1)?.at).toBeLessThanOrEqual(old.at(-1)?.at ?? 0);
            expect(keys.every((one, k) => k === 0 || one.at > keys[k - 1].at)).toBe(true);
          });
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('on top of runs', () => {
  const board = sceneOf([card('a'), card('b'), card('c')]);
  const entrance: Partial<PresetRecipe> = { preset: { id: 'rise-and-settle' }, spacing: { by: 'gap', gap: '4f' } };
  const staggered = applied(board, entrance);

  test('keys keep their run and slot, and the run beneath can be changed: the adjustment is done again on top', () => {
    const later = applied(staggered, adjust({ type: 'shift' }, { by: '10f' }));
    const marks = (layer: Layer): unknown[] => (layer.tracks.opacity ?? []).map(({ by }) => by);
    expect(marks(layerOf(later, 'b'))).toEqual(marks(layerOf(staggered, 'b')));
    const wider = { ...(later.runs[0].recipe as PresetRecipe), spacing: { by: 'gap' as const, gap: '6f' } };
    const next = edited(later, replan(later, SHELF, 'run-1', wider, CONTEXT).edits);
    const expected = applied(
      applied(board, { ...entrance, spacing: { by: 'gap', gap: '6f' } }),
      adjust({ type: 'shift' }, { by: '10f' }),
    );
    expect(next.layers.map(({ tracks }) => tracks)).toEqual(expected.layers.map(({ tracks }) => tracks));
  });

  test('what was set by hand over an adjustment stays, whichever of the runs below is changed or removed', () => {
    const later = applied(staggered, adjust({ type: 'shift' }, { by: '10f' }));
    const keys = layerOf(later, 'b').tracks.opacity ?? [];
    const byHand = keys.with(-1, { ...keys[keys.length - 1], value: 0.25 });
    const set = edited(later, [{ type: 'set-track', layer: 'b', channel: 'opacity', keys: byHand }]);
    const wider = { ...(set.runs[0].recipe as PresetRecipe), spacing: { by: 'gap' as const, gap: '6f' } };
    const next = edited(set, replan(set, SHELF, 'run-1', wider, CONTEXT).edits);
    expect(layerOf(next, 'b').tracks.opacity?.at(-1)?.value).toBe(0.25);
    expect(layerOf(next, 'b').tracks.opacity?.[0].at).toBe(16 * FRAME);
    const alone = edited(next, removeRun(next, 'run-2').edits);
    expect(layerOf(alone, 'b').tracks.opacity?.[0].at).toBe(6 * FRAME);
    expect(layerOf(alone, 'b').tracks.opacity?.at(-1)?.value).toBe(0.25);
  });

  test('a change beneath that would push what stands on top beyond what can be held is refused, and says what', () => {
    const far = applied(staggered, adjust({ type: 'shift' }, { by: '10000000s' }));
    const later = (at: string) => ({
      ...(far.runs[0].recipe as PresetRecipe),
      start: { by: 'time' as const, at },
    });
    const refused = replan(far, SHELF, 'run-1', later('5000000s'), CONTEXT);
    expect(refused.edits).toEqual([]);
    expect(refused.findings).toMatchObject([{ code: 'cannot-hold', layers: ['a', 'b', 'c'], what: 'time' }]);
    // The run alone, and a smaller change, fit.
    expect(replan(staggered, SHELF, 'run-1', later('5000000s'), CONTEXT).edits).not.toEqual([]);
    expect(replan(far, SHELF, 'run-1', later('1s'), CONTEXT).edits).not.toEqual([]);
  });

  test('a restagger follows what the run beneath makes now', () => {
    const restaggered = applied(staggered, adjust({ type: 'restagger' }, { gap: '2f' }));
    const shifted = { ...(restaggered.runs[0].recipe as PresetRecipe), start: { by: 'time' as const, at: '1s' } };
    const next = edited(restaggered, replan(restaggered, SHELF, 'run-1', shifted, CONTEXT).edits);
    const starts = next.layers.map(({ tracks }) => (tracks.opacity?.[0].at ?? 0) / FRAME);
    expect(starts).toEqual([25, 27, 29]);
  });

  test('by phase, by run, by hand, along the order and at random', () => {
    const both = applied(staggered, { operation: 'send-out', preset: { id: 'fade-out' } });
    const exits = applied(both, adjust({ type: 'shift' }, { by: '-25f' }, { phases: ['exit'] }));
    const [old, now] = [both, exits].map((scene) => layerOf(scene, 'a').tracks.opacity ?? []);
    expect(now[0]).toEqual(old[0]);
    expect(now.at(-1)?.at).toBe((old.at(-1)?.at ?? 0) - 25 * FRAME);
    const ramp: AdjustRecipe = {
      ...adjust({ type: 'shift' }, {}, { run: 'run-1' }),
      parameters: { s1_by: { by: 'ramp', from: '0f', to: '20f' } },
    };
    const spread = applied(both, ramp).layers.map(({ tracks }) => (tracks.opacity?.[0].at ?? 0) / FRAME);
    expect(spread).toEqual([0, 14, 28]);
    expect(codesOf(planOn(both, adjust({ type: 'shift' }, {}, { byHand: true })))).toEqual(['nothing-to-adjust']);
  });

  test('a wrong time, an unknown cue and two orderings of the starts are refused with a sentence', () => {
    const told = (recipe: AdjustRecipe): string[] =>
      planOn(staggered, recipe).findings.map((finding) => describeFinding(finding, staggered));
    expect(told(adjust({ type: 'stretch', pivot: { by: 'cue', cue: 'Nowhere' } }))[0]).toContain('no cue of this name');
    const cued = { ...moving, cues: [{ id: 'c1', name: 'Drop', at: 20 * FRAME }] };
    const about = after(adjust({ type: 'stretch', pivot: { by: 'cue', cue: 'Drop' } }, { to: '50%' }), cued);
    expect(frames(about, 'a').map(([at]) => at)).toEqual([15, 20, 30]);
    const twice = addStep(adjust({ type: 'restagger' }), 'close-gaps');
    expect(told(twice)[0]).toContain('second adjustment');
    expect(removeStep(twice, 's2').steps).toHaveLength(1);
    expect(told(adjust({ type: 'shift' }, { by: '12px' }))[0]).toContain('12px');
  });
});

test('keys at one time alone have no length that could be fitted, eased or spread over, and stay', () => {
  const alone = sceneOf([card('a', { tracks: { opacity: [key(7, 1)], rotation: [key(7, 4)] } })]);
  const fit = adjust({ type: 'fit' }, { length: '60f' });
  for (const recipe of [fit, adjust({ type: 'stretch' }, { to: '300%' }), adjust({ type: 'spread', of: 'time' })]) {
    expect(after(recipe, alone).layers.map(({ tracks }) => tracks)).toEqual(alone.layers.map(({ tracks }) => tracks));
  }
});
