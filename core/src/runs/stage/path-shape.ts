import { boundsOfNodes, mapNodes, nodesOfPath, pathOfNodes, type NodePath } from '../../basics/motion';
import { layerEdits, type Edit } from '../../scene/edit';
import { restValue, type Layer } from '../../scene/layer';
import { outlinePath } from '../../scene/outline';
import { compileScene, matrixAt, restFrame } from '../../scene/sample';
import { changeChannels } from './channels';

/** Paths of layers are kept in a box of so much, with so many digits, so that a large one is true to a fraction of a px. */
const BOX = 100;
const DIGITS = 4;
/** More points than these are no shape that one edits point by point. */
const MOST_POINTS = 200;

/** A path in px as layers keep it, with the box that it fills; null without a line. */
export function boxedPath(path: NodePath) {
  const box = boundsOfNodes(path);
  if (!box || path.nodes.length < 2) return null;
  const [width, height] = [Math.max(1, box.right - box.left), Math.max(1, box.bottom - box.top)];
  const inBox = mapNodes(path, ({ x, y }) => ({
    x: ((x - box.left) / width) * BOX,
    y: ((y - box.top) / height) * BOX,
  }));
  return { d: pathOfNodes(inBox, DIGITS), left: box.left, top: box.top, width, height };
}

/** The outline of a layer by its points, in px of its box at rest; null where it is none of one line, or of too many points. */
export function pathShape(layer: Layer): NodePath | null {
  const { source } = layer;
  if (source.type !== 'path' || (source.d.match(/m/gi) ?? []).length !== 1) return null;
  const path = nodesOfPath(outlinePath(source, restValue(layer, 'size.x'), restValue(layer, 'size.y'), 0));
  return path.nodes.length >= 2 && path.nodes.length <= MOST_POINTS ? path : null;
}

/**
 * A layer with another outline, given as `pathShape` gives it: its box grows or shrinks around that, and every point that
 * was not changed stays where it is on screen, with all keys going along.
 */
export function reshapedPath(layer: Layer, path: NodePath): Edit[] {
  const boxed = boxedPath(path);
  if (layer.source.type !== 'path' || !boxed) return [];
  const [width, height] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
  const compiled = compileScene({ layers: [{ ...layer, parent: null, path: null }] });
  const [a, b, c, d] = matrixAt(restFrame(compiled), 0);
  const right = boxed.left + restValue(layer, 'anchor.x') * (boxed.width - width);
  const down = boxed.top + restValue(layer, 'anchor.y') * (boxed.height - height);
  const changed = changeChannels(
    layer,
    {
      'size.x': (value) => (width > 0 ? (value * boxed.width) / width : boxed.width),
      'size.y': (value) => (height > 0 ? (value * boxed.height) / height : boxed.height),
      'position.x': (value) => value + a * right + c * down,
      'position.y': (value) => value + b * right + d * down,
    },
    'along',
    0,
  );
  const source = { ...layer.source, d: boxed.d };
  return [{ type: 'set-layer', layer: layer.id, fields: { source } }, ...layerEdits(layer, changed)];
}
