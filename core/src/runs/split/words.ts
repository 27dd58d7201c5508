import type { Edit } from '../../scene/edit';
import { isSame, restValue, type Layer, type SPLIT_WAYS, type TextSource } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import type { StageResult } from '../stage';

/** Ways in which words are split. */
export type SplitWay = (typeof SPLIT_WAYS)[number];

/** A part of words as it was measured: where its box lies in that of the words, px. */
export interface Piece {
  readonly text: string;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** From the top of its box to its baseline. */
  readonly baseline: number;
}

/** Pieces that one layer becomes at most. */
const MOST_PIECES = 1_000;

const KEYED_WORDS = {
  letterSpacing: 'letter spacing',
  'words.shown': 'letters that are shown',
  'fill.l': 'colour',
  'fill.a': 'colour',
  'fill.b': 'colour',
} as const;

const refuse = (message: string): StageResult => ({ ok: false, message });

/** The layer of a piece in the group that its words became; its id goes by its place, so that it is the same one again. */
function partOf(group: Layer, source: TextSource, look: Layer['look'], piece: Piece, place: number): Layer {
  const anchorY = piece.height > 0 ? Math.round((piece.baseline / piece.height) * 1e4) / 1e4 : 0.5;
  const spacing = restValue(group, 'letterSpacing');
  const { caret: _caret, number: _number, ...plain } = source;
  return {
    id: partId(group.id, place),
    name: piece.text.trim().slice(0, 60) || `Part ${place + 1}`,
    kind: 'word',
    parent: group.id,
    tags: ['part'],
    locked: false,
    hidden: false,
    span: group.span,
    rest: {
      'position.x': piece.left + piece.width / 2,
      'position.y': piece.top + piece.height * anchorY,
      'anchor.y': anchorY,
      'size.x': piece.width,
      'size.y': piece.height,
      ...(spacing === 0 ? {} : { letterSpacing: spacing }),
    },
    tracks: {},
    look,
    source: { ...plain, text: piece.text, align: 'left' },
    data: {},
  };
}

function partId(group: string, place: number): string {
  return `${group.slice(0, 56)}-p${place + 1}`;
}

function tooMany({ length }: readonly Piece[]): string {
  return `That would be ${length} layers, and at most ${MOST_PIECES} can be made at once.`;
}

/** Words become a group of their pieces; the group keeps the id, the place, the keys and the runs of the words. */
export function splitWords(scene: Scene, id: string, by: SplitWay, pieces: readonly Piece[]): StageResult {
  const layer = scene.layers.find((one) => one.id === id);
  if (layer?.source.type !== 'text') return refuse('Select words: they are split into letters, words or lines.');
  if (layer.source.number)
    return refuse(`“${layer.name}” shows a number, whose digits change. Take the number out of its words first.`);
  if (pieces.length > MOST_PIECES) return refuse(tooMany(pieces));
  if (pieces.length < 2) return refuse(`“${layer.name}” has only one of the ${by}. Nothing was split.`);
  const keyed = (['letterSpacing', 'words.shown', 'fill.l', 'fill.a', 'fill.b'] as const).find(
    (channel) => layer.tracks[channel],
  );
  if (keyed)
    return refuse(
      `“${layer.name}” has keys for its ${KEYED_WORDS[keyed]}, which its parts cannot share. Clear these first.`,
    );
  const { source, look } = layer;
  const parts = pieces.map((piece, place) => partOf(layer, source, look, piece, place));
  const taken = new Set(scene.layers.map((one) => one.id));
  if (parts.some((part) => taken.has(part.id)))
    return refuse(`“${layer.name}” was split before, and some of its parts are left. Remove them first.`);
  const index = scene.layers.indexOf(layer);
  const fields: Partial<Layer> = { kind: 'group', source: { type: 'none' }, look: {}, split: { by, source, look } };
  return {
    ok: true,
    edits: [
      { type: 'set-layer', layer: id, fields },
      ...parts.map((part, i): Edit => ({ type: 'add-layer', index: index + 1 + i, layer: part })),
    ],
    selected: parts.map((part) => part.id),
  };
}

/**
 * Words that were split are set anew: parts that stay keep their ids, keys and whatever was changed, and take the new text,
 * place and size; new ones come, those that are left over go.
 */
export function splitAnew(scene: Scene, id: string, source: TextSource, pieces: readonly Piece[]): StageResult {
  const group = scene.layers.find((one) => one.id === id);
  if (!group?.split) return refuse('This group was not made by splitting words.');
  if (pieces.length === 0) return refuse('There is nothing to split in these words. Write some.');
  if (pieces.length > MOST_PIECES) return refuse(tooMany(pieces));
  const { by, look } = group.split;
  const standing = new Map(scene.layers.map((layer) => [layer.id, layer]));
  const before = scene.layers.filter(
    ({ id: own, parent }) => parent === id && own.startsWith(partId(id, 0).slice(0, -1)),
  );
  const parts = pieces.map((piece, place) => partOf(group, source, look, piece, place));
  const edits: Edit[] = [{ type: 'set-layer', layer: id, fields: { split: { by, source, look } } }];
  const known = new Set(parts.map((part) => part.id));
  for (const layer of before) if (!known.has(layer.id)) edits.push({ type: 'remove-layer', layer: layer.id });
  let index = scene.layers.length - edits.length + 1;
  for (const part of parts) {
    const own = standing.get(part.id);
    if (own)
      edits.push({
        type: 'set-layer',
        layer: part.id,
        fields: { source: part.source, name: part.name, rest: { ...own.rest, ...part.rest } },
      });
    else edits.push({ type: 'add-layer', index: index++, layer: part });
  }
  return { ok: true, edits, selected: [id] };
}

/** Puts words that were split together again; refused where a part was changed, which one layer could not show. */
export function joinWords(scene: Scene, id: string, pieces: readonly Piece[]): StageResult {
  const group = scene.layers.find((one) => one.id === id);
  if (!group?.split) return refuse('Select a group that words were split into: it becomes the words again.');
  const { source, look } = group.split;
  const parts = scene.layers.filter(({ parent }) => parent === id);
  const made = new Map(pieces.map((piece, place) => [partId(id, place), partOf(group, source, look, piece, place)]));
  const changed = parts.find((part) => {
    const first = made.get(part.id);
    return (
      !first ||
      !isSame(first.look, part.look) ||
      !isSame(first.source, part.source) ||
      Object.keys(part.tracks).length > 0 ||
      !isNear(first.rest, part.rest)
    );
  });
  if (changed)
    return refuse(
      `“${changed.name}” was changed or has keys, which would be lost. Take these away first, or keep the parts.`,
    );
  const fields: Partial<Layer> = { kind: 'word', source, look, split: null };
  return {
    ok: true,
    edits: [
      ...parts.map((part): Edit => ({ type: 'remove-layer', layer: part.id })),
      { type: 'set-layer', layer: id, fields },
    ],
    selected: [id],
  };
}

/** A hundredth of a pixel: measured once more, letters stand within that. */
const NEAR = 0.01;

function isNear(a: Layer['rest'], b: Layer['rest']): boolean {
  const channels = new Set([...Object.keys(a), ...Object.keys(b)]) as Set<keyof Layer['rest']>;
  return [...channels].every((channel) => Math.abs((a[channel] ?? NaN) - (b[channel] ?? NaN)) <= NEAR);
}
