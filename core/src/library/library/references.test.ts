import { expect, test } from '@jest/globals';
import { createStyle } from '../../scene/recipe';
import { referencesOf } from '.';

test('a style refers to the look that it puts on and to the palettes of its colours, and to nothing else', () => {
  const plain = createStyle({ by: 'rule', tag: 'row' });
  expect(referencesOf({ kind: 'recipe', body: plain })).toEqual([]);
  const body = {
    ...plain,
    from: { by: 'look', id: 'look-print' } as const,
    vary: { ...plain.vary, stroke: { by: 'palette', id: 'palette-night', how: 'turns' } as const },
  };
  expect(referencesOf({ kind: 'recipe', body })).toEqual([
    { id: 'look-print', use: 'look', where: 'the look that it puts on' },
    { id: 'palette-night', use: 'palette', where: 'the colours of the stroke' },
  ]);
});
