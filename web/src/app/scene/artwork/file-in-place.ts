import { fileType, type FileInPlace, type LayerSource } from '@wexikine/core';
import type { KeptFiles } from '../../files/kept-files';
import { sourceOf } from './artwork-layers';
import { ArtworkReader } from './artwork-reader';
import type { BroughtFile } from './messages';

/** What a layer shows of a file that was read, a drawing as one picture; null for what none can show. */
export async function pictureOf(read: BroughtFile, reader: ArtworkReader): Promise<LayerSource | null> {
  if (read.type === 'picture' || read.type === 'clip') return sourceOf(read);
  if (read.type !== 'drawing') return null;
  const { drawing, tree, name } = read;
  const whole = { drawing, whole: [tree.id], name, at: { x: 0, y: 0 }, scale: 1, length: 1, isKept: true };
  const { layers } = await reader.draw(whole);
  return layers[0]?.source ?? null;
}

/** What a file is that can take another's place, as a sentence goes on about it. */
const KINDS = { picture: 'a picture', clip: 'a clip', font: 'a font', sound: 'a sound' } as const;

/** A file that was read and kept, by what it is called. */
export interface ReadInPlace {
  readonly name: string;
  readonly file: FileInPlace;
}

/** Reads and keeps a file that is to take the place of one that is kept; throws a sentence where it cannot. */
export async function readInPlace(file: File, before: string, files: KeptFiles): Promise<ReadInPlace> {
  const reader = new ArtworkReader();
  try {
    const read = await reader.read(file, files.fonts);
    if (read.type === 'problem') throw new Error(read.problem);
    const isFont = fileType(before).kind === 'font';
    if (isFont && read.type === 'font') {
      await files.load();
      const font = files.fonts.find(({ name }) => name === read.family);
      if (!font) throw new Error('it was not kept. Try again.');
      return { name: font.name, file: { kind: 'font', font: font.name, fontFile: font.file } };
    }
    const source = isFont ? null : await pictureOf(read, reader);
    if (source?.type === 'picture' || source?.type === 'clip')
      return { name: read.name, file: { kind: 'shown', source } };
    const wanted = isFont ? 'another font' : 'a picture or a clip';
    const kind = read.type === 'drawing' ? 'a drawing' : KINDS[read.type];
    throw new Error(`it is ${kind}, and ${wanted} is needed here.`);
  } finally {
    reader.close();
  }
}
