import { expect, test } from '@jest/globals';
import { countedWords, fileFacts, fileSize, removeWords, standing, whereWords } from './file-words';

test('sizes are said in the unit that one reads', () => {
  expect([0, 999, 1_000, 340_400, 2_140_000].map(fileSize)).toEqual([
    '0 bytes',
    '999 bytes',
    '1 kB',
    '340 kB',
    '2.1 MB',
  ]);
});

test('a picture says its size, a font its weights and other axes', () => {
  const file = (ending: string, facts: object) => ({
    name: `${'a'.repeat(64)}.${ending}`,
    title: '',
    size: 1,
    added: '',
    uses: [],
    facts,
  });
  expect(fileFacts(file('png', { width: 30, height: 20 }))).toBe('PNG, 30 × 20 px');
  expect(fileFacts(file('woff2', { weights: [200, 800] }))).toBe('WOFF2, weights 200 to 800');
  expect(fileFacts(file('ttf', { weights: [700, 700] }))).toBe('TTF, weight 700');
  const axes = [{ tag: 'wdth', name: 'Width', least: 75, usual: 100, most: 100 }];
  expect(fileFacts(file('ttf', { weights: [200, 800], axes }))).toBe('TTF, weights 200 to 800, width');
  expect(fileFacts(file('svg', {}))).toBe('SVG');
});

test('where a file is used is said by name for one scene, and counted for several', () => {
  const use = (scene: string, isDeleted = false) => ({ scene, sceneName: `The ${scene}`, layers: 2, isDeleted });
  expect(whereWords([use('wall')])).toBe('“The wall”');
  expect(whereWords([use('wall'), use('board')])).toBe('all 2 scenes that use it');
  // A deleted scene is not replaced in, but keeps the file for as long as it can come back.
  const gone = use('gate', true);
  expect(standing([gone, use('wall')]).map(({ scene }) => scene)).toEqual(['wall']);
  expect(whereWords([gone, use('wall')])).toBe('“The wall”');
  expect([[], [use('wall'), gone], [gone]].map(removeWords)).toEqual([
    'Remove it for good',
    'Scenes use it. Replace it there first',
    'A deleted scene uses it, which is kept for 30 days and can be brought back',
  ]);
  expect(countedWords({ layers: 1, scenes: ['wall'] })).toBe('one layer');
  expect(countedWords({ layers: 12, scenes: ['wall', 'board'] })).toBe('12 layers in 2 scenes');
});
