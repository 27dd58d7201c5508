import { describe, expect, test } from '@jest/globals';
import { CHANNELS, ROW_CHOICES } from '@wexikine/core';
import { inFamilies } from './in-families';

describe('channels by their families', () => {
  test('stand each once, under the family whose first one comes first', () => {
    const families = inFamilies(CHANNELS, ({ id }) => id);
    expect(families.flatMap(({ items }) => items.map(({ id }) => id)).sort()).toEqual(
      CHANNELS.map(({ id }) => id).sort(),
    );
    expect(families.slice(0, 3).map(({ family }) => family)).toEqual(['position', 'scale', 'rotation']);
    expect(new Set(families.map(({ family }) => family)).size).toBe(families.length);
  });

  test('what can be a row of a preset is found there too, colours as a whole', () => {
    const colours = inFamilies(ROW_CHOICES, ({ channels }) => channels[0]).find(({ family }) => family === 'colour');
    const labels = colours?.items.map(({ label }) => label);
    expect(labels).toEqual(expect.arrayContaining(['fill colour', 'stroke colour', 'brightness', 'tint']));
    expect(labels).not.toContain('fill lightness');
    expect(inFamilies([], () => 'opacity')).toEqual([]);
  });
});
