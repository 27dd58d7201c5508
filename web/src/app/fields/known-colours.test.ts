import { describe, expect, test } from '@jest/globals';
import { STARTER_LIBRARY, type LibraryItem } from '@wexikine/core';
import { knownColours } from './known-colours';

describe('colours that are offered', () => {
  const all = knownColours(STARTER_LIBRARY);

  test('are those of the house first, then those of palettes, each once and by its name', () => {
    expect(all[0].name).toBe('lamplight');
    expect(new Set(all.map(({ colour }) => colour)).size).toBe(all.length);
    const palettes = STARTER_LIBRARY.filter(({ kind }) => kind === 'palette');
    expect(palettes.every(({ name }) => all.some((one) => one.name.startsWith(`${name}: `)))).toBe(true);
  });

  test('of what is retired or a draft there are none', () => {
    const retired = STARTER_LIBRARY.map((item) => ({ ...item, state: 'retired' }) as LibraryItem);
    expect(knownColours(retired)).toEqual([]);
  });
});
