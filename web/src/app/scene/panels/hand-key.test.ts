import { describe, expect, test } from '@jest/globals';
import { frameTicks, programmeBoard, type Key, type Layer } from '@wexikine/core';
import { channelCheck, readChannelValue, sharedText, shownChannels, withKey } from './hand-key';

const FRAME = frameTicks({ num: 25, den: 1 });
const key = (frame: number, value: number, ease: Key['ease'] = { type: 'linear' }): Key => ({
  at: frame * FRAME,
  value,
  ease,
});
const plain: Layer = { ...programmeBoard().layers[0], rest: { 'position.x': 40 }, tracks: {} };

describe('a value that is typed for a key', () => {
  test('may have its unit, a sign and either minus; a share is typed as per cent', () => {
    expect(['120', ' -3.5px', '+.5 px', '−8'].map((text) => readChannelValue('position.x', text))).toEqual([
      120, -3.5, 0.5, -8,
    ]);
    expect(readChannelValue('rotation', '-90°')).toBe(-90);
    expect(readChannelValue('rotation', '15 deg')).toBe(15);
    expect(['50', '50%', '50 %'].map((text) => readChannelValue('opacity', text))).toEqual([0.5, 0.5, 0.5]);
    expect(['', 'px', '1e3', '12 em', '1,5', '--3'].map((text) => readChannelValue('position.x', text))).toEqual(
      Array(6).fill(null),
    );
  });

  test('is refused where the channel cannot draw it, in the words of the field', () => {
    const check = channelCheck('opacity');
    expect([check('0'), check('100 %')]).toEqual([null, null]);
    expect(check('140')).toContain('100');
    expect(check('-1')).not.toBeNull();
    expect(channelCheck('rotation')('much')).not.toBeNull();
  });
});

describe('a key by hand', () => {
  test('stands in order, goes on softly, and one in the place of another keeps how that went on', () => {
    const two = withKey([key(0, 1), key(20, 2)], 10 * FRAME, 5);
    expect(two.map(({ at, value }) => [at / FRAME, value])).toEqual([
      [0, 1],
      [10, 5],
      [20, 2],
    ]);
    expect(two[1].ease.type).toBe('bezier');
    const again = withKey([key(0, 1), key(20, 2, { type: 'hold' })], 20 * FRAME, 7);
    expect(again.slice(1)).toEqual([key(20, 7, { type: 'hold' })]);
  });
});

describe('the rows of a layer', () => {
  test('are its channels with keys and those that are wanted, in the order of all', () => {
    const layer: Layer = { ...plain, tracks: { opacity: [key(0, 1)], 'position.y': [key(0, 1)] } };
    expect(shownChannels(layer, ['rotation', 'position.x', 'opacity'])).toEqual([
      'position.x',
      'position.y',
      'rotation',
      'opacity',
    ]);
    expect(shownChannels(plain, [])).toEqual([]);
  });

  test('show the value at the playhead, the one at rest without keys, and nothing where layers differ', () => {
    const moving: Layer = { ...plain, tracks: { 'position.x': [key(0, 0), key(20, -40)] } };
    expect(sharedText([moving], 'position.x', 10 * FRAME)).toBe('-20 px');
    expect(sharedText([plain], 'position.x', 10 * FRAME)).toBe('40 px');
    expect(sharedText([plain, moving], 'position.x', 10 * FRAME)).toBe('');
    expect(sharedText([plain, plain], 'opacity', 0)).toBe('100 %');
    expect(sharedText([], 'opacity', 0)).toBe('');
  });
});
