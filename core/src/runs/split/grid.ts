import type { Edit } from '../../scene/edit';
import { restValue, type Layer } from '../../scene/layer';
import { pictureSize } from '../../scene/outline';
import type { Scene } from '../../scene/scene';
import type { StageResult } from '../stage';

const MOST_PARTS = 1_000;
const CROP = ['crop.x', 'crop.y', 'crop.zoom', 'size.x', 'size.y', 'corner'] as const;

const refuse = (message: string): StageResult => ({ ok: false, message });

/** Crop that shows one part of what a picture shows in its box: the picture stays at the same scale. */
function cropOf(
  layer: Layer,
  own: { readonly width: number; readonly height: number },
  at: readonly [number, number],
  size: readonly [number, number],
): Layer['rest'] {
  const [width, height] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
  const scale = Math.max(width / own.width, height / own.height) * restValue(layer, 'crop.zoom');
  const middle = (share: number, whole: number, shown: number): number => {
    const half = shown / 2 / whole;
    return half >= 0.5 ? 0.5 : Math.min(1 - half, Math.max(half, share));
  };
  const [cx, cy] = [
    middle(restValue(layer, 'crop.x'), own.width, width / scale),
    middle(restValue(layer, 'crop.y'), own.height, height / scale),
  ];
  return {
    'crop.x': cx + (at[0] - width / 2) / scale / own.width,
    'crop.y': cy + (at[1] - height / 2) / scale / own.height,
    'crop.zoom': scale / Math.max(size[0] / own.width, size[1] / own.height),
  };
}

/** A picture or a plain card becomes a group of columns and rows, which stand where they stood; corners go to the middle of each. */
export function splitBox(scene: Scene, id: string, columns: number, rows: number): StageResult {
  const layer = scene.layers.find((one) => one.id === id);
  const type = layer?.source.type;
  if (!layer || (type !== 'picture' && type !== 'rectangle'))
    return refuse('Select a picture or a plain card: it is split into columns and rows.');
  if (!(columns >= 1 && rows >= 1) || columns * rows < 2 || columns * rows > MOST_PARTS)
    return refuse(`Columns times rows must be between 2 and ${MOST_PARTS}.`);
  const keyed = CROP.find((channel) => layer.tracks[channel]);
  if (keyed)
    return refuse(
      `“${layer.name}” has keys for its crop, size or corner, which its parts cannot share. Clear these first.`,
    );
  if (layer.look.stroke !== undefined || typeof layer.look.fill === 'object' || restValue(layer, 'corner') > 0)
    return refuse(
      `“${layer.name}” has a stroke, a gradient or round corners, which would show in every part. Take these away first.`,
    );
  const { source } = layer;
  const own =
    source.type === 'picture'
      ? source.width && source.height
        ? { width: source.width, height: source.height }
        : pictureSize(source.href)
      : null;
  if (source.type === 'picture' && !own)
    return refuse(`The size of the picture in “${layer.name}” is not known. Replace it, and split it then.`);
  const [width, height] = [restValue(layer, 'size.x') / columns, restValue(layer, 'size.y') / rows];
  const parts = Array.from({ length: columns * rows }, (_, place): Layer => {
    const [column, row] = [place % columns, Math.floor(place / columns)];
    const at = [(column + 0.5) * width, (row + 0.5) * height] as const;
    const crop = own ? cropOf(layer, own, at, [width, height]) : {};
    const { base: _runs, path: _way, ...shown } = layer;
    return {
      ...shown,
      id: `${id.slice(0, 52)}-c${place + 1}`,
      name: `${layer.name.slice(0, 180)} ${row + 1}.${column + 1}`,
      parent: id,
      tags: [...layer.tags.filter((tag) => tag !== 'part'), 'part'],
      rest: { ...colours(layer), 'position.x': at[0], 'position.y': at[1], 'size.x': width, 'size.y': height, ...crop },
      tracks: {},
    };
  });
  const taken = new Set(scene.layers.map((one) => one.id));
  if (parts.some((part) => taken.has(part.id)))
    return refuse(`“${layer.name}” was split before, and some of its parts are left. Remove them first.`);
  const index = scene.layers.indexOf(layer);
  const fields: Partial<Layer> = { kind: 'group', source: { type: 'none' }, look: {} };
  return {
    ok: true,
    edits: [
      { type: 'set-layer', layer: id, fields },
      ...parts.map((part, i): Edit => ({ type: 'add-layer', index: index + 1 + i, layer: part })),
    ],
    selected: parts.map((part) => part.id),
  };
}

function colours({ rest }: Layer): Layer['rest'] {
  return Object.fromEntries(Object.entries(rest).filter(([channel]) => channel.startsWith('fill.'))) as Layer['rest'];
}
