import type { HandPicks, Layer, RunRecord, Ticks } from '@wexikine/core';
import { createStrip } from '../sheet/strip';
import { pickedPath, STRIP_HEIGHT, stripPaths } from '../sheet/strip-paths';
import { xIn, type TimeWindow } from '../sheet/time-window';
import { onlyChannel, pickedTimes, timesOf, type KeyRow } from './key-rows';
import { BY_HAND, rowMarks } from './row-marks';

/** Colours of the page, read once for each theme. */
export interface RowColours {
  readonly pine: string;
  readonly wash: string;
  readonly ink: string;
  readonly soft: string;
  readonly saffron: string;
  readonly rose: string;
  readonly line: string;
  /** Of runs by their place, over and over. */
  readonly runs: readonly string[];
}

/** What rows are drawn from. */
export interface RowsShown {
  readonly rows: readonly KeyRow[];
  readonly window: TimeWindow;
  /** Width of the strips in px. */
  readonly width: number;
  readonly runs: readonly RunRecord[];
  readonly picks: HandPicks;
  /** What the picked keys would be moved by. */
  readonly dragged: Ticks;
  /** The run of the dry run, and the layers as they stand; null without one. */
  readonly dryRun: { readonly id: string | null; readonly layers: ReadonlyMap<string, Layer> } | null;
  readonly cues: readonly Ticks[];
  /** The stretch that is played, where not all is. */
  readonly played: { readonly from: Ticks; readonly to: Ticks } | null;
}

interface Drawn {
  readonly window: TimeWindow;
  readonly width: number;
  readonly under: Layer | undefined;
  readonly runId: string | null;
  readonly span: { readonly x: number; readonly width: number; readonly top: number; readonly height: number };
  readonly isMoving: boolean;
  readonly before: Path2D;
  readonly curve: Path2D;
  readonly gone: Path2D;
  readonly standing: Path2D;
  readonly made: Path2D;
}

const drawn = new WeakMap<Layer, Drawn>();

/** The strip of a layer or of one of its channels, as paths; worked out anew only where something of it changed. */
function strip(layer: Layer, { window, width, dryRun }: RowsShown, under: Layer | undefined): Drawn {
  const runId = dryRun?.id ?? null;
  const known = drawn.get(layer);
  if (known?.window === window && known.width === width && known.under === under && known.runId === runId) return known;
  const made = createStrip({ layer, standing: under, under }, runId, { width, height: STRIP_HEIGHT, window });
  const paths = stripPaths(made);
  const { top, height, isMoving } = paths.span;
  const next: Drawn = {
    window,
    width,
    under,
    runId,
    span: { x: made.left, width: made.width, top, height },
    isMoving,
    before: new Path2D(paths.before),
    curve: new Path2D(paths.curve),
    gone: new Path2D(paths.gone),
    standing: new Path2D(paths.standing),
    made: new Path2D(paths.made),
  };
  drawn.set(layer, next);
  return next;
}

const MARK_TOP = 25.5;
const MARK_HEIGHT = 3;
const MARK_WIDTH = 4;
/** Marks nearer than this are one. */
const TOUCHING = 2;

/** Whose keys they are: a bar in the run's colour at the foot, a ring for a key by hand. */
function paintOwners(context: CanvasRenderingContext2D, row: KeyRow, shown: RowsShown, colours: RowColours): void {
  const { times, owners } = rowMarks(row, shown.runs);
  let last = -Infinity;
  for (let i = 0; i < times.length; i++) {
    const x = xIn(shown.window, times[i], shown.width);
    if (x < -MARK_WIDTH || x > shown.width + MARK_WIDTH || x - last < TOUCHING) continue;
    last = x;
    if (owners[i] === BY_HAND) {
      context.strokeStyle = colours.ink;
      context.lineWidth = 1;
      context.beginPath();
      context.arc(x, MARK_TOP + MARK_HEIGHT / 2, 1.7, 0, 2 * Math.PI);
      context.stroke();
    } else {
      context.fillStyle = colours.runs[owners[i] % colours.runs.length];
      context.fillRect(x - MARK_WIDTH / 2, MARK_TOP, MARK_WIDTH, MARK_HEIGHT);
    }
  }
}

/** How many keys stand at each time over all layers or dials: posts as high as their share of the most. */
function paintAll(context: CanvasRenderingContext2D, row: KeyRow, shown: RowsShown, colours: RowColours): void {
  const { times, counts } = rowMarks(row, shown.runs);
  const most = counts.reduce((greatest, count) => Math.max(greatest, count), 1);
  context.fillStyle = colours.ink;
  for (let i = 0; i < times.length; i++) {
    const x = xIn(shown.window, times[i], shown.width);
    if (x < -1 || x > shown.width + 1) continue;
    const height = 3 + (STRIP_HEIGHT - 12) * (counts[i] / most);
    context.fillRect(x - 0.7, STRIP_HEIGHT - 6 - height, 1.4, height);
  }
}

function paintStrip(context: CanvasRenderingContext2D, row: KeyRow, shown: RowsShown, colours: RowColours): void {
  const [whole] = row.layers;
  const under = shown.dryRun?.layers.get(whole.id);
  const { channel } = row;
  const layer = channel === null ? whole : onlyChannel(whole, channel);
  paintPaths(context, strip(layer, shown, under && channel !== null ? onlyChannel(under, channel) : under), colours);
}

function paintPaths(context: CanvasRenderingContext2D, paths: Drawn, colours: RowColours): void {
  const { x, width, top, height } = paths.span;
  context.fillStyle = paths.isMoving ? colours.wash : colours.line;
  context.beginPath();
  context.roundRect(x, top, width, height, 3);
  context.fill();
  const stroke = (path: Path2D, colour: string, thick: number): void => {
    context.strokeStyle = colour;
    context.lineWidth = thick;
    context.stroke(path);
  };
  context.setLineDash([2, 2]);
  stroke(paths.before, colours.soft, 1);
  context.setLineDash([]);
  stroke(paths.curve, colours.pine, 1.6);
  stroke(paths.gone, colours.rose, 1.4);
  stroke(paths.standing, colours.ink, 1.4);
  stroke(paths.made, colours.saffron, 1.6);
}

function paintPicked(context: CanvasRenderingContext2D, row: KeyRow, shown: RowsShown, colours: RowColours): void {
  const picked = pickedTimes(row, shown.picks);
  if (picked.size === 0) return;
  context.strokeStyle = colours.pine;
  context.globalAlpha = 0.75;
  context.lineWidth = 4;
  const moved = new Set([...picked].map((at) => at + shown.dragged));
  context.stroke(new Path2D(pickedPath(moved, shown.window, shown.width)));
  context.globalAlpha = 1;
}

/** Cues as dashed lines down all rows, and what is not played dimmed. */
function paintTime(context: CanvasRenderingContext2D, shown: RowsShown, height: number, colours: RowColours): void {
  const xOf = (at: Ticks): number => xIn(shown.window, at, shown.width);
  context.strokeStyle = colours.saffron;
  context.lineWidth = 1;
  context.setLineDash([1, 4]);
  context.beginPath();
  for (const at of shown.cues) {
    const x = Math.round(xOf(at)) + 0.5;
    context.moveTo(x, 0);
    context.lineTo(x, height);
  }
  context.stroke();
  context.setLineDash([]);
  if (!shown.played) return;
  context.fillStyle = colours.soft;
  context.globalAlpha = 0.16;
  const [from, to] = [xOf(shown.played.from), xOf(shown.played.to)];
  context.fillRect(0, 0, Math.max(0, from), height);
  context.fillRect(to, 0, Math.max(0, shown.width - to), height);
  context.globalAlpha = 1;
}

/** Draws the rows that are seen. The context is in CSS pixels, its left edge where the strips begin. */
export function paintRows(
  context: CanvasRenderingContext2D,
  shown: RowsShown,
  scrolled: number,
  height: number,
  colours: RowColours,
): void {
  const first = Math.max(0, Math.floor(scrolled / STRIP_HEIGHT));
  const last = Math.min(shown.rows.length, Math.ceil((scrolled + height) / STRIP_HEIGHT));
  context.lineCap = 'round';
  context.save();
  context.beginPath();
  context.rect(-2, 0, shown.width + 4, height);
  context.clip();
  for (let i = first; i < last; i++) {
    const row = shown.rows[i];
    context.save();
    context.translate(0, i * STRIP_HEIGHT - scrolled);
    if (row.kind === 'all' || row.kind === 'rig') paintAll(context, row, shown, colours);
    else paintStrip(context, row, shown, colours);
    paintOwners(context, row, shown, colours);
    paintPicked(context, row, shown, colours);
    context.restore();
  }
  paintTime(context, shown, Math.min(height, shown.rows.length * STRIP_HEIGHT - scrolled), colours);
  context.restore();
}

/** Times of keys that are not picked, for a drag to take: a channel's row gives its own. */
export function otherTimes(rows: readonly KeyRow[], picks: HandPicks): Ticks[] {
  return rows.flatMap((row) => {
    if (row.kind !== 'layer' && row.kind !== 'rig') return [];
    const picked = pickedTimes(row, picks);
    return timesOf(row).filter((at) => !picked.has(at));
  });
}
