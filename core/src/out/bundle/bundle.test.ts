import { expect, test } from '@jest/globals';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { filesOfScene, readBundle, writeBundle } from '.';
import { sceneSchema } from '../../scene/scene';
import { card, sceneOf } from '../../testing/scenes';

const NAME = `${'ab'.repeat(32)}.png`;
const FONT = `${'cd'.repeat(32)}.ttf`;
const PNG = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 1, 2, 3]);
const scene = sceneOf([
  card('a', { kind: 'picture', source: { type: 'picture', href: `files/${NAME}` } }),
  card('b', { kind: 'picture', source: { type: 'picture', href: `files/${NAME}` } }),
  card('c', {
    kind: 'word',
    source: { type: 'text', text: 'x', font: 'Quill', fontFile: `files/${FONT}`, weight: 400, size: 20, align: 'left' },
  }),
]);

test('a scene and its files go into one zip file and come back the same', () => {
  expect(filesOfScene(scene)).toEqual([NAME, FONT]);
  const bytes = writeBundle(scene, new Map([[NAME, PNG]]));
  expect(Object.keys(unzipSync(bytes)).sort()).toEqual([`files/${NAME}`, 'scene.json']);
  const read = readBundle(bytes);
  if (!read.ok) throw new Error(read.message);
  expect(sceneSchema.parse(read.data)).toEqual(scene);
  expect([...read.files]).toEqual([[NAME, PNG]]);
  expect(writeBundle(scene, new Map([[NAME, PNG]]))).toEqual(bytes);
});

test('what is no bundle, damaged, or holds something else than it says gets a reason', () => {
  const message = (bytes: Uint8Array): string => {
    const read = readBundle(bytes);
    return read.ok ? 'read' : read.message;
  };
  expect(message(strToU8('{}'))).toMatch(/zip/i);
  expect(message(zipSync({ 'other.json': strToU8('{}') }))).toMatch(/no scene\.json/);
  expect(message(zipSync({ 'scene.json': strToU8('{') }))).toMatch(/^scene\.json: /);
  const liar = zipSync({ 'scene.json': strToU8('{}'), [`files/${NAME}`]: strToU8('<html>') });
  expect(message(liar)).toMatch(/not what its name says/);
  const cut = writeBundle(scene, new Map([[NAME, PNG]]));
  expect(message(cut.slice(0, cut.length - 30))).not.toBe('read');
});
