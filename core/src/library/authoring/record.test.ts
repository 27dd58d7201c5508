import { describe, expect, test } from '@jest/globals';
import { createShelf, type PresetItem } from '../library';
import { createPresetCompiler, presetSchema, type Preset } from '../../formulas/preset';
import { plan } from '../../runs/plan';
import { operationFor } from '../../runs/run';
import { sampleTrack } from '../../scene/sample';
import { tracksOf, type Key, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { STARTER_LIBRARY, STARTER_PRESETS } from '../starter';
import { card, CONTEXT, inFrames, key, recipeOf, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { curveFigures, figureWords, matchingExit, nameFrom, recordedValues, recordingOf, recordPreset } from '.';

function itemOf(body: Preset, id = 'recorded'): PresetItem {
  return { ...STARTER_PRESETS[0], id, body };
}

function run(scene: Scene, body: Preset, more: Parameters<typeof recipeOf>[0] = {}): Layer[] {
  const shelf = createShelf([...STARTER_LIBRARY, itemOf(body)]);
  const recipe = recipeOf({ operation: operationFor(body.phase), preset: { id: 'recorded' }, ...more });
  const planned = plan(scene, shelf, recipe, CONTEXT);
  expect(
    planned.findings
      .map(({ code }) => code)
      .filter((code) => !['outside-layer', 'off-grid', 'no-words', 'no-number-shown'].includes(code)),
  ).toEqual([]);
  return planned.layers.map(({ after }) => after);
}

/** Keys that an artist set by hand on a layer at 100, 100 px with opacity 80 %. */
const soft = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 } as const;
const byHand = card('hand', {
  rest: { 'position.x': 100, 'position.y': 100, 'size.x': 200, 'size.y': 50, opacity: 0.8, rotation: 10 },
  tracks: {
    'position.y': [key(5, 160, soft), key(15, 90, soft), key(25, 100)],
    opacity: [key(5, 0), key(10, 0.8)],
    'scale.x': [key(5, 0.5, soft), key(25, 1)],
    rotation: [key(5, -20), key(25, 10)],
  },
});
const stage = { rate: { num: 25, den: 1 }, width: 1000, height: 500 };

function record(parameters: Readonly<Record<string, string>> = {}, distances: 'px' | 'layer' | 'frame' = 'px'): Preset {
  return recordPreset(byHand, stage, { ...recordedOf(byHand), distances, parameters }, nameFrom);
}

/** What a layer that has keys is recorded with at first. */
function recordedOf(layer: Layer): NonNullable<ReturnType<typeof recordingOf>> {
  const recording = recordingOf(layer);
  if (!recording) throw new Error('nothing to record');
  return recording;
}

describe('recording a layer’s keys', () => {
  test('guesses what they are: from away to rest is an entrance, over its times and channels', () => {
    expect(recordingOf(byHand)).toMatchObject({
      phase: 'entrance',
      from: 5 * frameTicks(stage.rate),
      to: 25 * frameTicks(stage.rate),
    });
    expect(recordingOf(card('none'))).toBeNull();
    const leaving = card('x', { tracks: { rotation: [key(0, 0), key(9, 40)] } });
    expect(recordingOf(leaving)?.phase).toBe('exit');
    const away = card('x', { rest: { rotation: 15 }, tracks: { rotation: [key(0, 15), key(9, -15)] } });
    expect(recordingOf(away)?.phase).toBe('exit');
    const bump = card('x', { tracks: { rotation: [key(0, 0), key(5, 40), key(9, 0)] } });
    expect(recordingOf(bump)?.phase).toBe('accent');
    const whole = card('x', { tracks: { rotation: [key(0, -4), key(250, 4)] } });
    expect(recordingOf(whole)?.phase).toBe('throughout');
  });

  test('leaves keys of runs out where there are keys by hand', () => {
    const mixed = card('x', {
      tracks: { rotation: [key(0, 3), key(9, 0)], opacity: [{ ...key(0, 0), by: { run: 'r', slot: 's' } }] },
    });
    expect(recordingOf(mixed)?.channels).toEqual(['rotation']);
  });

  test('gives a valid preset that says everything relative to the rest pose', () => {
    const preset = record();
    expect(presetSchema.safeParse(preset).error?.issues ?? []).toEqual([]);
    expect(preset.moments.map(({ at }) => at)).toEqual(['0f', '@lasts × 5 ÷ 20', '@lasts × 10 ÷ 20', '@lasts']);
    // Its length can be turned to three times what it is, and to sixty frames at least.
    expect(preset.parameters.find(({ name }) => name === 'lasts')).toMatchObject({ default: '20f', to: '60f' });
    const slow = card('x', { tracks: { rotation: [key(0, 0), key(30, 40)] } });
    const recording = recordingOf(slow);
    const kept = recording && recordPreset(slow, stage, { ...recording, distances: 'px', parameters: {} }, nameFrom);
    expect(kept?.parameters.find(({ name }) => name === 'lasts')).toMatchObject({ default: '30f', to: '90f' });
    expect(preset.rows.map(({ channel, cells }) => [channel, cells.map(({ value }) => value)])).toEqual([
      ['position.y', ['rest + 60px', 'rest - 10px', 'rest']],
      ['opacity', ['0', 'rest']],
      ['scale.x', ['rest × 50%', 'rest']],
      ['rotation', ['rest - 30deg', 'rest']],
    ]);
  });

  test('says moments as shares of its length: frames of frames where they fall on them, per cents else', () => {
    const times = (from: number, middle: number, to: number) => {
      const layer = card('x', { tracks: { rotation: [key(from, 0), key(middle, 9), key(to, 40)] } });
      const recording = recordingOf(layer);
      const preset =
        recording && recordPreset(layer, stage, { ...recording, distances: 'px', parameters: {} }, nameFrom);
      return preset?.moments.map(({ at }) => at);
    };
    expect(times(0, 4, 10)).toEqual(['0f', '@lasts × 4 ÷ 10', '@lasts']);
    expect(times(0, 2.5, 10)).toEqual(['0f', '@lasts × 25%', '@lasts']);
    expect(times(0, 3, 7.5)).toEqual(['0f', '@lasts × 40%', '@lasts']);
    // Over the whole layer they are shares of it, whatever frames it has.
    expect(times(0, 100, 250)).toEqual(['0f', 'layer.length × 40%', 'layer.length']);
  });

  test('keeps the shape of a curve that was put on from the library, without the link that only keys have', () => {
    const curve = { id: 'soft', name: 'Soft', revision: 2 };
    const linked = { ...byHand, tracks: { rotation: [key(5, -20, { ...soft, curve }), key(25, 10)] } };
    const recording = recordingOf(linked);
    if (!recording) throw new Error('nothing to record');
    const preset = recordPreset(linked, stage, { ...recording, distances: 'px', parameters: {} }, nameFrom);
    expect(JSON.stringify(preset)).not.toContain('Soft');
    expect(preset.rows[0].cells[0].ease).toEqual(soft);
  });

  test('put back on the same layer, it is the same keys again', () => {
    const bare = { ...byHand, tracks: {} };
    const [again] = run(sceneOf([bare]), record(), { start: { by: 'time', at: '5f' } });
    for (const [channel, keys] of tracksOf(byHand)) {
      const made = (again.tracks[channel] as Key[]).map(({ at, value, ease }) => ({ at, value, ease }));
      expect(made).toEqual(keys);
    }
  });

  test('on ten layers of other sizes and rest poses lands where it should', () => {
    const layers = Array.from({ length: 10 }, (_, i) =>
      card(`l${i}`, {
        span: { in: ticksFromSeconds(i * 0.2), out: ticksFromSeconds(9) },
        rest: {
          'position.x': 40 + i * 90,
          'position.y': 60 + i * 35,
          'size.x': 20 + i * 31,
          'size.y': 10 + i * 7,
          opacity: 1 - i * 0.07,
          rotation: i * -8,
          'scale.x': 1 + i * 0.1,
        },
      }),
    );
    const after = run(sceneOf(layers), record());
    after.forEach((layer, i) => {
      const { rest } = layers[i];
      const at = (frame: number): number => layers[i].span.in + frame * frameTicks(stage.rate);
      const value = (channel: 'position.y' | 'opacity' | 'scale.x' | 'rotation', frame: number): number =>
        sampleTrack(layer.tracks[channel] as Key[], at(frame));
      expect(value('position.y', 0)).toBeCloseTo((rest['position.y'] ?? 0) + 60, 9);
      expect(value('position.y', 10)).toBeCloseTo((rest['position.y'] ?? 0) - 10, 9);
      expect(value('position.y', 20)).toBe(rest['position.y']);
      expect([value('opacity', 0), value('opacity', 5)]).toEqual([0, rest.opacity]);
      expect(value('scale.x', 0)).toBeCloseTo((rest['scale.x'] ?? 1) / 2, 9);
      expect(value('scale.x', 20)).toBe(rest['scale.x']);
      expect(value('rotation', 0)).toBeCloseTo((rest.rotation ?? 0) - 30, 9);
      expect(value('rotation', 20)).toBeCloseTo(rest.rotation ?? 0, 12);
    });
  });

  test('distances can be said in shares of the layer or of the frame instead', () => {
    expect(record({}, 'layer').rows[0].cells[0].value).toBe('rest + 120% × layer.height');
    expect(record({}, 'frame').rows[0].cells[0].value).toBe('rest + 12% × frame.height');
    const big = card('big', { rest: { 'position.y': 200, 'size.x': 10, 'size.y': 100 } });
    const [after] = run(sceneOf([big]), record({}, 'layer'));
    expect(after.tracks['position.y']?.[0].value).toBe(320);
  });

  test('distances in shares count along their own side, of the layer as large as it rests', () => {
    const said = (more: Partial<Layer>, distances: 'px' | 'layer' | 'frame'): string[] => {
      const tracks = { 'position.x': [key(0, 400), key(9, 100)], 'position.y': [key(0, 40), key(9, 100)] };
      const layer = card('x', { tracks, ...more });
      const recording = recordingOf(layer);
      if (!recording) throw new Error();
      const { rows } = recordPreset(layer, stage, { ...recording, distances, parameters: {} }, nameFrom);
      return rows.map(({ cells }) => cells[0].value);
    };
    const rest = { 'position.x': 100, 'position.y': 100, 'size.x': 200, 'size.y': 50, 'scale.x': -0.5, 'scale.y': 2 };
    expect(said({ rest }, 'px')).toEqual(['rest + 300px', 'rest - 60px']);
    expect(said({ rest }, 'layer')).toEqual(['rest + 300% × layer.width', 'rest - 60% × layer.height']);
    expect(said({ rest }, 'frame')).toEqual(['rest + 30% × frame.width', 'rest - 12% × frame.height']);
    // Of a layer without size there are no shares.
    expect(said({ rest: { ...rest, 'size.x': 0 } }, 'layer')[0]).toBe('rest + 300px');
    // Only places are distances across the layer; a share of nothing is a share, a plain number is one.
    expect(said({ tracks: { 'size.x': [key(0, 150), key(9, 100)] } }, 'layer')).toEqual(['rest + 50px']);
    const opaque = { tracks: { opacity: [key(0, 0.25), key(9, 0)] }, rest: { ...rest, opacity: 0 } };
    expect(said(opaque, 'px')).toEqual(['25%']);
  });

  test('of keys that runs made, all are taken where there are none by hand', () => {
    const made = (frame: number, value: number): Key => ({ ...key(frame, value), by: { run: 'r', slot: `s${frame}` } });
    const layer = card('x', { tracks: { rotation: [made(0, 5), made(9, 0)], opacity: [made(0, 0)] } });
    expect(recordingOf(layer)?.channels).toEqual(['rotation', 'opacity']);
  });

  test('free handles between values that differ are the curve that they are', () => {
    const ease = { type: 'handles', leave: { time: 0.25, value: 20 }, arrive: { time: 0.25, value: -40 } } as const;
    const layer = card('x', { tracks: { rotation: [key(0, 100, ease), key(8, 0)] } });
    const recording = recordingOf(layer);
    if (!recording) throw new Error();
    const preset = recordPreset(layer, stage, { ...recording, distances: 'px', parameters: {} }, nameFrom);
    expect(preset.rows[0].cells[0].ease.type).toBe('bezier');
    const [again] = run(sceneOf([{ ...layer, tracks: {} }]), preset, { start: { by: 'time', at: '0f' } });
    for (const frame of [1, 3, 5, 7]) {
      const at = frame * frameTicks(stage.rate);
      expect(sampleTrack(again.tracks.rotation ?? [], at)).toBeCloseTo(sampleTrack(layer.tracks.rotation ?? [], at), 9);
    }
  });

  test('turns chosen values into parameters, each value once for all its places', () => {
    const recording = recordingOf(byHand);
    if (!recording) throw new Error();
    const values = recordedValues(byHand, stage, { ...recording, parameters: {} });
    expect(values.map(({ text, places }) => [text, places.join()])).toEqual([
      ['60px', 'position y at 0 f'],
      ['10px', 'position y at 10 f'],
      ['50%', 'scale x at 0 f'],
      ['30deg', 'rotation at 0 f'],
    ]);
    const preset = record({ [values[0].key]: 'Rise', [values[3].key]: 'Lasts' });
    expect(preset.parameters.map(({ name, kind, default: text }) => [name, kind, text])).toEqual([
      ['lasts', 'time', '20f'],
      ['rise', 'length', '60px'],
      ['lasts2', 'angle', '30deg'],
    ]);
    expect(preset.rows[0].cells[0].value).toBe('rest + @rise');
    expect(preset.rows[3].cells[0].value).toBe('rest - @lasts2');
    const [after] = run(sceneOf([card('a')]), preset, { parameters: { rise: { by: 'fixed', value: '5px' } } });
    expect(after.tracks['position.y']?.[0].value).toBe(105);
  });

  test('as far to one side as to the other is one value; half as large and twice as large are two', () => {
    const layer = card('x', {
      tracks: {
        'position.x': [key(0, 160), key(5, 40), key(9, 100)],
        'scale.x': [key(0, 0.5), key(5, 2), key(9, 1)],
      },
    });
    const recording = recordingOf(layer);
    if (!recording) throw new Error();
    const options = { ...recording, distances: 'px' as const };
    const values = recordedValues(layer, stage, { ...options, parameters: {} });
    expect(values.map(({ text, places }) => [text, places.length])).toEqual([
      ['60px', 2],
      ['50%', 1],
      ['200%', 1],
    ]);
    const preset = recordPreset(layer, stage, { ...options, parameters: { [values[0].key]: 'Far' } }, nameFrom);
    expect(preset.rows[0].cells.map(({ value }) => value)).toEqual(['rest + @far', 'rest - @far', 'rest']);
  });

  test('free handles between equal values keep their swing, relative to the rest pose', () => {
    const swing = { type: 'handles', leave: { time: 0.3, value: 0.4 }, arrive: { time: 0.3, value: 0.4 } } as const;
    const layer = card('s', {
      rest: { opacity: 0.5, 'size.x': 9, 'size.y': 9 },
      tracks: { opacity: [key(0, 0.5, swing), key(10, 0.5)] },
    });
    const preset = recordPreset(layer, stage, { ...recordedOf(layer), parameters: {} }, nameFrom);
    expect(preset.rows[0].cells[0].ease).toMatchObject({ leave: { value: 0.8 } });
    const [same] = run(sceneOf([{ ...layer, tracks: {} }]), preset, { start: { by: 'time', at: '0f' } });
    expect(same.tracks.opacity?.[0].ease).toEqual(swing);
    // Only shares are said in parts of what they rest at.
    const turned = card('t', { rest: { rotation: 20 }, tracks: { rotation: [key(0, 20, swing), key(10, 20)] } });
    const turning = recordPreset(turned, stage, { ...recordedOf(turned), parameters: {} }, nameFrom);
    expect(turning.rows[0].cells[0].ease).toEqual(swing);
  });
});

describe('the matching exit', () => {
  const entrances = STARTER_PRESETS.filter(({ body }) => body.phase === 'entrance');

  test.each(entrances.map((item) => [item.name, item] as const))('of %s plays it backwards', (_, item) => {
    const exit = matchingExit(item.body, item.id);
    expect(presetSchema.safeParse(exit).error?.issues ?? []).toEqual([]);
    expect(exit).toMatchObject({ phase: 'exit', hang: 'out', matches: item.id });
    const scene = sceneOf([
      card('a', { rest: { 'position.x': 400, 'position.y': 200, 'size.x': 90, 'size.y': 40, opacity: 0.6 } }),
    ]);
    const [entering] = run(scene, item.body);
    const [leaving] = run(scene, exit);
    const { in: start, out: end } = scene.layers[0].span;
    for (const [channel, keys] of tracksOf(entering)) {
      for (let frame = 0; frame <= 40; frame++) {
        const after = frame * frameTicks(stage.rate);
        // A jump belongs to the later side of its time, so that both directions are compared just beside it.
        const forwards = sampleTrack(keys, start + after + 7);
        const backwards = sampleTrack(leaving.tracks[channel] as Key[], end - after - 7);
        const way = Math.max(...keys.map(({ value }) => Math.abs(value)), 1);
        expect(Math.abs(backwards - forwards) / way).toBeLessThan(0.002);
      }
    }
  });

  test('names what was the start and the end by what they are now, wherever else such a name stands', () => {
    const [item] = entrances;
    const named = (...names: string[]) => {
      const moments = names.map((name, i) => ({ id: `m${i}`, name, at: `${i * 5}f` }));
      return matchingExit({ ...item.body, moments, rows: [], movements: undefined } as never, 'a').moments.map(
        ({ name }) => name,
      );
    };
    expect(named('Start', 'Middle', 'End')).toEqual(['Rest', 'Middle', 'Gone']);
    expect(named('start', 'End', 'Start', 'END')).toEqual(['Rest', 'Start', 'End', 'Gone']);
    expect(named('Below', 'Up')).toEqual(['Up', 'Below']);
  });

  test('ends where its latest moment does, told by time: 10 frames come before half a second', () => {
    const [item] = entrances;
    const { lasts: _lasts, ...body } = item.body;
    const moments = ['0f', '10f', '0.5s'].map((at, i) => ({ id: `m${i}`, name: `${i}`, at }));
    const exit = matchingExit({ ...body, moments, rows: [], movements: undefined } as never, 'a');
    expect(exit.moments.map(({ at }) => at)).toEqual(['0f', '0.5s - 10f', '0.5s']);
  });

  test('ends with its length where a moment is it, though others end as late by default', () => {
    const item = entrances.find(({ body }) => body.lasts !== undefined) ?? entrances[0];
    const length = `@${item.body.lasts}`;
    const [{ default: usual }] = item.body.parameters.filter(({ name }) => name === item.body.lasts);
    const moments = ['0f', length, usual].map((at, i) => ({ id: `m${i}`, name: `${i}`, at }));
    const exit = matchingExit({ ...item.body, moments, rows: [], movements: undefined } as never, 'a');
    expect(exit.moments.map(({ at }) => at)).toEqual([`${length} - ${usual}`, '0f', length]);
  });

  test('turns movements round: from where they ended, backwards; those that go backwards go on', () => {
    const [item] = entrances;
    const ease = { type: 'linear' } as const;
    const draw = {
      id: 'd',
      type: 'draw',
      from: 'start',
      to: 'end',
      way: 'end',
      ease,
      numbers: { piece: '20%' },
    } as const;
    const turned = matchingExit(
      { ...item.body, movements: [draw, { ...draw, id: 'e', reversed: true }] },
      'a',
    ).movements;
    expect(turned?.map(({ id, reversed, ...rest }) => [id, reversed, 'to' in rest && [rest.from, rest.to]])).toEqual([
      ['d', true, ['end', 'start']],
      ['e', undefined, ['end', 'start']],
    ]);
  });

  test('twice is the entrance’s own motion again, and springs come back as they were', () => {
    const [item] = entrances;
    const back = matchingExit(matchingExit(item.body, 'a'), 'b');
    expect(back.rows.map(({ cells }) => cells.map(({ ease }) => ease).slice(0, -1))).toEqual(
      item.body.rows.map(({ cells }) => cells.map(({ ease }) => ease).slice(0, -1)),
    );
  });
});

describe('figures of a curve', () => {
  test('are its extremes, its length and its fastest frame, and are told against another', () => {
    const pop = [key(0, 0), key(8, 1.2), key(11, 0.8), key(18, 1)];
    const figures = curveFigures(pop, stage.rate);
    expect(figures).toMatchObject({ least: 0, greatest: 1.2, frames: 18 });
    expect(figures.fastest).toBeCloseTo(0.15, 9);
    const lower = curveFigures([key(0, 0), key(8, 1.18), key(11, 0.8), key(18, 1)], stage.rate);
    expect(figureWords('scale.x', lower, figures)).toEqual([
      'highest 118 % → 120 %',
      'lowest 0 % as before',
      'lasts 18 f as before',
      'fastest 14.8 % → 15 % a frame',
    ]);
  });
});

test('a compiler keeps a preset for one lookup, and compiles anew for another', () => {
  const compile = createPresetCompiler();
  const [a, b] = [createShelf([]), createShelf(STARTER_LIBRARY)];
  const { body } = STARTER_PRESETS[0];
  expect(compile(body, a)).toBe(compile(body, a));
  expect(compile(body, b)).not.toBe(compile(body, a));
  expect(inFrames(frameTicks(stage.rate))).toBe(1);
});
