import { describe, expect, test } from '@jest/globals';
import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { ticksFromSeconds } from '../../basics/time';
import { card, key, sceneOf } from '../../testing/scenes';
import { layerSchema, type ClipSource, type Layer } from '../layer';
import { clipTimeAt, compileScene, createFrame, sampleValues, shownTime } from '.';

const source: ClipSource = {
  type: 'clip',
  href: `files/${'a'.repeat(64)}.webm`,
  width: 320,
  height: 180,
  from: ticksFromSeconds(1),
  length: ticksFromSeconds(4),
  pace: 1,
};
const clip = (more: Partial<ClipSource> = {}, layer: Partial<Layer> = {}): Layer =>
  card('clip', {
    kind: 'picture',
    source: { ...source, ...more },
    span: { in: ticksFromSeconds(2), out: ticksFromSeconds(8) },
    ...layer,
  });

function timesIn(layer: Layer, seconds: readonly number[]): number[] {
  const compiled = compileScene(sceneOf([layer]));
  const frame = createFrame(compiled);
  return seconds.map((at) => {
    sampleValues(compiled, ticksFromSeconds(at), frame);
    return frame.values[channelOf('clip.time').slot];
  });
}

describe('the time in a clip', () => {
  test('is written for its own layer, wherever that stands among the others', () => {
    const compiled = compileScene(sceneOf([card('a'), card('b'), clip()]));
    const frame = createFrame(compiled);
    sampleValues(compiled, ticksFromSeconds(3), frame);
    const times = [0, 1, 2].map((layer) => frame.values[layer * CHANNEL_COUNT + channelOf('clip.time').slot]);
    expect(times).toEqual([0, 0, 2]);
  });

  test('counts from where its layer begins, by its pace', () => {
    expect(layerSchema.safeParse(clip()).success).toBe(true);
    expect(timesIn(clip(), [2, 2.5, 5])).toEqual([1, 1.5, 4]);
    expect(timesIn(clip({ pace: 2 }), [2, 2.5, 3])).toEqual([1, 2, 3]);
    expect(timesIn(clip({ pace: 0 }), [2, 5])).toEqual([1, 1]);
    // Before its layer begins it is never before its own beginning.
    expect(timesIn(clip(), [0])).toEqual([0]);
    expect(clipTimeAt(clip({ pace: 0.5 }), ticksFromSeconds(4))).toBe(2);
    expect(clipTimeAt(card('none'), 0)).toBeNull();
  });

  test('is what keys say where it has some', () => {
    const keyed = clip({}, { tracks: { 'clip.time': [key(50, 0), key(100, 3)] } });
    [0, 1.5, 3].forEach((at, i) => expect(timesIn(keyed, [2, 3, 4])[i]).toBeCloseTo(at, 9));
  });

  test('behind the end stands the last frame, or it begins again', () => {
    const { length } = source;
    expect([0, 3.9, 4, 9].map((at) => shownTime({ length }, at))).toEqual([0, 3.9, 4, 4]);
    expect([3.5, 4, 9].map((at) => shownTime({ length, loops: true }, at))).toEqual([3.5, 0, 1]);
  });
});
