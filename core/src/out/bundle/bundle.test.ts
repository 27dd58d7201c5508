import { expect, test } from '@jest/globals';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { embedFiles, filesOfScene, readBundle, writeBundle } from '.';
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

test('files stand in a page by their address, fonts as CSS; long ones whole', () => {
  const long = Uint8Array.from({ length: 100_003 }, (_, i) => (i * 31) % 256);
  const { embedded, fontFaces } = embedFiles(
    new Map([
      [NAME, long],
      [FONT, PNG],
    ]),
  );
  // Base64 as RFC 4648 has it, by Node's own writer.
  expect([...embedded]).toEqual([[`files/${NAME}`, `data:image/png;base64,${Buffer.from(long).toString('base64')}`]]);
  expect(fontFaces).toMatch(
    /^@font-face \{ font-family: '[^']+'; font-weight: 1 1000; src: url\(data:font\/ttf;base64,/,
  );
  expect(fontFaces).toContain(Buffer.from(PNG).toString('base64'));
  expect(embedFiles(new Map())).toEqual({ embedded: new Map(), fontFaces: '' });
});
