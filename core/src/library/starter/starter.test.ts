import { describe, expect, test } from '@jest/globals';
import { presetChannels } from '../../formulas/preset';
import { apply } from '../../scene/edit';
import { createShelf, type PresetItem } from '../library';
import { describeFinding } from '../../runs/finding';
import { plan } from '../../runs/plan';
import { createRecipe, type PresetRecipe } from '../../scene/recipe';
import { operationFor } from '../../runs/run';
import { boundsAt, compileScene, frameAt, restFrame, sampleTrack } from '../../scene/sample';
import { restValue, tracksOf, type Key, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { card, CONTEXT, sceneOf } from '../../testing/scenes';
import { frameTicks, ticksFromSeconds, type Ticks } from '../../basics/time';
import type { Box } from '../../basics/transform';
import { STARTER_LIBRARY, STARTER_PRESETS } from '.';

const shelf = createShelf(STARTER_LIBRARY);

/** Layers that a preset might spoil: turned, small, half seen, hung on a corner, with an outline, with letters. */
const standing: Scene = sceneOf([
  card('plain', { rest: { 'position.x': 300, 'position.y': 200, 'size.x': 200, 'size.y': 80 } }),
  card('turned', {
    rest: { 'position.x': 700, 'position.y': 300, 'size.x': 90, 'size.y': 140, rotation: 30, opacity: 0.6 },
  }),
  card('corner', {
    rest: {
      'position.x': 120,
      'position.y': 420,
      'size.x': 60,
      'size.y': 60,
      'anchor.x': 0,
      'anchor.y': 1,
      'scale.x': 1.5,
      'scale.y': 0.5,
    },
  }),
  card('line', { look: { stroke: '#ffffff' }, rest: { 'position.x': 500, 'position.y': 250, 'stroke.width': 4 } }),
]);

interface Tried {
  readonly scene: Scene;
  readonly layers: readonly { readonly layer: Layer; readonly from: Ticks; readonly to: Ticks }[];
}

/** The standing layers as words with a number in them. */
const worded: Scene = {
  ...standing,
  layers: standing.layers.map((layer) => ({
    ...layer,
    source: {
      type: 'text',
      text: 'Tide #',
      font: 'Spline Sans',
      weight: 400,
      size: 20,
      align: 'left',
      number: { decimals: 0, point: '.', group: '' },
    },
  })),
};

/** A preset on the standing layers, as it comes or with other values; accents from one second on. */
function tried({ id, body }: PresetItem, parameters: PresetRecipe['parameters'] = {}): Tried {
  const scene = presetChannels(body).some((channel) => channel.startsWith('words.')) ? worded : standing;
  const recipe = {
    ...createRecipe(operationFor(body.phase), id, { by: 'rule', kind: 'card' }),
    start: body.hang === 'time' ? ({ by: 'time', at: '1s' } as const) : ({ by: 'layer' } as const),
    parameters,
  };
  const planned = plan(scene, shelf, recipe, CONTEXT);
  // Two frames are too few for presets of many moments; they say so, and still come to rest.
  const findings = planned.findings.filter(({ code }) => code !== 'too-short' || parameters.lasts === undefined);
  expect(findings.map((finding) => describeFinding(finding, scene))).toEqual([]);
  const result = apply(scene, planned.edits);
  if (!result.ok) throw new Error(result.problem.code);
  const layers = planned.layers.map(({ after, starts, lasts }) => ({ layer: after, from: starts, to: starts + lasts }));
  return { scene: result.scene, layers };
}

/** Channels that are away from the rest pose at a time. */
function awayAt(layer: Layer, at: Ticks): string[] {
  // A key's own value counts: a jump that begins on it is what the preset then does.
  const valueAt = (keys: readonly Key[]): number => keys.find((key) => key.at === at)?.value ?? sampleTrack(keys, at);
  return tracksOf(layer)
    .filter(([channel, keys]) => Math.abs(valueAt(keys) - restValue(layer, channel)) > 1e-9)
    .map(([channel]) => channel);
}

/** True when nothing of a layer is to be seen at a time: clear, without size, undrawn or off the frame. */
function isGone({ scene }: Tried, layer: Layer, at: Ticks): boolean {
  const value = (channel: Parameters<typeof restValue>[1]): number => {
    const keys = layer.tracks[channel];
    return keys ? sampleTrack(keys, at) : restValue(layer, channel);
  };
  if (value('opacity') < 1e-9 || Math.abs(value('scale.x') * value('scale.y')) < 1e-9) return true;
  if (layer.source.type === 'text' && value('words.shown') <= 0) return true;
  if (value('stroke.end') - value('stroke.start') < 1e-9) return true;
  const box = boundsAt(
    frameAt(compileScene(scene), at),
    scene.layers.findIndex(({ id }) => id === layer.id),
  );
  return box.right <= 1e-6 || box.bottom <= 1e-6 || box.left >= scene.width - 1e-6 || box.top >= scene.height - 1e-6;
}

const widthOf = ({ left, right }: Box): number => right - left;
const heightOf = ({ top, bottom }: Box): number => bottom - top;

function ofPhase(phase: PresetItem['body']['phase']): (readonly [string, PresetItem])[] {
  return STARTER_PRESETS.filter(({ body }) => body.phase === phase).map((item) => [item.name, item] as const);
}

describe('entrances', () => {
  test.each(ofPhase('entrance'))('%s ends in the rest pose', (_, item) => {
    for (const { layer, to } of tried(item).layers) expect(awayAt(layer, to)).toEqual([]);
  });

  test.each(ofPhase('entrance'))('%s begins unseen', (_, item) => {
    const all = tried(item);
    for (const { layer, from } of all.layers) expect([layer.id, isGone(all, layer, from)]).toEqual([layer.id, true]);
  });
});

test('Drop & squash keeps its area and stands on its ground, wherever the anchor is', () => {
  const { scene, layers } = tried(STARTER_PRESETS.find(({ id }) => id === 'drop-and-squash') as PresetItem);
  const compiled = compileScene(scene);
  const rest = restFrame(compiled);
  for (const { layer } of layers.filter(({ layer: { id } }) => id === 'plain' || id === 'corner')) {
    const index = scene.layers.findIndex(({ id }) => id === layer.id);
    const flat = layer.tracks['scale.y']?.find(({ by }) => by?.slot === 'scale.y/flat') as Key;
    const [before, after] = [boundsAt(rest, index), boundsAt(frameAt(compiled, flat.at), index)];
    expect(after.bottom).toBeCloseTo(before.bottom, 6);
    expect(heightOf(after)).toBeCloseTo(heightOf(before) * 0.7, 6);
    expect(widthOf(after) * heightOf(after)).toBeCloseTo(widthOf(before) * heightOf(before), 6);
  }
});

describe('exits', () => {
  test.each(ofPhase('exit'))('%s begins in the rest pose, ends at the out point and is gone', (_, item) => {
    const all = tried(item);
    for (const { layer, from, to } of all.layers) {
      expect(awayAt(layer, from)).toEqual([]);
      expect(to).toBe(layer.span.out);
      expect([layer.id, isGone(all, layer, to)]).toEqual([layer.id, true]);
    }
  });
});

describe('accents', () => {
  test.each(ofPhase('accent').filter(([name]) => name !== 'Trade sizes'))(
    '%s begins in the rest pose at its time',
    (_, item) => {
      for (const { layer, from } of tried(item).layers) {
        expect(from).toBe(ticksFromSeconds(1));
        expect(awayAt(layer, from)).toEqual([]);
      }
    },
  );

  test('Trade sizes makes every other layer large and then small, and those between the other way', () => {
    const item = STARTER_PRESETS.find(({ id }) => id === 'trade-sizes') as PresetItem;
    const shares = tried(item).layers.map(({ layer, from, to }) =>
      [from, to].map((at) => sampleTrack(layer.tracks['scale.x'] ?? [], at) / restValue(layer, 'scale.x')),
    );
    const rounded = shares.map((pair) => pair.map((share) => Number(share.toFixed(9))));
    const [large, small] = [
      [1.2, 0.7],
      [0.7, 1.2],
    ];
    expect(rounded).toEqual([large, small, large, small]);
  });
});

describe('through the whole span', () => {
  test.each(ofPhase('throughout'))('%s lasts as long as its layer', (_, item) => {
    for (const { layer, from, to } of tried(item).layers) expect({ in: from, out: to }).toEqual(layer.span);
  });
});

describe('at the ends of what its fields offer', () => {
  const ends = STARTER_PRESETS.flatMap((item) =>
    item.body.parameters.flatMap((parameter) =>
      (parameter.options ?? [parameter.from, parameter.to])
        .filter((value) => value !== undefined)
        .map((value) => [item.name, parameter.name, typeof value === 'string' ? value : value.name, item] as const),
    ),
  );

  test.each(ends)('%s with @%s at %s still does what its phase promises', (_, name, value, item) => {
    for (const { layer, from, to } of tried(item, { [name]: { by: 'fixed', value } }).layers) {
      if (item.body.phase === 'entrance') expect(awayAt(layer, to)).toEqual([]);
      if (item.body.phase === 'exit') expect(awayAt(layer, from)).toEqual([]);
      for (const [, keys] of tracksOf(layer)) expect(keys.every((key) => Number.isFinite(key.value))).toBe(true);
    }
  });
});

test('a fade of no frames is a cut on one frame: an exit is seen until then, an entrance from its beginning', () => {
  const none = { fade: { by: 'fixed', value: '0f' } } as const;
  const opacities = (id: string): (readonly number[])[] => {
    const { layers } = tried(STARTER_PRESETS.find((item) => item.id === id) as PresetItem, none);
    const { layer, to } = layers.find((entry) => entry.layer.id === 'turned') as Tried['layers'][number];
    return (layer.tracks.opacity ?? []).map(({ at, value }) => [(at - to) / frameTicks(standing.rate), value]);
  };
  expect(opacities('rise-and-settle-exit')).toEqual([
    [-1, 0.6],
    [0, 0],
  ]);
  expect(opacities('rise-and-settle').map(([, value]) => value)).toEqual([0.6]);
});
