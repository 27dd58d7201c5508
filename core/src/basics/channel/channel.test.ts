import { describe, expect, test } from '@jest/globals';
import { CHANNEL_COUNT, CHANNELS, channelOf, clampToChannel, formatChannelValue, maybeChannel, perUnit } from '.';

describe('channels', () => {
  test('have a slot each, in the order of the registry', () => {
    expect(CHANNELS.map(({ slot }) => slot)).toEqual(Array.from({ length: CHANNEL_COUNT }, (_, i) => i));
    for (const { id } of CHANNELS) expect(channelOf(id).id).toBe(id);
  });

  test('keep values within what can be drawn, on both sides; those without limits keep any', () => {
    expect([-1, 0.4, 3].map((value) => clampToChannel('opacity', value))).toEqual([0, 0.4, 1]);
    expect([-5, 700].map((value) => clampToChannel('blur', value))).toEqual([0, 500]);
    expect([-9_000, 530].map((value) => clampToChannel('rotation', value))).toEqual([-9_000, 530]);
    expect([0, 200].map((value) => clampToChannel('crop.zoom', value))).toEqual([0.01, 100]);
  });

  test('every default lies within its own limits', () => {
    for (const { id, default: standard } of CHANNELS) expect(clampToChannel(id, standard)).toBe(standard);
  });

  test('say their values with their unit and a true minus', () => {
    expect(formatChannelValue('scale.x', 1.2)).toBe('120 %');
    expect(formatChannelValue('rotation', -6)).toBe('−6°');
    expect(formatChannelValue('position.x', -0)).toBe('0 px');
    expect(formatChannelValue('fill.l', 0.12345)).toBe('0.123');
  });

  test('are typed as per cent where they are shares, as they are else', () => {
    expect([perUnit('scale.x'), perUnit('opacity'), perUnit('position.x'), perUnit('rotation')]).toEqual([
      100, 100, 1, 1,
    ]);
  });

  test('are found by names that may be wrong', () => {
    expect(maybeChannel('rotation')?.unit).toBe('deg');
    expect(maybeChannel('constructor')).toBeNull();
  });
});
