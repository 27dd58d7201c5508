import { describe, expect, test } from '@jest/globals';
import { curvesOfPacked, packedLayersSchema, packLayers, slicePacked, unpackLayers, uploadPartSchema } from '.';
import { constellations } from '../../scene/demo';
import { apply } from '../../scene/edit';
import { curvesOf, type Key, type Layer } from '../../scene/layer';
import { planOn } from '../../testing/planning';

const { layers } = constellations();

/** The first keys of a packed scene set to something else, and what is then said. */
function saidOf(numbers: unknown): string | undefined {
  const packed = packLayers(layers);
  const spoilt = packed.layers.map((layer, i) => (i === 0 ? { ...layer, tracks: { opacity: numbers } } : layer));
  const read = packedLayersSchema.safeParse({ ...packed, eases: [{ type: 'linear' }], layers: spoilt });
  return read.error?.issues[0].message;
}

describe('layers as they travel', () => {
  test('are the same when they are unpacked', () => {
    expect(unpackLayers(packLayers(layers))).toEqual(layers);
    expect(unpackLayers(packLayers(applied()))).toEqual(applied());
    expect(uploadPartSchema.safeParse({ layers: packLayers(layers), runs: [] }).success).toBe(true);
    expect(uploadPartSchema.safeParse({ layers: null, runs: [] }).success).toBe(true);
    const twice = uploadPartSchema.safeParse({ layers: packLayers([layers[0], layers[1], layers[0]]), runs: [] });
    expect(twice.error?.issues[0].message).toBe('A layer is in it twice. Send each once.');
  });

  test.each([
    ['a list of text', ['0', '0', '0', '0'], 'must be a list of at most 400,000 numbers'],
    ['no list', { length: 4 }, 'must be a list'],
    ['numbers without end', [0, Infinity, 0, 0], 'must be a list'],
    ['too many', new Array(400_004).fill(0), 'must be a list of at most 400,000 numbers'],
    ['half a key', [0, 1], 'cut off in the middle of a key'],
    ['keys in no order', [5, 1, 0, 0, 5, 1, 0, 0], 'in order of time'],
    ['half a tick', [0.5, 1, 0, 0], 'whole number of ticks'],
    ['an easing that is not there', [0, 1, 99_999, 0], 'an easing that is not listed'],
    ['an origin that is not there', [0, 1, 0, 99_999], 'an origin that is not listed'],
    ['a value beyond all bounds', [0, 1, 0, 0, 5, 2e12, 0, 0], 'at most 1000000000000'],
    ['a value below all bounds', [0, 1, 0, 0, 5, -2e12, 0, 0], 'at least -1000000000000'],
    ['a time beyond all bounds', [0, 1, 0, 0, 1e16, 1, 0, 0], 'at most 9007199254740991'],
    ['no keys at all', [], 'without keys must be left out'],
  ])('are refused with %s', (_, numbers, sentence) => {
    expect(saidOf(numbers)).toContain(sentence);
  });

  test('may have values up to their bounds, and none beyond those that were fine before', () => {
    for (const most of [5e11, 1e12, 1e12]) expect(saidOf([0, -most, 0, 0, 5, most, 0, 0])).toBeUndefined();
    expect(saidOf([0, 1, 0, 0, 5, 1e12 + 1, 0, 0])).toContain('at most 1000000000000');
    expect(saidOf([0, 1, 0, 0, 5, 1, 0, 0])).toBeUndefined();
  });
});

/** Layers with keys of a run, and what stood below it. */
function applied(): readonly Layer[] {
  const scene = constellations();
  const done = apply(scene, planOn(scene, { preset: { id: 'rise-and-settle' } }).edits);
  if (!done.ok) throw new Error(done.problem.code);
  return done.scene.layers;
}

describe('a part of packed layers', () => {
  const soft: Key['ease'] = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 };
  const byHand = (at: number, value: number): Key => ({ at, value, ease: at % 2 ? soft : { type: 'hold' } });
  const byRun = (at: number, value: number): Key => ({ ...byHand(at, value), by: { run: 'r', slot: `s${at}` } });
  /** Keys of hands and of runs on one channel, and bases of each kind. */
  const mixed: Layer[] = layers.map((layer, i) => ({
    ...layer,
    tracks: { opacity: [byHand(i, 0.5), byRun(i + 1, 1), byHand(i + 2, 0)], rotation: [byRun(i, 4)] },
    ...[{}, { base: {} }, { base: { rest: { opacity: 0.5 } } }, { base: { tracks: { skew: [byHand(i, 9)] } } }][i % 4],
  }));

  test('has everything that it had: keys of hands beside those of runs, and what stood before', () => {
    const packed = packLayers(mixed);
    expect(packedLayersSchema.safeParse(packed).error?.issues ?? []).toEqual([]);
    expect(unpackLayers(packed)).toEqual(mixed);
    // Easings and origins are listed once, whatever objects they are.
    expect(packed.eases).toEqual([{ type: 'hold' }, soft]);
    expect(new Set(packed.origins.map((one) => JSON.stringify(one))).size).toBe(packed.origins.length);
    // A channel that this version does not know is left out, and the others are as they were.
    const [first, ...others] = packed.layers;
    const later = { ...first, tracks: { ...first.tracks, 'new.channel': [0, 1, 0, 0] } } as typeof first;
    expect(unpackLayers({ ...packed, layers: [later, ...others] })).toEqual(mixed);
  });

  const linked: Layer[] = layers.map((layer, i) => {
    const ease = { type: 'linear', curve: { id: `curve-${i % 3}`, name: 'A curve', revision: 1 + (i % 2) } } as const;
    const key: Key = { at: 0, value: i, ease, by: { run: `run-${i % 2}`, slot: `slot-${i % 4}` } };
    return i % 4 === 0 ? layer : { ...layer, tracks: { ...layer.tracks, opacity: [key] }, base: { tracks: {} } };
  });

  test.each([
    ['as they are', layers],
    ['with links, origins and bases', linked],
    ['as a run left them', applied()],
    ['with keys of hands and of runs', mixed],
  ])('%s is what they are packed alone', (_, all) => {
    const packed = packLayers(all);
    for (const [from, to] of [
      [0, 7],
      [7, 64],
      [60, 1_000],
      [all.length, all.length + 5],
    ]) {
      const own = all.slice(from, to);
      const slice = slicePacked(packed, from, to);
      expect(JSON.stringify(slice)).toBe(JSON.stringify(packLayers(own)));
      expect(curvesOfPacked(slice)).toEqual(own.map(curvesOf));
    }
  });
});
