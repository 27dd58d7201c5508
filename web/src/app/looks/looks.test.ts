import { expect, test } from '@jest/globals';
import { apply, programmeBoard, type Edit, type Layer } from '@wexikine/core';
import { colourIn, common, lookEdits, paintedLayers, restEdits, wordEdits, wordLayers } from './looks';

const board = programmeBoard();
const text = { type: 'text', text: 'one', font: 'Spline Sans', weight: 500, size: 40, align: 'left' } as const;
const word: Layer = {
  ...board.layers[0],
  id: 'word',
  kind: 'word',
  source: text,
  look: { fill: '#ffffff', stroke: '#000000' },
};
const card: Layer = {
  ...board.layers[0],
  id: 'card',
  kind: 'card',
  source: { type: 'rectangle' },
  look: { fill: '#ff0000' },
};
const group: Layer = { ...board.layers[0], id: 'group', kind: 'group', source: { type: 'none' } };
const all = [word, card, group];

function after(edits: readonly Edit[]): readonly Layer[] {
  const result = apply({ ...board, runs: [], layers: all }, edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene.layers;
}

test('a colour is taken without the spaces around it, and none is none', () => {
  expect([' #f3c98b ', 'oklch(70% 0.1 80)', ' none', 'none'].map(colourIn)).toEqual([
    '#f3c98b',
    'oklch(70% 0.1 80)',
    undefined,
    undefined,
  ]);
});

test('what differs among layers is mixed, what is alike is shown', () => {
  expect(common(all, ({ parent }) => parent)).toBe(word.parent);
  expect(common([word, card], ({ look }) => look.fill)).toBeNull();
  expect(common([], ({ id }) => id)).toBeNull();
  expect(wordLayers(all)).toEqual([word]);
  expect(paintedLayers(all)).toEqual([word, card]);
});

test('looks, words and rest values are set on all of them; a part that is taken away is gone', () => {
  const looks = after(lookEdits([word, card], () => ({ stroke: undefined, fill: '#123456' }))).map(({ look }) => look);
  expect(looks.slice(0, 2)).toEqual([{ fill: '#123456' }, { fill: '#123456' }]);
  const words = after(wordEdits(all, { size: 90, align: 'right' })).map(({ source }) => source);
  expect(words).toEqual([{ ...text, size: 90, align: 'right' }, card.source, group.source]);
  const wide = after(restEdits([word, card], 'stroke.width', (value) => value + 3)).map(
    ({ rest }) => rest['stroke.width'],
  );
  expect(wide.slice(0, 2)).toEqual([3, 3]);
});
