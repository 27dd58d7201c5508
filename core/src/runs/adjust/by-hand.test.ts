import { describe, expect, test } from '@jest/globals';
import type { ChannelId } from '../../basics/channel';
import { frameTicks, ticksFromSeconds, type Ticks } from '../../basics/time';
import { applied, edited, framesOf, layerOf, SHELF } from '../../testing/planning';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import type { AdjustStep, PresetRecipe } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { replan } from '../plan';
import {
  copyKeys,
  countPicks,
  keyAt,
  pickByRule,
  setRests,
  keyClipSchema,
  movePicks,
  pasteKeys,
  pasteWords,
  readKeyClip,
  removePicks,
  setPickedValues,
  stepByHand,
  type HandPicks,
  type KeyClip,
} from '.';

const FRAME = frameTicks(PAL);
const scene = sceneOf([
  card('a', { tracks: { opacity: [key(0, 0), key(10, 1)], rotation: [key(0, 30), key(20, 0)] } }),
  card('b', { rest: { rotation: 90, opacity: 0.5 }, span: { in: ticksFromSeconds(1), out: ticksFromSeconds(9) } }),
  card('locked', { locked: true, tracks: { opacity: [key(0, 1)] } }),
]);

function picks(layer: string, channel: ChannelId, ...frames: number[]): HandPicks {
  return new Map([[layer, new Map([[channel, new Set<Ticks>(frames.map((at) => at * FRAME))]])]]);
}

function after({ edits }: { edits: Parameters<typeof edited>[1] }, on: Scene = scene): Scene {
  return edited(on, edits);
}

describe('keys that are picked by hand', () => {
  test('move, change their values, and go; they stay picked where they now are', () => {
    const moved = movePicks(scene, picks('a', 'opacity', 10), 5 * FRAME);
    expect(framesOf(layerOf(after(moved), 'a').tracks.opacity)).toEqual([
      [0, 0],
      [15, 1],
    ]);
    expect(moved.picks).toEqual(picks('a', 'opacity', 15));
    const set = setPickedValues(scene, picks('a', 'rotation', 0, 20), (value) => value + 5);
    expect(framesOf(layerOf(after(set), 'a').tracks.rotation)).toEqual([
      [0, 35],
      [20, 5],
    ]);
    const gone = removePicks(scene, picks('a', 'rotation', 0, 20));
    expect(layerOf(after(gone), 'a').tracks.rotation).toBeUndefined();
    expect(countPicks(gone.picks)).toBe(0);
    expect(movePicks(scene, picks('locked', 'opacity', 0), FRAME).edits).toEqual([]);
  });

  test('a key that is moved onto another takes its place', () => {
    const moved = movePicks(scene, picks('a', 'opacity', 0), 10 * FRAME);
    expect(framesOf(layerOf(after(moved), 'a').tracks.opacity)).toEqual([[10, 0]]);
  });

  test('any step can be done on them; what is written anew belongs to no run', () => {
    const held = stepByHand(scene, picks('a', 'opacity', 0), { id: 's1', type: 'hold' }, () => 0.4);
    const { tracks } = layerOf(after(held), 'a');
    expect(framesOf(tracks.opacity)).toEqual([
      [0, 0],
      [10, 0],
      [20, 1],
    ]);
    expect([...(tracks.opacity ?? []), ...(tracks.rotation ?? [])].every(({ by }) => by === undefined)).toBe(true);
  });

  test('steps know the cues of the scene, the span and the rest pose of the layer', () => {
    const cued = { ...scene, cues: [4, 23].map((frame, i) => ({ id: `c${i}`, name: 'Beat', at: frame * FRAME })) };
    const step = (type: 'to-cues' | 'scale' | 'stretch', more: object = {}, number = 1) =>
      after(
        stepByHand(cued, picks('a', 'rotation', 0, 20), { id: 's1', type, ...more } as AdjustStep, () => number),
        cued,
      );
    const turns = (on: Scene) => framesOf(layerOf(on, 'a').tracks.rotation);
    expect(turns(step('to-cues'))).toEqual([
      [4, 30],
      [23, 0],
    ]);
    // Rotation rests at 0, opacity at all.
    expect(turns(step('scale', { about: 'rest' }, 0.5))).toEqual([
      [0, 15],
      [20, 0],
    ]);
    const faded = stepByHand(
      cued,
      picks('a', 'opacity', 0),
      { id: 's1', type: 'scale', about: 'rest' } as AdjustStep,
      () => 0.5,
    );
    expect(framesOf(layerOf(after(faded, cued), 'a').tracks.opacity)[0]).toEqual([0, 0.5]);
    const out = ticksFromSeconds(10) / FRAME;
    expect(turns(step('stretch', { pivot: { by: 'out' } }, 0.5)).map(([at]) => at)).toEqual([out / 2, out / 2 + 10]);
  });

  test('are picked by a rule, on the layers that are asked for; a wrong time is told', () => {
    const all = new Set(['a', 'b', 'locked']);
    expect(pickByRule(scene, { which: 'last' }, all).picks).toEqual(picks('a', 'rotation', 20));
    expect(countPicks(pickByRule(scene, { which: 'all', channels: ['opacity'], high: 50 }, all).picks)).toBe(1);
    expect(pickByRule(scene, { which: 'all' }, new Set(['b'])).picks.size).toBe(0);
    expect(pickByRule(scene, { which: 'all', from: 'soon' }, all).problems).toHaveLength(1);
  });

  test('rest poses change on the channels of what is picked, and the keys stay', () => {
    const next = after(setRests(scene, picks('a', 'rotation', 0), (value) => value + 15));
    expect(layerOf(next, 'a').rest.rotation).toBe(15);
    expect(layerOf(next, 'a').tracks).toEqual(layerOf(scene, 'a').tracks);
    expect(setRests(scene, picks('locked', 'opacity', 0), () => 0).edits).toEqual([]);
  });

  test('one channel is keyed at a time on many layers, each from the value that it has there', () => {
    const keyed = keyAt(scene, new Set(['a', 'b', 'locked']), 'rotation', 10 * FRAME, (value) => value + 1);
    expect(framesOf(layerOf(after(keyed), 'a').tracks.rotation)).toEqual([
      [0, 30],
      [10, 16],
      [20, 0],
    ]);
    expect(framesOf(layerOf(after(keyed), 'b').tracks.rotation)).toEqual([[10, 91]]);
    expect([...keyed.picks.keys()]).toEqual(['a', 'b']);
  });

  test('what was moved by hand over a run stays when the run is changed', () => {
    const run = applied(sceneOf([card('a'), card('b')]), { preset: { id: 'fade-in' } });
    const last = (layerOf(run, 'a').tracks.opacity?.at(-1)?.at ?? 0) / FRAME;
    const moved = after(movePicks(run, picks('a', 'opacity', last), 3 * FRAME), run);
    const later = { ...(run.runs[0].recipe as PresetRecipe), spacing: { by: 'gap' as const, gap: '9f' } };
    const next = edited(moved, replan(moved, SHELF, 'run-1', later, CONTEXT).edits);
    expect(layerOf(next, 'a').tracks.opacity?.at(-1)?.at).toBe((last + 3) * FRAME);
    expect(layerOf(next, 'b').tracks.opacity?.[0].at).toBe(9 * FRAME);
  });
});

describe('keys on the clipboard', () => {
  const clip = copyKeys(scene, picks('a', 'rotation', 0, 20)) as KeyClip;

  test('are readable text that is read back', () => {
    expect(keyClipSchema.parse(clip)).toEqual(clip);
    expect(readKeyClip(JSON.stringify(clip, null, 1))).toEqual(clip);
    expect(readKeyClip('some text')).toContain('no keys on the clipboard');
    expect(readKeyClip('{"format":"wexikine-keys-1"}')).toContain('no keys on the clipboard');
    expect(copyKeys(scene, new Map())).toBeNull();
    expect(Object.keys(clip)).not.toContain('dials');
  });

  test('go to the playhead, to the same offset, as they were or as far from rest, and each target is told', () => {
    const at = { by: 'time', time: 50 * FRAME } as const;
    const { edits, report } = pasteKeys(scene, clip, ['b', 'locked', 'gone'], {
      at,
      values: 'absolute',
      channel: null,
    });
    const b = layerOf(edited(scene, edits), 'b');
    expect(framesOf(b.tracks.rotation)).toEqual([
      [50, 30],
      [70, 0],
    ]);
    expect(pasteWords(scene, report)).toBe(
      '2 keys pasted on 1 layer; “locked” took none: it is locked; “gone” took none: it is not there any more.',
    );
    const relative = pasteKeys(scene, clip, ['b'], { at: { by: 'offset' }, values: 'relative', channel: null });
    expect(framesOf(layerOf(edited(scene, relative.edits), 'b').tracks.rotation)).toEqual([
      [25, 120],
      [45, 90],
    ]);
  });

  test('take the place of keys that stand at their times, and stand in order among all others', () => {
    const own = { rotation: [0, 50, 60, 90].map((frame) => key(frame, frame)) };
    const filled = {
      ...scene,
      layers: scene.layers.map((layer) => (layer.id === 'b' ? { ...layer, tracks: own } : layer)),
    };
    const pasted = pasteKeys(filled, clip, ['b'], {
      at: { by: 'time', time: 50 * FRAME },
      values: 'absolute',
      channel: null,
    });
    expect(framesOf(layerOf(edited(filled, pasted.edits), 'b').tracks.rotation)).toEqual([
      [0, 0],
      [50, 30],
      [60, 60],
      [70, 0],
      [90, 90],
    ]);
    expect(pasteKeys(filled, clip, [], { at: { by: 'offset' }, values: 'absolute', channel: null }).edits).toEqual([]);
  });

  test('go onto another channel of the same unit only, and by frame into another rate', () => {
    const at = { by: 'time', time: 0 } as const;
    const skewed = pasteKeys(scene, clip, ['b'], { at, values: 'absolute', channel: 'skew' });
    expect(framesOf(layerOf(edited(scene, skewed.edits), 'b').tracks.skew)).toEqual([
      [0, 30],
      [20, 0],
    ]);
    const wrong = pasteKeys(scene, clip, ['b'], { at, values: 'absolute', channel: 'opacity' });
    expect([wrong.edits, wrong.report[0].why]).toEqual([[], 'its unit is another']);
    const film = { ...scene, rate: { num: 50, den: 1 } };
    const faster = pasteKeys(film, clip, ['b'], { at, values: 'absolute', channel: null });
    expect(layerOf(edited(film, faster.edits), 'b').tracks.rotation?.at(-1)?.at).toBe(20 * frameTicks(film.rate));
  });
});
