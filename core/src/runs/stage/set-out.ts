import type { Ticks } from '../../basics/time';
import { IDENTITY, inverse, transformPoint, type Box, type Matrix } from '../../basics/transform';
import { layerEdits, type Edit } from '../../scene/edit';
import { restValue, type Layer, type Track } from '../../scene/layer';
import { compiledOnce, matrixAt, restFrame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { topLayers, withInside } from './nesting';

/** How layers, mostly pictures, are set out in places of the frame and in time. */
export interface SetOutWay {
  /** Places of the frame; with fewer places than layers the layers take turns in them. */
  readonly places: number;
  /** The whole picture as large as its place allows, or so that it fills the place; others than pictures keep their size. */
  readonly size: 'whole' | 'fill';
  /** How long each is shown, at least 1; null: as long as the scene. Clips end with their own length. */
  readonly hold: Ticks | null;
  /** How much later each place begins than the one before. */
  readonly apart: Ticks;
}

/** What setting out gives. */
export interface SetOut {
  readonly edits: readonly Edit[];
  /** When each layer begins, in the order of the layers. */
  readonly starts: readonly Ticks[];
  /** When the last one is over. */
  readonly over: Ticks;
}

/** Share of the frame that places leave free at its sides, and of a place that a picture leaves free; one place alone is the frame. */
const [MARGIN, AIR] = [0.06, 0.04];

interface Size {
  readonly width: number;
  readonly height: number;
}

function gridOf({ width, height }: Size, columns: number, rows: number): Box[] {
  const isAlone = columns * rows === 1;
  const [mx, my] = isAlone ? [0, 0] : [width * MARGIN, height * MARGIN];
  const [w, h] = [(width - 2 * mx) / columns, (height - 2 * my) / rows];
  const air = isAlone ? 0 : Math.min(w, h) * AIR;
  return Array.from({ length: columns * rows }, (_, i) => {
    const [left, top] = [mx + w * (i % columns), my + h * Math.floor(i / columns)];
    return { left: left + air, top: top + air, right: left + w - air, bottom: top + h - air };
  });
}

function largestIn({ width, height }: Size, place: Box): number {
  return Math.min((place.right - place.left) / width, (place.bottom - place.top) / height);
}

/** So many places of a frame, row by row, in the grid in which things of these sizes are drawn largest. */
export function placesIn(frame: Size, count: number, things: readonly Size[]): Box[] {
  let [best, most] = [gridOf(frame, 1, count), -1];
  for (let columns = 1; columns <= count; columns++) {
    const rows = Math.ceil(count / columns);
    if ((rows - 1) * columns >= count) continue;
    const grid = gridOf(frame, columns, rows);
    const drawn = things.reduce((sum, thing) => {
      const scale = largestIn(thing, grid[0]);
      return sum + scale * scale * thing.width * thing.height;
    }, 0);
    if (drawn > most * (1 + 1e-9)) [best, most] = [grid, drawn];
  }
  return best.slice(0, count);
}

/** What a picture's own size is; of others the size that they have. */
function naturalSize(layer: Layer): Size {
  const { source } = layer;
  const own = { width: Math.max(1, restValue(layer, 'size.x')), height: Math.max(1, restValue(layer, 'size.y')) };
  if (source.type !== 'picture' && source.type !== 'clip') return own;
  return { width: source.width ?? own.width, height: source.height ?? own.height };
}

const DEGREE = Math.PI / 180;

/**
 * A layer with its middle in the middle of a place of the frame, as large there as is asked for. `group` is where the group that
 * it is in stands at rest; a group without size has no place for it, and it stays.
 */
function placed(layer: Layer, place: Box, size: SetOutWay['size'], group: Matrix): Layer {
  const back = inverse(group);
  if (!back) return layer;
  const [a, b, c, d] = group;
  const middle = transformPoint(back, { x: (place.left + place.right) / 2, y: (place.top + place.bottom) / 2 });
  const value = (id: Parameters<typeof restValue>[1]): number => restValue(layer, id);
  const scale = { x: value('scale.x') || 1, y: value('scale.y') || 1 };
  const natural = naturalSize(layer);
  const isPicture = layer.source.type === 'picture' || layer.source.type === 'clip';
  const fit = largestIn(natural, place);
  const wanted =
    size === 'whole'
      ? { width: natural.width * fit, height: natural.height * fit }
      : { width: place.right - place.left, height: place.bottom - place.top };
  const box = isPicture
    ? {
        x: wanted.width / Math.abs(scale.x) / Math.hypot(a, b),
        y: wanted.height / Math.abs(scale.y) / Math.hypot(c, d),
      }
    : { x: value('size.x'), y: value('size.y') };
  const from = {
    x: (0.5 - value('anchor.x')) * box.x * scale.x,
    y: (0.5 - value('anchor.y')) * box.y * scale.y,
  };
  const [cos, sin] = [Math.cos(value('rotation') * DEGREE), Math.sin(value('rotation') * DEGREE)];
  const rest = {
    ...layer.rest,
    'position.x': middle.x - (cos * from.x - sin * from.y),
    'position.y': middle.y - (sin * from.x + cos * from.y),
    ...(isPicture ? { 'size.x': box.x, 'size.y': box.y } : {}),
  };
  return { ...layer, rest };
}

/** A layer that is shown from a time to another, with its keys moved by a time. */
function timed(layer: Layer, span: Layer['span'], by: Ticks): Layer {
  if (by === 0) return { ...layer, span };
  const moved = Object.entries(layer.tracks).map(([id, keys]) => [
    id,
    keys.map((key) => ({ ...key, at: key.at + by })),
  ]);
  return { ...layer, span, tracks: Object.fromEntries(moved) as Readonly<Record<string, Track>> };
}

/** How long a layer is shown that begins at a time: a clip no longer than it is itself. */
function endOf({ source }: Layer, from: Ticks, out: Ticks): Ticks {
  return source.type === 'clip' ? Math.min(out, from + source.length) : out;
}

/** What is in a group goes along in time; what was there from the group's beginning, or to its end, is so again. */
function contents(scene: Scene, group: Layer, span: Layer['span']): Edit[] {
  const by = span.in - group.span.in;
  return withInside(scene, new Set([group.id])).flatMap((layer) => {
    if (layer.id === group.id) return [];
    const from = layer.span.in <= group.span.in ? span.in : layer.span.in + by;
    const out =
      layer.span.out >= group.span.out ? Math.max(span.out, from + 1) : Math.max(layer.span.out + by, from + 1);
    return layerEdits(layer, timed(layer, { in: from, out: endOf(layer, from, out) }, by));
  });
}

/** Where the group of a layer stands at rest. */
function groupsAtRest(scene: Scene): (layer: Layer) => Matrix {
  const compiled = compiledOnce(scene);
  const frame = restFrame(compiled);
  const places = new Map(compiled.layers.map(({ id }, index) => [id, index]));
  return ({ parent }) => {
    const index = parent === null ? undefined : places.get(parent);
    return index === undefined ? IDENTITY : matrixAt(frame, index);
  };
}

/** Groups are there as long as what is set out in them. */
function longerGroups(scene: Scene, layers: readonly Layer[], spans: readonly Layer['span'][]): Edit[] {
  const known = new Map(scene.layers.map((layer) => [layer.id, layer]));
  const wanted = new Map<string, Layer['span']>();
  layers.forEach((layer, i) => {
    for (let group = known.get(layer.parent ?? ''); group; group = known.get(group.parent ?? '')) {
      const span = wanted.get(group.id) ?? group.span;
      wanted.set(group.id, { in: Math.min(span.in, spans[i].in), out: Math.max(span.out, spans[i].out) });
    }
  });
  return [...wanted].flatMap(([id, span]) => {
    const group = known.get(id);
    return group ? layerEdits(group, { ...group, span }) : [];
  });
}

/**
 * Sets layers out in places and in time, in the order in which they lie: the first into the first place, each further one
 * into the next, and where all places are taken into the first again, when what it shows is over. Layer i begins
 * (i mod places) · apart + ⌊i ÷ places⌋ · hold after the beginning; what is in a group goes along. The scene becomes as long
 * as the last one needs.
 */
export function setOut(scene: Scene, ids: ReadonlySet<string>, way: SetOutWay): SetOut {
  const chosen = new Set(topLayers(scene, ids).map(({ id }) => id));
  const layers = scene.layers.filter(({ id, locked }) => chosen.has(id) && !locked);
  if (layers.length === 0) return { edits: [], starts: [], over: 0 };
  const count = Math.min(way.places, layers.length);
  const places = placesIn(scene, count, layers.map(naturalSize));
  const hold = way.hold ?? scene.length;
  const spans = layers.map((layer, i) => {
    const start = (i % count) * way.apart + Math.floor(i / count) * hold;
    return { in: start, out: endOf(layer, start, start + hold) };
  });
  const over = spans.reduce((most, { out }) => Math.max(most, out), 0);
  const groupOf = groupsAtRest(scene);
  const edits = layers.flatMap((layer, i) => [
    ...layerEdits(
      layer,
      timed(placed(layer, places[i % count], way.size, groupOf(layer)), spans[i], spans[i].in - layer.span.in),
    ),
    ...contents(scene, layer, spans[i]),
  ]);
  const longer: Edit[] = over > scene.length ? [{ type: 'set-scene', fields: { length: over } }] : [];
  const groups = longerGroups(scene, layers, spans);
  return { edits: [...longer, ...groups, ...edits], starts: spans.map((span) => span.in), over };
}
