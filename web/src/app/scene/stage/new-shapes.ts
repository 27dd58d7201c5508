import { boxedPath, regularPath, type Layer, type NodePath, type Point, type Scene } from '@wexikine/core';

/** Shapes that can be added, by what they are called. */
export const NEW_SHAPES = [
  { kind: 'rectangle', label: 'Rectangle', icon: 'rectangle' },
  { kind: 'ellipse', label: 'Ellipse', icon: 'circle' },
  { kind: 'line', label: 'Line', icon: 'horizontal_rule' },
  { kind: 'polygon', label: 'Polygon', icon: 'pentagon' },
  { kind: 'star', label: 'Star', icon: 'star' },
  { kind: 'words', label: 'Words', icon: 'text_fields' },
] as const;
/** A shape that can be added. */
export type ShapeKind = (typeof NEW_SHAPES)[number]['kind'];

/** Size of a new shape as a share of the frame's height. */
const SHARE = 0.22;
const FILL = '#e0a526';
/** Width of a new line, px. */
const LINE = 6;

function shown(
  kind: ShapeKind,
  size: number,
): Pick<Layer, 'source' | 'look' | 'kind'> & {
  readonly box: readonly [number, number];
  readonly rest?: Layer['rest'];
} {
  const fill = FILL;
  switch (kind) {
    case 'rectangle':
      return { kind: 'card', source: { type: 'rectangle' }, look: { fill }, box: [size * 1.5, size] };
    case 'ellipse':
      return { kind: 'card', source: { type: 'ellipse' }, look: { fill }, box: [size, size] };
    case 'line':
      return {
        kind: 'card',
        source: { type: 'path', d: 'M0 50 H100' },
        look: { stroke: fill, cap: 'round' },
        box: [size * 2, 1],
        rest: { 'stroke.width': LINE },
      };
    case 'polygon':
      return { kind: 'card', source: { type: 'path', d: regularPath(6, null) }, look: { fill }, box: [size, size] };
    case 'star':
      return { kind: 'card', source: { type: 'path', d: regularPath(5, 22) }, look: { fill }, box: [size, size] };
    case 'words': {
      const source = {
        type: 'text',
        text: 'New words',
        font: 'Spline Sans',
        weight: 600,
        size: Math.round(size / 3),
        align: 'middle',
      } as const;
      return { kind: 'word', source, look: { fill: '#f4ecdc' }, box: [size * 2, size / 2] };
    }
  }
}

/** A new layer with a shape or words about a point, as long as the scene; its name counts on. */
export function newShape(scene: Scene, kind: ShapeKind, at: Point, id: string): Layer {
  const { box, rest, ...own } = shown(kind, Math.round(scene.height * SHARE));
  const label = NEW_SHAPES.find((one) => one.kind === kind)?.label ?? 'Shape';
  return newLayer(scene, id, label, own, {
    'position.x': Math.round(at.x),
    'position.y': Math.round(at.y),
    'size.x': box[0],
    'size.y': box[1],
    ...rest,
  });
}

/** A layer with a path that was drawn in scene pixels: filled where it is closed, else a line. */
export function drawnPath(scene: Scene, path: NodePath, id: string): Layer | null {
  const boxed = boxedPath(path);
  if (!boxed) return null;
  const { d, left, top, width, height } = boxed;
  const look: Layer['look'] = path.isClosed ? { fill: FILL } : { stroke: FILL, cap: 'round', join: 'round' };
  return newLayer(
    scene,
    id,
    'Path',
    { kind: 'card', source: { type: 'path', d }, look },
    {
      'position.x': left + width / 2,
      'position.y': top + height / 2,
      'size.x': width,
      'size.y': height,
      ...(path.isClosed ? {} : { 'stroke.width': LINE }),
    },
  );
}

/** A name for something new, which counts on from 1. */
export function countedName({ layers }: Scene, label: string): string {
  const taken = new Set(layers.map(({ name }) => name));
  let count = 1;
  while (taken.has(`${label} ${count}`)) count++;
  return `${label} ${count}`;
}

function newLayer(
  scene: Scene,
  id: string,
  label: string,
  own: Pick<Layer, 'kind' | 'source' | 'look'>,
  rest: Layer['rest'],
): Layer {
  return {
    ...own,
    id,
    name: countedName(scene, label),
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: scene.length },
    rest,
    tracks: {},
    data: {},
  };
}
