import { expect, test } from '@jest/globals';
import { card } from '../../testing/scenes';
import { findUntouched } from './untouched';

const words = (number?: object) =>
  ({
    type: 'text',
    text: '# %',
    font: 'Spline Sans',
    weight: 500,
    size: 40,
    align: 'middle',
    ...(number && { number }),
  }) as never;
const layers = [
  card('card'),
  card('words', { source: words() }),
  card('sum', { source: words({ decimals: 0 }) }),
  card('traveller', { path: { d: 'M0 0L9 9', turns: false } as never }),
];

test('a run that goes along paths, shows words or counts tells the layers that have none of it, and no others', () => {
  expect(findUntouched(['opacity', 'position.x'], layers)).toEqual([]);
  expect(findUntouched(['path.distance'], layers)).toEqual([{ code: 'no-path', layers: ['card', 'words', 'sum'] }]);
  expect(findUntouched(['words.shown'], layers)).toEqual([{ code: 'no-words', layers: ['card', 'traveller'] }]);
  expect(findUntouched(['words.number', 'words.shown'], layers)).toEqual([
    { code: 'no-words', layers: ['card', 'traveller'] },
    { code: 'no-number-shown', layers: ['card', 'words', 'traveller'] },
  ]);
  expect(findUntouched(['path.distance', 'words.shown'], layers.slice(3))).toMatchObject([{ code: 'no-words' }]);
  expect(findUntouched(['words.number'], layers.slice(2, 3))).toEqual([]);
});
