import { CHANNEL_COUNT, type Layer } from '@wexikine/core';
import { drawSheet, type Brush, type Patch, type View } from './brush';
import type { Plan } from './plan';
import type { Context, Surfaces } from './surfaces';

/** So few layers are as quickly drawn as looked after. */
const LEAST_LAYERS = 24;
/** So many that stand still beside one another are worth a picture of their own. */
const LEAST_RUN = 12;

/** So many times in a row the same ones change before the others are kept: the first frames of a drag have enough to do. */
const LEAST_TIMES = 4;
/** So many more are kept in each frame, so that none takes long. */
const MORE = 32;

/** Neighbours from back to front, drawn together: places among the outermost layers, the last one left out. */
interface Run {
  readonly from: number;
  readonly to: number;
  readonly context: Context;
}

/** What a canvas was drawn from when it was drawn last. */
interface Before {
  readonly layers: readonly Layer[];
  readonly children: readonly number[];
  readonly values: Float64Array;
  readonly matrices: Float64Array;
  readonly live: Uint8Array;
  readonly view: View;
  readonly bounds: Patch;
  readonly arrived: number;
  readonly frames: number;
}

/** A canvas that is drawn again and again. */
interface Ground {
  before: Before | null;
  /** The outermost layers that changed last lie between these places. */
  from: number;
  to: number;
  /** How many times in a row that was so. */
  times: number;
  /** What stands still behind and before them. */
  behind: Run | null;
  ahead: Run | null;
}

const NOTHING_KNOWN: Ground = { before: null, from: -1, to: -1, times: 0, behind: null, ahead: null };

type DrawLayer = (brush: Brush, plan: Plan, index: number) => void;

/** A copy of numbers, in the room of an earlier one where that is as long: large scenes have megabytes of them a frame. */
function copied<T extends Float64Array | Uint8Array>(numbers: T, room: T | undefined): T {
  if (room?.length !== numbers.length) return numbers.slice() as T;
  room.set(numbers);
  return room;
}

/** What a canvas is drawn from now; the numbers of the frame before are not to be asked for any more. */
function remembered(
  { picture, view, bounds }: Brush,
  children: readonly number[],
  surfaces: Surfaces,
  before: Before | null,
): Before {
  const { compiled, frame } = picture;
  return {
    layers: compiled.layers,
    children,
    values: copied(frame.values, before?.values),
    matrices: copied(frame.matrices, before?.matrices),
    live: copied(frame.live, before?.live),
    view,
    bounds,
    arrived: surfaces.arrived(),
    frames: surfaces.framesArrived(),
  };
}

function isSameView(a: View, b: View): boolean {
  return a.scale === b.scale && a.x === b.x && a.y === b.y;
}

/** True where the same layers lie in the same order on the same canvas, so that one can be compared with the other. */
function isAlike(
  before: Before,
  { picture, view, bounds }: Brush,
  children: readonly number[],
  arrived: number,
): boolean {
  return (
    before.arrived === arrived &&
    isSameView(before.view, view) &&
    before.bounds.width === bounds.width &&
    before.bounds.height === bounds.height &&
    before.layers.length === picture.compiled.layers.length &&
    before.children.length === children.length &&
    children.every((index, i) => before.children[i] === index)
  );
}

/** Whether one of these layers is drawn otherwise than before. */
function isChanged(before: Before, { picture }: Brush, members: readonly number[], frames: number): boolean {
  const { compiled, frame, shutter } = picture;
  return members.some((index) => {
    const layer = compiled.layers[index];
    if (before.layers[index] !== layer || before.live[index] !== frame.live[index]) return true;
    if (layer.look.motionBlur && shutter) return true;
    if (layer.source.type === 'clip' && before.frames !== frames) return true;
    for (let i = index * 6; i < index * 6 + 6; i++) if (before.matrices[i] !== frame.matrices[i]) return true;
    const end = (index + 1) * CHANNEL_COUNT;
    for (let i = index * CHANNEL_COUNT; i < end; i++) if (before.values[i] !== frame.values[i]) return true;
    return false;
  });
}

/**
 * Draws the outermost layers of a scene on a canvas. What stands still behind and before those that move is drawn once and
 * kept, on two surfaces a canvas: one layer that is dragged among hundreds is drawn alone. Layers that blend with what lies
 * behind them are drawn each time, and so are the others where one of them does.
 */
export function createGrounds(surfaces: Surfaces, drawLayer: DrawLayer): (brush: Brush, plan: Plan) => void {
  const grounds = new WeakMap<Context, Ground>();

  const drawRun = (brush: Brush, { context }: Run): void => {
    brush.context.globalAlpha = 1;
    drawSheet(brush, { context, patch: brush.bounds });
  };

  /** Draws some more onto a run that ends where they begin, or onto an empty one. */
  const grown = (
    brush: Brush,
    plan: Plan,
    children: readonly number[],
    run: Run | null,
    from: number,
    to: number,
  ): Run => {
    const context = run?.context ?? surfaces.take(brush.bounds.width, brush.bounds.height);
    const end = Math.min(to, (run?.to ?? from) + MORE);
    for (const index of children.slice(run?.to ?? from, end)) drawLayer({ ...brush, context }, plan, index);
    return { from: run?.from ?? from, to: end, context };
  };

  /** Which of the outermost layers changed: from one place to another; none where both are the number of all. */
  const changedBetween = (before: Before, brush: Brush, plan: Plan, children: readonly number[]) => {
    const frames = surfaces.framesArrived();
    const isMoving = (index: number): boolean => isChanged(before, brush, plan.membersOf(index), frames);
    let [from, to] = [0, children.length];
    while (from < to && !isMoving(children[from])) from++;
    while (to > from && !isMoving(children[to - 1])) to--;
    return { from, to };
  };

  const drop = (run: Run | null): null => {
    if (run) surfaces.give(run.context);
    return null;
  };

  /** Brings what is kept up to date with what changed: what lies behind that first, and then what lies before it. */
  const follow = (ground: Ground, brush: Brush, plan: Plan, children: readonly number[], before: Before): void => {
    const { from, to } = changedBetween(before, brush, plan, children);
    if (from === to) return;
    const count = children.length;
    const times = from === ground.from && to === ground.to ? ground.times + 1 : 1;
    Object.assign(ground, { from, to, times });
    if (ground.behind && ground.behind.to > from) ground.behind = drop(ground.behind);
    if (ground.ahead && ground.ahead.from < to) ground.ahead = drop(ground.ahead);
    if (times < LEAST_TIMES) return;
    const { behind, ahead } = ground;
    if (from - (behind?.to ?? 0) >= LEAST_RUN) {
      ground.behind = grown(brush, plan, children, behind, 0, from);
    } else if (ahead && ahead.from - to >= LEAST_RUN) {
      ground.ahead = drop(ahead);
    } else if (count - (ahead?.to ?? to) >= LEAST_RUN) {
      ground.ahead = grown(brush, plan, children, ahead, to, count);
    }
  };

  return (brush, plan) => {
    const children = plan.children.get(-1) ?? [];
    const ground = grounds.get(brush.context) ?? { ...NOTHING_KNOWN };
    grounds.set(brush.context, ground);
    const isWorthIt = children.length >= LEAST_LAYERS && !plan.apart.has(-1) && !brush.picture.keptView;
    const { before } = ground;
    if (isWorthIt && before && isAlike(before, brush, children, surfaces.arrived())) {
      follow(ground, brush, plan, children, before);
    } else {
      Object.assign(ground, NOTHING_KNOWN, { behind: drop(ground.behind), ahead: drop(ground.ahead) });
    }
    ground.before = isWorthIt ? remembered(brush, children, surfaces, before) : null;
    const { behind, ahead } = ground;
    if (behind) drawRun(brush, behind);
    for (const index of children.slice(behind?.to ?? 0, ahead?.from)) drawLayer(brush, plan, index);
    if (!ahead) return;
    drawRun(brush, ahead);
    for (const index of children.slice(ahead.to)) drawLayer(brush, plan, index);
  };
}
