import { describe, expect, test } from '@jest/globals';
import { CHANNELS, channelOf, type ChannelId } from '../../basics/channel';
import { programmeBoard } from '../demo';
import { maskChannels, movedMask, movedShadow, restValue, shadowChannels, withoutPart, type Layer, type Mask } from '.';

const mask: Mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.4, width: 0.5, height: 1, turn: 10, soft: 4 };
const shadow = { colour: '#102030', x: 4, y: 8, blur: 6 };
const standing = (id: ChannelId): number => channelOf(id).default;
const reading =
  (values: Partial<Record<ChannelId, number>>) =>
  (id: ChannelId): number =>
    values[id] ?? standing(id);

function layerWith(parts: Partial<Layer>): Layer {
  return { ...programmeBoard().layers[0], tracks: {}, ...parts };
}

describe('channels of one mask and one further shadow', () => {
  test('are there for the first three masks and the first two further shadows, each a channel that is known', () => {
    const own = [0, 1, 2].flatMap(maskChannels);
    expect(own).toEqual(CHANNELS.map(({ id }) => id).filter((id) => /^mask\d/.test(id)));
    expect([0, 1].flatMap(shadowChannels)).toEqual(CHANNELS.map(({ id }) => id).filter((id) => /^shadow\d/.test(id)));
    expect([maskChannels(3), maskChannels(-1), shadowChannels(2), shadowChannels(-1)]).toEqual([[], [], [], []]);
  });

  test('leave a part as it is while they stand at their defaults', () => {
    for (const place of [0, 1, 2, 3, 19]) expect(movedMask(mask, place, standing)).toEqual(mask);
    for (const place of [0, 1, 2]) {
      const moved = movedShadow(shadow, place, standing);
      expect({ ...moved, spread: moved.spread ?? 0 }).toEqual({ ...shadow, spread: 0, opacity: 1 });
    }
  });

  test('move, stretch, turn and soften the one mask that they belong to', () => {
    const read = reading({
      'mask2.x': 0.25,
      'mask2.y': -0.4,
      'mask2.width': 0.5,
      'mask2.height': 2,
      'mask2.rotation': -30,
      'mask2.soft': -9,
    });
    expect(movedMask(mask, 1, read)).toEqual({ ...mask, x: 0.75, y: 0, width: 0.25, height: 2, turn: -20, soft: 0 });
    expect(movedMask(mask, 0, read)).toEqual(mask);
  });

  test('move, soften and fade the one shadow that they belong to; nothing falls below nothing', () => {
    const read = reading({ 'shadow3.x': -6, 'shadow3.y': 2, 'shadow3.blur': -20, 'shadow3.spread': 3 });
    expect(movedShadow(shadow, 1, read)).toEqual({ ...shadow, x: -2, y: 10, blur: 0, spread: 3, opacity: 1 });
    expect(movedShadow(shadow, 1, reading({ 'shadow3.opacity': 1.7 })).opacity).toBe(1);
    expect(movedShadow(shadow, 0, read)).toMatchObject({ x: 4, y: 8, blur: 6 });
  });
});

describe('a part that is taken away', () => {
  const keys = [{ at: 0, value: 0.1, ease: { type: 'linear' as const } }];
  const masks = ['one', 'two', 'three', 'four'].map((text): Mask => ({
    ...mask,
    shape: 'words',
    words: { text, font: 'Spline Sans', weight: 400 },
  }));
  const layer = layerWith({
    look: { fill: '#ffffff', masks, shadows: [shadow, { ...shadow, colour: '#ff0000' }] },
    rest: { 'size.x': 9, 'mask1.x': 0.1, 'mask2.x': 0.2, 'mask3.x': 0.3, 'shadow2.x': 2, 'shadow3.x': 3 },
    tracks: { 'mask3.soft': keys, 'mask1.soft': keys, opacity: keys },
  });

  test('goes with its channels, and those after it move up with theirs', () => {
    const after = withoutPart(layer, 'masks', 1);
    expect(after.look.masks?.map(({ words }) => words?.text)).toEqual(['one', 'three', 'four']);
    expect(after.rest).toEqual({ 'size.x': 9, 'mask1.x': 0.1, 'mask2.x': 0.3, 'shadow2.x': 2, 'shadow3.x': 3 });
    expect(after.tracks).toEqual({ 'mask2.soft': keys, 'mask1.soft': keys, opacity: keys });
    expect(restValue(after, 'mask3.x')).toBe(0);
  });

  test('is gone from the look when it was the last; one without channels takes none along', () => {
    const one = withoutPart(withoutPart(layer, 'shadows', 1), 'shadows', 0);
    expect('shadows' in one.look).toBe(false);
    expect(Object.keys(one.rest).filter((id) => id.startsWith('shadow'))).toEqual([]);
    const fourth = withoutPart(layer, 'masks', 3);
    expect([fourth.rest, fourth.tracks]).toEqual([layer.rest, layer.tracks]);
    expect(layer.look.masks).toHaveLength(4);
  });
});
