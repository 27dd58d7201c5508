import { expect, test } from '@jest/globals';
import { edited } from '../../testing/planning';
import { card, sceneOf } from '../../testing/scenes';
import { describeFinding } from '../finding';
import { findGoneFiles, mendsOf } from '.';
import { findGoneMattes } from './gone';

const name = `${'b'.repeat(64)}.png`;
const scene = sceneOf([
  card('a', { name: 'Heron', kind: 'picture', source: { type: 'picture', href: `files/${name}` } }),
  card('b', { kind: 'picture', source: { type: 'picture', href: 'data:image/png;base64,AA' } }),
  card('c', { name: 'Emblem', look: { fill: '#fff', matte: { layer: 'ghost', how: 'reveals', isShown: false } } }),
  card('d', { look: { matte: { layer: 'a', how: 'hides', isShown: true } } }),
]);

test('files that are no longer kept, and mattes that are no longer there, are told; the matte can be taken away', () => {
  expect(findGoneFiles(scene, new Set([name]))).toEqual([]);
  const [file] = findGoneFiles(scene, new Set());
  expect(describeFinding(file, scene)).toBe(
    '“Heron” shows a file that is no longer kept. Bring the file in again, or replace it in the layer panel.',
  );
  const [matte] = findGoneMattes(scene);
  expect(matte).toEqual({ code: 'matte-gone', layers: ['c'] });
  const [mend] = mendsOf(matte, null, scene, scene);
  if (!('edits' in mend)) throw new Error('no edits');
  const after = edited(scene, mend.edits);
  expect(after.layers[2].look).toEqual({ fill: '#fff' });
  expect(findGoneMattes(after)).toEqual([]);
});
