import { describe, expect, test } from '@jest/globals';
import { fileAddress, programmeBoard, writeBundle, type Layer } from '@wexikine/core';
import { readSceneFile } from './scene-file';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const board = programmeBoard();

describe('a scene of a file', () => {
  test('is read from its JSON, without the id that it had', () => {
    const read = readSceneFile('board.json', bytes(JSON.stringify(board)));
    const { id: _id, ...wanted } = board;
    expect(read).toEqual({ ok: true, scene: wanted, parts: [] });
  });

  test('comes from a zip file with its pictures and fonts, each by what it is called in the scene', () => {
    const [picture, font] = [`${'a'.repeat(64)}.png`, `${'b'.repeat(64)}.woff2`];
    const shown: Layer = {
      ...board.layers[0],
      name: 'Heron',
      kind: 'picture',
      source: { type: 'picture', href: fileAddress(picture), width: 3, height: 2 },
    };
    const words = board.layers.find(({ source }) => source.type === 'text') as Layer;
    const written = {
      ...words,
      source: { ...words.source, font: 'Tidewater', fontFile: fileAddress(font) },
    } as Layer;
    const scene = { ...board, layers: [shown, written], runs: [] };
    const zip = writeBundle(
      scene,
      new Map([
        [picture, Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10])],
        [font, bytes('wOF2')],
      ]),
    );
    const read = readSceneFile('board.zip', zip);
    if (!read.ok) throw new Error(read.message);
    expect(read.parts.map(({ contents, ...told }) => [told, contents.size])).toEqual([
      [{ title: 'Heron' }, 8],
      [{ title: 'Tidewater', family: 'Tidewater' }, 4],
    ]);
  });

  test.each([
    ['notes.json', 'not JSON at all', 'notes.json is not a JSON file. Choose a scene'],
    ['list.json', '[]', 'list.json is not a scene of Wexikine.'],
    ['cut.zip', 'PK and no more', 'cut.zip cannot be imported.'],
  ])('%s is refused with a sentence that names it', (name, text, sentence) => {
    const read = readSceneFile(name, bytes(text));
    expect(read.ok ? '' : read.message).toContain(sentence);
  });
});
