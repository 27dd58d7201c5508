/// <reference lib="webworker" />
import { endingOf, FILE_TYPES, findBeats, FONTS, ownFamily, peaksOf, type Layer } from '@wexikine/core';
import { drawingLayers, readDrawing, type Drawing, type DrawingPart, type FontAtHand } from '@wexikine/core/drawing';
import { measureWords } from '@wexikine/paint/text';
import { readClip } from './clip-file';
import { readFont } from './font-file';
import { keepFile } from '../../files/keep-file';
import type { BroughtFile, DrawingTree, DrawingWanted, DrawnLayers, FromReader, Heard, ToReader } from './messages';
import { openFaces, outlineLine } from './outlines';
import { readPicture } from './picture-file';

/** Files larger than this are refused before they are read, bytes. */
const MOST_BYTES = 100_000_000;
const MOST_DRAWING = 30_000_000;

const drawings = new Map<number, Drawing>();
let shipped: Promise<unknown> | null = null;
const own = new Set<string>();

function nameOf({ name }: File): string {
  return (
    name
      .replace(/\.[^.]*$/, '')
      .replace(/[<>]/g, '')
      .trim()
      .slice(0, 200) || 'Picture'
  );
}

function load(family: string, address: string): Promise<unknown> {
  const face = new FontFace(family, `url("${address}")`, { weight: '1 1000' });
  (self.fonts as unknown as { add: (one: FontFace) => void }).add(face);
  return face.load().catch(() => undefined);
}

/** Words are measured in the fonts that they will be set in. */
async function loadFonts(fonts: readonly FontAtHand[]): Promise<void> {
  shipped ??= Promise.all(FONTS.map((font) => load(font, `/fonts/${font.toLowerCase().replace(/ /g, '-')}.woff2`)));
  await shipped;
  const asked = fonts.flatMap(({ file }) => (file === undefined || own.has(file) ? [] : [file]));
  asked.forEach((file) => own.add(file));
  await Promise.all(asked.map((file) => load(ownFamily(file), `/api/${file}`)));
}

function treeOf({ id, name, kind, isFixed, parts }: DrawingPart): DrawingTree {
  return { id, name, kind, isFixed, parts: isFixed ? [] : parts.map(treeOf) };
}

async function readSvg(file: File, name: string, ticket: number, fonts: readonly FontAtHand[]): Promise<BroughtFile> {
  if (file.size > MOST_DRAWING)
    return { type: 'problem', name, problem: 'the drawing is larger than 30 MB. Simplify it' };
  await loadFonts(fonts);
  const atHand = [...FONTS.map((font) => ({ name: font })), ...fonts];
  const read = readDrawing(await file.text(), atHand);
  if (!read.ok) return { type: 'problem', name, problem: read.message };
  await openFaces(read.drawing.faces);
  drawings.set(ticket, read.drawing);
  const { width, height, root } = read.drawing;
  return { type: 'drawing', name, drawing: ticket, tree: treeOf({ ...root, name }), width, height };
}

async function read(file: File, ticket: number, fonts: readonly FontAtHand[]): Promise<BroughtFile> {
  const name = nameOf(file);
  if (file.size === 0) return { type: 'problem', name, problem: 'it is empty' };
  if (file.size > MOST_BYTES) return { type: 'problem', name, problem: 'it is larger than 100 MB' };
  const ending = endingOf(new Uint8Array(await file.slice(0, 4_000).arrayBuffer()));
  try {
    if (ending === 'svg' || (ending === null && /\.svg$/i.test(file.name)))
      return await readSvg(file, name, ticket, fonts);
    if (ending !== null && FILE_TYPES[ending].kind === 'font') return await readFont(file, name);
    if (ending !== null && FILE_TYPES[ending].kind === 'clip') return await readClip(file, name);
    if (ending !== null && FILE_TYPES[ending].kind === 'sound') return { type: 'sound', name, file, ending };
    return await readPicture(file, name);
  } catch (error) {
    return { type: 'problem', name, problem: error instanceof Error ? error.message : 'it cannot be read' };
  }
}

/** Takes a drawn picture out of a layer into a file; one that stands in many layers is kept once. */
async function filed(layer: Layer): Promise<Layer> {
  const { source } = layer;
  if (source.type !== 'picture' || !source.href.startsWith('data:image/svg+xml,')) return layer;
  const text = decodeURIComponent(source.href.slice(source.href.indexOf(',') + 1));
  const blob = new Blob([text], { type: 'image/svg+xml' });
  const { width, height } = source;
  const facts = { ...(width ? { width } : {}), ...(height ? { height } : {}) };
  return { ...layer, source: { ...source, href: await keepFile(blob, layer.name, facts) } };
}

async function draw({ drawing: id, whole, isKept, ...wanted }: DrawingWanted): Promise<DrawnLayers> {
  const drawing = drawings.get(id);
  const context = new OffscreenCanvas(1, 1).getContext('2d');
  if (!drawing || !context) throw new Error('The drawing is no longer at hand. Drop it once more.');
  const made = drawingLayers(drawing, {
    ...wanted,
    whole: new Set(whole),
    newId: () => `layer-${crypto.randomUUID().slice(0, 18)}`,
    measure: (source, spacing) => measureWords(context, source, spacing),
    outline: outlineLine,
  });
  if (!isKept) return made;
  const layers: Layer[] = [];
  for (const layer of made.layers) layers.push(await filed(layer));
  return { ...made, layers };
}

function hear(samples: Float32Array, rate: number): Heard {
  return { beats: findBeats(samples, rate), peaks: peaksOf(samples, rate) };
}

function work(asked: ToReader): Promise<BroughtFile | DrawnLayers | Heard> {
  switch (asked.type) {
    case 'read':
      return read(asked.file, asked.ticket, asked.fonts);
    case 'draw':
      return draw(asked.wanted);
    case 'hear':
      return Promise.resolve(hear(asked.samples, asked.rate));
  }
}

addEventListener('message', ({ data }: MessageEvent<ToReader>) => {
  const { ticket } = data;
  const answer = (message: FromReader): void => postMessage(message);
  work(data).then(
    (found) => answer({ ticket, ok: true, answer: found }),
    (error: unknown) => answer({ ticket, ok: false, message: error instanceof Error ? error.message : String(error) }),
  );
});
