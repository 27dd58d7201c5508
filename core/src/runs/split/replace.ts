import { apply, type Edit } from '../../scene/edit';
import {
  baseWithFileReplaced,
  withFileReplaced,
  type FileInPlace,
  type Layer,
  type TextSource,
} from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { splitAnew, type Piece, type SplitWay } from './words';

/** Measures the pieces of words that a layer was split into, set as they are now; their font is loaded. */
export type MeasurePieces = (group: Layer, source: TextSource, by: SplitWay) => readonly Piece[];

function plainEdits(layer: Layer, address: string, file: FileInPlace): Edit[] {
  const fields = withFileReplaced(layer, address, file);
  const base = baseWithFileReplaced(layer.base, address, file);
  return [
    ...(fields ? [{ type: 'set-layer', layer: layer.id, fields } as const] : []),
    ...(base ? [{ type: 'set-base', layer: layer.id, base } as const] : []),
  ];
}

/**
 * The edits that put another file in the place of the one at an address, wherever layers of a scene use it, with runs and
 * without. Words that were split are set anew where that is their font: their parts take the places and sizes that they
 * have in it. A part that was given a font of its own keeps it.
 */
export function replacingEdits(scene: Scene, address: string, file: FileInPlace, measure: MeasurePieces): Edit[] {
  const edits = scene.layers.flatMap((layer) => plainEdits(layer, address, file));
  const groups = scene.layers.filter(({ split }) => file.kind === 'font' && split?.source.fontFile === address);
  const result = apply(scene, edits);
  if (!result.ok) return edits;
  const own = new Map(scene.layers.map((layer) => [layer.id, layer.source]));
  const later: Edit[] = [];
  let standing = result.scene;
  for (const { id } of groups) {
    const group = standing.layers.find((layer) => layer.id === id);
    if (!group?.split) continue;
    const { source, by } = group.split;
    const anew = splitAnew(standing, id, source, measure(group, source, by));
    if (!anew.ok) continue;
    const set = anew.edits.map((edit): Edit => {
      const before = edit.type === 'set-layer' ? own.get(edit.layer) : undefined;
      if (edit.type !== 'set-layer' || before?.type !== 'text' || before.fontFile === address) return edit;
      const { source: _source, ...fields } = edit.fields;
      return { ...edit, fields };
    });
    const next = apply(standing, set);
    if (!next.ok) continue;
    later.push(...set);
    standing = next.scene;
  }
  return [...edits, ...later];
}
