import { describe, expect, test } from '@jest/globals';
import { droppedFiles } from './dropped-files';

type Tree = readonly (string | readonly [name: string, Tree])[];

function fileEntry(name: string): FileSystemEntry {
  const file = (done: (one: File) => void): void => done(new File([name], name));
  return { isFile: true, isDirectory: false, name, file } as unknown as FileSystemEntry;
}

/** A folder that gives two entries at a time, as browsers give a hundred. */
function folder(name: string, tree: Tree): FileSystemEntry {
  const entries = tree.map((one) => (typeof one === 'string' ? fileEntry(one) : folder(one[0], one[1])));
  let at = 0;
  const createReader = () => ({
    readEntries: (done: (part: FileSystemEntry[]) => void) => done(entries.slice(at, (at += 2))),
  });
  return { isFile: false, isDirectory: true, name, createReader } as unknown as FileSystemEntry;
}

function drop(entries: readonly FileSystemEntry[]): Pick<DataTransfer, 'files' | 'items'> {
  const files = entries.map(({ name }) => new File([name], name));
  const items = entries.map((entry) => ({ webkitGetAsEntry: () => entry }));
  return { files, items } as unknown as Pick<DataTransfer, 'files' | 'items'>;
}

const names = async (entries: readonly FileSystemEntry[], most = 300): Promise<string[]> =>
  (await droppedFiles(drop(entries), most)).map(({ name }) => name);

describe('dropped files', () => {
  test('are those of folders too, by their names, without what systems keep there', async () => {
    const tree = folder('wall', ['10.png', '2.png', '.hidden', 'Thumbs.db', ['inner', ['b.jpg', 'a.jpg', 'c.jpg']]]);
    expect(await names([fileEntry('first.svg'), tree])).toEqual([
      'first.svg',
      '2.png',
      '10.png',
      'a.jpg',
      'b.jpg',
      'c.jpg',
    ]);
  });

  test('without a folder are just these', async () => {
    expect(await names([fileEntry('b.png'), fileEntry('a.png')])).toEqual(['b.png', 'a.png']);
  });

  test('of a folder with too many, only so many are read that this can be said', async () => {
    const many = folder(
      'many',
      Array.from({ length: 40 }, (_, i) => `${i}.png`),
    );
    expect((await names([many], 10)).length).toBe(11);
  });
});
