import { clampToChannel, type ChannelId } from '../../basics/channel';
import { inverse, transformPoint, type Point } from '../../basics/transform';
import { layerEdits, type Edit } from '../../scene/edit';
import { movedShadow, shadowChannels } from '../../scene/layer';
import { matrixAt } from '../../scene/sample';
import { changeChannels, type ChannelChanges } from './channels';
import type { StageMoment } from './drag';
import {
  DEGREES,
  placedAt,
  round,
  said,
  STEP,
  turned,
  type HandleSet,
  type OwnHandle,
  type Placed,
} from './look-placed';
import { maskHandles, setMask, type MaskGrip } from './mask-handles';

/** What of a look is taken hold of: a number by its name, or a place of one of the masks. */
export type LookGrip =
  | { readonly of: 'corner' | 'border' | 'shadow' | 'inner' | 'glow' | 'blur' | 'streak' | 'gradient' }
  /** A shadow below the first, by its place, 0 for the second. */
  | { readonly of: 'further'; readonly place: number }
  | MaskGrip;

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

/** Handles of what is measured from a side stand at these shares of it, so that none lies on another, or on the side's own in its middle. */
const DOWN = { border: 0.7, glow: 0.3, blur: 0.3 } as const;
/** Shadows are measured from here, in shares of the box: beside the middle, where the anchor and masks have theirs. */
const THROWN = { shadow: { x: 0.25, y: 0.75 }, inner: { x: 0.75, y: 0.75 } } as const;
const OUT = { inside: -1, on: 0.5, outside: 1 } as const;
const ROUNDED: readonly string[] = ['rectangle', 'picture', 'clip'];

function thrownFrom({ width, height }: Placed, of: keyof typeof THROWN): Point {
  return { x: THROWN[of].x * width, y: THROWN[of].y * height };
}

/** Handles in px of the layer. */
function ownHandles(placed: Placed): OwnHandle<LookGrip>[] {
  const { layer, width, height, value } = placed;
  const { look, source } = layer;
  const middle = { x: width / 2, y: height / 2 };
  const list: OwnHandle<LookGrip>[] = [];
  const put = (of: Exclude<LookGrip['of'], 'mask' | 'further'>, label: string, at: Point, from: Point): void => {
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
  for (const [place, further] of (look.shadows ?? []).entries()) {
    const from = thrownFrom(placed, 'shadow');
    const { x, y } = movedShadow(further, place, value);
    list.push({
      grip: { of: 'further', place },
      label: `Shadow ${place + 2}`,
      at: { x: from.x + x, y: from.y + y },
      from,
    });
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
  list.push(...maskHandles(placed));
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

/** A further shadow at a point of the layer; as `setMask` does with masks. */
function setFurther(placed: Placed, place: number, to: Point, isStraight: boolean): HandleSet | null {
  const { layer, sets, value } = placed;
  const shadows = layer.look.shadows ?? [];
  const shadow = shadows.at(place);
  if (!shadow) return null;
  const from = thrownFrom(placed, 'shadow');
  const way = straightened({ x: to.x - from.x, y: to.y - from.y }, isStraight);
  const words = `${said(way.x)}, ${said(way.y)} px`;
  const [across, down] = shadowChannels(place);
  if (sets === 'key' && across !== undefined && down !== undefined) {
    return { channels: { [across]: round(way.x - shadow.x), [down]: round(way.y - shadow.y) }, words };
  }
  const moved = movedShadow(shadow, place, value);
  const at = { x: round(way.x - (moved.x - shadow.x)), y: round(way.y - (moved.y - shadow.y)) };
  return { look: { ...layer.look, shadows: shadows.map((one, i) => (i === place ? { ...one, ...at } : one)) }, words };
}

function setOne(placed: Placed, grip: LookGrip, to: Point, isStraight: boolean): HandleSet | null {
  const { layer, width, height } = placed;
  if (grip.of === 'mask') return setMask(placed, grip, to, isStraight);
  if (grip.of === 'further') return setFurther(placed, grip.place, to, isStraight);
  const middle = { x: width / 2, y: height / 2 };
  const px = (id: ChannelId, value: number): HandleSet => {
    const number = clampToChannel(id, round(value));
    return { channels: { [id]: number }, words: `${said(number)} px` };
  };
  const offset = (of: keyof typeof THROWN): HandleSet => {
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
