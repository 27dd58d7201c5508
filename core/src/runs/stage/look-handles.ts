import { CHANNEL_COUNT, channelOf, clampToChannel, type ChannelId } from '../../basics/channel';
import { inverse, transformPoint, type Point } from '../../basics/transform';
import { layerEdits, type Edit } from '../../scene/edit';
import type { Layer, Mask } from '../../scene/layer';
import { matrixAt } from '../../scene/sample';
import { changeChannels, type ChannelChanges } from './channels';
import type { StageMoment } from './drag';

/** What of a look is taken hold of: a number by its name, or a place of one of the masks. */
export type LookGrip =
  | { readonly of: 'corner' | 'border' | 'shadow' | 'inner' | 'glow' | 'blur' | 'streak' | 'gradient' }
  | { readonly of: 'mask'; readonly place: number; readonly part: 'middle' | 'size' | 'turn' };

/** A handle of a look on the stage. */
export interface LookHandle {
  readonly grip: LookGrip;
  /** What it is called, such as "Shadow" or "Mask 2, size". */
  readonly label: string;
  /** Where it stands, scene px. */
  readonly at: Point;
  /** What it is measured from, scene px. */
  readonly from: Point;
}

/** A look changed by a handle: its edits, and what that comes to, in words. */
export interface LookDragged {
  readonly label: string;
  readonly words: string;
  readonly edits: readonly Edit[];
}

const DEGREES = 180 / Math.PI;
/** Handles of what is measured from a side stand at these shares of it, so that none lies on another, or on the side's own in its middle. */
const DOWN = { border: 0.7, glow: 0.3, blur: 0.3 } as const;
/** Shadows are measured from here, in shares of the box: beside the middle, where the anchor and masks have theirs. */
const THROWN = { shadow: { x: 0.25, y: 0.75 }, inner: { x: 0.75, y: 0.75 } } as const;
/** How far out from its middle the handle of a mask's turn stands, in halves of its height. */
const KNOB = 1.4;
/** Turns by steps of these degrees where that is asked for. */
const STEP = 15;

interface Placed {
  readonly layer: Layer;
  readonly width: number;
  readonly height: number;
  readonly value: (id: ChannelId) => number;
}

function placedAt({ compiled, frame }: StageMoment, index: number): Placed {
  const value = (id: ChannelId): number => frame.values[index * CHANNEL_COUNT + channelOf(id).slot];
  return { layer: compiled.layers[index], width: value('size.x'), height: value('size.y'), value };
}

function turned({ x, y }: Point, degrees: number): Point {
  const [cos, sin] = [Math.cos(degrees / DEGREES), Math.sin(degrees / DEGREES)];
  return { x: cos * x - sin * y, y: sin * x + cos * y };
}

/** From the middle of a mask's box, turned as it is, px of the layer. */
function fromMask({ width, height, value }: Placed, mask: Mask, point: Point): Point {
  const scale = value('mask.scale');
  const own = turned(point, mask.turn);
  const [x, y] = [(mask.x - 0.5) * width + own.x, (mask.y - 0.5) * height + own.y];
  const all = turned({ x: x * scale, y: y * scale }, value('mask.rotation'));
  return { x: width / 2 + value('mask.x') * width + all.x, y: height / 2 + value('mask.y') * height + all.y };
}

/** The other way: a point of the layer as seen from the middle of its box, before the masks are moved together. */
function beforeMasks({ width, height, value }: Placed, { x, y }: Point): Point {
  const scale = value('mask.scale') || 1;
  const back = { x: x - width / 2 - value('mask.x') * width, y: y - height / 2 - value('mask.y') * height };
  const own = turned(back, -value('mask.rotation'));
  return { x: own.x / scale, y: own.y / scale };
}

const OUT = { inside: -1, on: 0.5, outside: 1 } as const;
const ROUNDED: readonly string[] = ['rectangle', 'picture', 'clip'];

interface Own {
  readonly grip: LookGrip;
  readonly label: string;
  readonly at: Point;
  readonly from: Point;
}

function thrownFrom({ width, height }: Placed, of: keyof typeof THROWN): Point {
  return { x: THROWN[of].x * width, y: THROWN[of].y * height };
}

/** Handles in px of the layer. */
function ownHandles(placed: Placed): Own[] {
  const { layer, width, height, value } = placed;
  const { look, source } = layer;
  const middle = { x: width / 2, y: height / 2 };
  const list: Own[] = [];
  const put = (of: Exclude<LookGrip['of'], 'mask'>, label: string, at: Point, from: Point): void => {
    list.push({ grip: { of }, label, at, from });
  };
  if (ROUNDED.includes(source.type)) {
    const round = Math.min(value('corner'), width / 2, height / 2);
    put('corner', 'Corners', { x: round, y: round }, { x: 0, y: 0 });
  }
  if (look.border) {
    const side = { x: width, y: height * DOWN.border };
    put('border', 'Border', { x: width + OUT[look.border.side] * value('border.width'), y: side.y }, side);
  }
  for (const kind of ['shadow', 'inner'] as const) {
    if (look[kind] === undefined) continue;
    const from = thrownFrom(placed, kind);
    const at = { x: from.x + value(`${kind}.x`), y: from.y + value(`${kind}.y`) };
    put(kind, kind === 'shadow' ? 'Shadow' : 'Inner shadow', at, from);
  }
  if (look.glow !== undefined) {
    const side = { x: width, y: height * DOWN.glow };
    put('glow', 'Glow', { x: width + value('glow.size'), y: side.y }, side);
  }
  if (value('blur') > 0)
    put('blur', 'Blur', { x: -value('blur'), y: height * DOWN.blur }, { x: 0, y: height * DOWN.blur });
  if (value('streak.length') > 0) {
    const { x, y } = turned({ x: value('streak.length') / 2, y: 0 }, value('streak.angle'));
    put('streak', 'Streak', { x: middle.x + x, y: middle.y + y }, middle);
  }
  const { fill } = look;
  if (typeof fill === 'object' && 'from' in fill) {
    const { x, y } = turned({ x: 0, y: Math.min(width, height) / 2 }, fill.angle);
    put('gradient', 'Gradient', { x: middle.x + x, y: middle.y + y }, middle);
  }
  for (const [place, mask] of (look.masks ?? []).entries()) {
    const [w, h] = [(mask.width * width) / 2, (mask.height * height) / 2];
    const from = fromMask(placed, mask, { x: 0, y: 0 });
    const label = `Mask ${place + 1}`;
    const at = (x: number, y: number): Point => fromMask(placed, mask, { x, y });
    list.push({ grip: { of: 'mask', place, part: 'turn' }, label: `${label}, turn`, at: at(0, -h * KNOB), from });
    list.push({ grip: { of: 'mask', place, part: 'size' }, label: `${label}, size`, at: at(w, h), from });
    list.push({ grip: { of: 'mask', place, part: 'middle' }, label, at: from, from });
  }
  return list;
}

/** Handles of what a layer's look has at a moment, by its index; none for one without size. */
export function lookHandles(moment: StageMoment, index: number): LookHandle[] {
  const placed = placedAt(moment, index);
  if (!(placed.width > 0) || !(placed.height > 0)) return [];
  const matrix = matrixAt(moment.frame, index);
  return ownHandles(placed).map((handle) => ({
    ...handle,
    at: transformPoint(matrix, handle.at),
    from: transformPoint(matrix, handle.from),
  }));
}

const round = (value: number, digits = 1): number => Number(value.toFixed(digits)) + 0;
const said = (value: number): string => String(round(value)).replace('-', '−');

/** How channels and parts of a look are set by a handle at a point of the layer. */
interface Set {
  readonly channels?: Readonly<Partial<Record<ChannelId, number>>>;
  readonly look?: Layer['look'];
  readonly words: string;
}

function setMask(placed: Placed, grip: Extract<LookGrip, { of: 'mask' }>, to: Point, isStraight: boolean): Set | null {
  const { layer, width, height } = placed;
  const masks = layer.look.masks ?? [];
  const mask = masks[grip.place] as Mask | undefined;
  if (!mask) return null;
  const point = beforeMasks(placed, to);
  const middle = { x: (mask.x - 0.5) * width, y: (mask.y - 0.5) * height };
  const held = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, round(value, 4)));
  const withPart = (part: Partial<Mask>, words: string): Set => ({
    look: { ...layer.look, masks: masks.map((one, i) => (i === grip.place ? { ...one, ...part } : one)) },
    words,
  });
  const way = { x: point.x - middle.x, y: point.y - middle.y };
  switch (grip.part) {
    case 'middle': {
      const [x, y] = [held(point.x / width + 0.5, -10, 10), held(point.y / height + 0.5, -10, 10)];
      return withPart({ x, y }, `${said(x * 100)} %, ${said(y * 100)} %`);
    }
    case 'size': {
      const own = turned(way, -mask.turn);
      const free = { x: Math.abs(own.x) * 2, y: Math.abs(own.y) * 2 };
      const [w, h] = [mask.width * width, mask.height * height];
      const by = Math.max(free.x / (w || 1), free.y / (h || 1));
      const size = isStraight && w > 0 && h > 0 ? { x: w * by, y: h * by } : free;
      const [x, y] = [held(size.x / width, 0, 20), held(size.y / height, 0, 20)];
      return withPart({ width: x, height: y }, `${said(x * 100)} % × ${said(y * 100)} %`);
    }
    case 'turn': {
      const free = Math.atan2(way.x, -way.y) * DEGREES;
      const turn = isStraight ? Math.round(free / STEP) * STEP : round(free);
      return withPart({ turn }, `${said(turn)}°`);
    }
  }
}

function setOne(placed: Placed, grip: LookGrip, to: Point, isStraight: boolean): Set | null {
  const { layer, width, height } = placed;
  if (grip.of === 'mask') return setMask(placed, grip, to, isStraight);
  const middle = { x: width / 2, y: height / 2 };
  const px = (id: ChannelId, value: number): Set => {
    const number = clampToChannel(id, round(value));
    return { channels: { [id]: number }, words: `${said(number)} px` };
  };
  const offset = (of: keyof typeof THROWN): Set => {
    const from = thrownFrom(placed, of);
    const way = straightened({ x: to.x - from.x, y: to.y - from.y }, isStraight);
    return {
      channels: { [`${of}.x`]: round(way.x), [`${of}.y`]: round(way.y) },
      words: `${said(way.x)}, ${said(way.y)} px`,
    };
  };
  switch (grip.of) {
    case 'corner':
      return px('corner', Math.min(Math.max(0, (to.x + to.y) / 2), width / 2, height / 2));
    case 'border':
      return px('border.width', Math.max(0, (to.x - width) / OUT[layer.look.border?.side ?? 'outside']));
    case 'shadow':
    case 'inner':
      return offset(grip.of);
    case 'glow':
      return px('glow.size', to.x - width);
    case 'blur':
      return px('blur', -to.x);
    case 'streak': {
      const way = straightened({ x: to.x - middle.x, y: to.y - middle.y }, isStraight);
      const [length, angle] = [round(2 * Math.hypot(way.x, way.y)), round(Math.atan2(way.y, way.x) * DEGREES)];
      return {
        channels: { 'streak.length': length, 'streak.angle': angle },
        words: `${said(length)} px, ${said(angle)}°`,
      };
    }
    case 'gradient': {
      const { fill } = layer.look;
      if (typeof fill !== 'object' || !('from' in fill)) return null;
      const free = Math.atan2(middle.x - to.x, to.y - middle.y) * DEGREES;
      const angle = isStraight ? Math.round(free / STEP) * STEP : round(free);
      return { look: { ...layer.look, fill: { ...fill, angle } }, words: `${said(angle)}°` };
    }
  }
}

/** A way that goes along the nearest eighth of a turn, where that is asked for. */
function straightened(way: Point, isStraight: boolean): Point {
  if (!isStraight) return way;
  const angle = (Math.round((Math.atan2(way.y, way.x) * DEGREES) / 45) * 45) / DEGREES;
  const long = Math.abs(way.x * Math.cos(angle) + way.y * Math.sin(angle));
  return { x: Math.cos(angle) * long, y: Math.sin(angle) * long };
}

/**
 * A layer's look with one of its handles at a point of the scene: numbers as a drag sets them (rest pose, all keys along, a key
 * here), what is no channel at once. Straight: by eighths of a turn, steps of 15°, or with a mask's ratio kept. Null where the
 * layer cannot be reached, or has no such handle.
 */
export function dragLookHandle(
  moment: StageMoment,
  index: number,
  { grip, label }: Pick<LookHandle, 'grip' | 'label'>,
  to: Point,
  isStraight: boolean,
): LookDragged | null {
  const back = inverse(matrixAt(moment.frame, index));
  const placed = placedAt(moment, index);
  const set = back ? setOne(placed, grip, transformPoint(back, to), isStraight) : null;
  if (!set) return null;
  const { layer, value } = placed;
  const changes: ChannelChanges = Object.fromEntries(
    Object.entries(set.channels ?? {}).map(([id, next]) => {
      const by = next - value(id as ChannelId);
      return [id, (standing: number) => standing + by];
    }),
  );
  const changed = changeChannels(layer, changes, moment.sets, moment.at);
  return {
    label: `Set the ${label.toLowerCase()} of “${layer.name}”`,
    words: `${label} ${set.words}`,
    edits: layerEdits(layer, set.look ? { ...changed, look: set.look } : changed),
  };
}
