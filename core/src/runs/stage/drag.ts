import { multiply, transformPoint, type Matrix, type Point } from '../../basics/transform';
import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import type { Ticks } from '../../basics/time';
import { layerEdits, type Edit } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { compiledOnce, frameAt, matrixAt, restFrame, type CompiledScene, type Frame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { changeChannels, type ChannelChanges, type DragSets } from './channels';

/** A scene as it stands while layers are dragged in it: worked out once for a drag. */
export interface StageMoment {
  readonly scene: Scene;
  readonly sets: DragSets;
  readonly at: Ticks;
  readonly compiled: CompiledScene;
  /** Of the playhead; where the rest pose alone is set, of the rest poses. */
  readonly frame: Frame;
}

/** Prepares a scene for drags at a time. */
export function stageMoment(scene: Scene, sets: DragSets, at: Ticks): StageMoment {
  const compiled = compiledOnce(scene);
  return { scene, sets, at, compiled, frame: sets === 'rest' ? restFrame(compiled) : frameAt(compiled, at) };
}

/** Indices of layers that are moved: those asked for that are not locked and not sounds, without those that a moved group takes along. */
export function movedLayers({ compiled }: Pick<StageMoment, 'compiled'>, ids: ReadonlySet<string>): number[] {
  const { layers, parents } = compiled;
  const isMoved = (index: number): boolean =>
    ids.has(layers[index].id) && !layers[index].locked && layers[index].kind !== 'sound';
  const isTaken = (index: number): boolean => {
    for (let up = parents[index]; up >= 0; up = parents[up]) if (isMoved(up)) return true;
    return false;
  };
  return layers.flatMap((_, index) => (isMoved(index) && !isTaken(index) ? [index] : []));
}

/** A way in scene px as a way in the layer's parent; the group's turn and size undone. A group without size: none. */
function inParent({ compiled, frame }: StageMoment, index: number, { x, y }: Point): Point {
  const parent = compiled.parents[index];
  if (parent < 0) return { x, y };
  const [a, b, c, d] = matrixAt(frame, parent);
  const area = a * d - b * c;
  return area === 0 ? { x: 0, y: 0 } : { x: (d * x - c * y) / area, y: (a * y - b * x) / area };
}

const SLOTS = {
  anchorX: channelOf('anchor.x').slot,
  anchorY: channelOf('anchor.y').slot,
  width: channelOf('size.x').slot,
  height: channelOf('size.y').slot,
} as const;

function valueOf({ frame }: StageMoment, index: number, slot: keyof typeof SLOTS): number {
  return frame.values[index * CHANNEL_COUNT + SLOTS[slot]];
}

/** Where a layer's anchor stands in the scene, px. */
export function anchorAt(moment: StageMoment, index: number): Point {
  const [x, y] = [valueOf(moment, index, 'anchorX'), valueOf(moment, index, 'anchorY')];
  return cornerAt(moment, index, { x, y });
}

/** Where a place of a layer's box stands in the scene, px; (0, 0) is its top left corner, (1, 1) its bottom right one. */
export function cornerAt(moment: StageMoment, index: number, { x, y }: Point): Point {
  const place = { x: x * valueOf(moment, index, 'width'), y: y * valueOf(moment, index, 'height') };
  return transformPoint(matrixAt(moment.frame, index), place);
}

function moved(by: Point): ChannelChanges {
  return { 'position.x': (x) => x + by.x, 'position.y': (y) => y + by.y };
}

function changed(moment: StageMoment, index: number, changes: ChannelChanges): Edit[] {
  const layer = moment.compiled.layers[index] as Layer;
  return layerEdits(layer, changeChannels(layer, changes, moment.sets, moment.at));
}

/** Moves layers by a way in scene px. */
export function moveLayers(moment: StageMoment, ids: ReadonlySet<string>, by: Point): Edit[] {
  if (by.x === 0 && by.y === 0) return [];
  return movedLayers(moment, ids).flatMap((index) => changed(moment, index, moved(inParent(moment, index, by))));
}

function turnAbout(point: Point, degrees: number): Matrix {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return multiply(
    [1, 0, 0, 1, point.x, point.y],
    multiply([cos, sin, -sin, cos, 0, 0], [1, 0, 0, 1, -point.x, -point.y]),
  );
}

/** Turns layers by degrees about a point of the scene: each one's anchor goes round it, and each turns by as much. */
export function turnLayers(moment: StageMoment, ids: ReadonlySet<string>, degrees: number, point: Point): Edit[] {
  if (degrees === 0) return [];
  const turn = turnAbout(point, degrees);
  return movedLayers(moment, ids).flatMap((index) => {
    const from = anchorAt(moment, index);
    const to = transformPoint(turn, from);
    const by = inParent(moment, index, { x: to.x - from.x, y: to.y - from.y });
    return changed(moment, index, { ...moved(by), rotation: (value) => value + degrees });
  });
}

/** Factors below this would leave nothing to take hold of. */
const LEAST_FACTOR = 0.001;

function factor(value: number): number {
  return Math.abs(value) < LEAST_FACTOR ? (value < 0 ? -LEAST_FACTOR : LEAST_FACTOR) : value;
}

/** Scales layers together about a point of the scene, by one factor: ways between them grow alike. */
export function scaleLayers(moment: StageMoment, ids: ReadonlySet<string>, by: number, point: Point): Edit[] {
  const share = factor(by);
  if (share === 1) return [];
  return movedLayers(moment, ids).flatMap((index) => {
    const from = anchorAt(moment, index);
    // Each anchor goes away from the point by as much as its way from there grows.
    const grown = { x: (from.x - point.x) * (share - 1), y: (from.y - point.y) * (share - 1) };
    const way = inParent(moment, index, grown);
    return changed(moment, index, {
      ...moved(way),
      'scale.x': (value) => value * share,
      'scale.y': (value) => value * share,
    });
  });
}

/** Scales one layer along its own sides by two factors; the place of its box that is kept (in shares) stays where it is. */
export function scaleLayer(moment: StageMoment, id: string, by: Point, kept: Point): Edit[] {
  return stretched(moment, id, by, kept, ['scale.x', 'scale.y']);
}

/** Makes one layer's box larger or smaller along its own sides, its scale as it is: letters, corners and strokes stay as they are. */
export function sizeLayer(moment: StageMoment, id: string, by: Point, kept: Point): Edit[] {
  return stretched(moment, id, { x: Math.abs(by.x), y: Math.abs(by.y) }, kept, ['size.x', 'size.y']);
}

function stretched(
  moment: StageMoment,
  id: string,
  by: Point,
  kept: Point,
  [across, down]: readonly ['scale.x' | 'size.x', 'scale.y' | 'size.y'],
): Edit[] {
  const [index] = movedLayers(moment, new Set([id]));
  if (index === undefined) return [];
  const shares = { x: factor(by.x), y: factor(by.y) };
  if (shares.x === 1 && shares.y === 1) return [];
  const anchor = { x: valueOf(moment, index, 'anchorX'), y: valueOf(moment, index, 'anchorY') };
  const [origin, right, below] = [
    { x: 0, y: 0 },
    { x: 1, y: 0 },
    { x: 0, y: 1 },
  ].map((corner) => cornerAt(moment, index, corner));
  // The kept place would go away from the anchor by what its way from there grows; the layer goes back by as much.
  const [far, low] = [(kept.x - anchor.x) * (1 - shares.x), (kept.y - anchor.y) * (1 - shares.y)];
  const back = inParent(moment, index, {
    x: (right.x - origin.x) * far + (below.x - origin.x) * low,
    y: (right.y - origin.y) * far + (below.y - origin.y) * low,
  });
  return changed(moment, index, {
    ...moved(back),
    [across]: (value: number) => value * shares.x,
    [down]: (value: number) => value * shares.y,
  });
}
