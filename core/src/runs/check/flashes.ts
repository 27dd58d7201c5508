import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { chromaticity, oklabFromCss, relativeLuminance, rgbFromOklab, type Rgb } from '../../basics/colour';
import { ticksFromSeconds, type Ticks } from '../../basics/time';
import type { Layer } from '../../scene/layer';
import { matrixAt, type CompiledScene, type Frame } from '../../scene/sample';
import type { Scene } from '../../scene/scene';

/*
 * Thresholds of WCAG 2.2, success criterion 2.3.1, "general flash and red flash thresholds": a flash is a pair of
 * opposing changes of relative luminance by 0.1 or more where the darker state is below 0.8, or a pair of changes to or
 * from a saturated red; no more than three within any second, unless they take up less than a quarter of any rectangle
 * of a third of the frame's width and height (341 × 256 of 1024 × 768 pixels).
 */
const CHANGE = 0.1;
const BRIGHT = 0.8;
const RED_SHARE = 0.8;
const RED_CHANGE = 0.2;
const FLASHES = 3;
const SECOND = ticksFromSeconds(1);
const WINDOW = 1 / 3;
const AREA = 1 / 4;

/** Cells along the longer side of the frame. */
const CELLS = 48;
/** Changes that make one flash more than are allowed: two each. */
const CHANGES = 2 * (FLASHES + 1);
/** How much of their box words cover, about. */
const WORDS_COVER = 0.3;
/** What pictures are taken for, of which nothing is known here: half as bright as white (sRGB). */
const PICTURE: Rgb = [0.735, 0.735, 0.735];

const SLOTS = {
  width: channelOf('size.x').slot,
  height: channelOf('size.y').slot,
  l: channelOf('fill.l').slot,
  a: channelOf('fill.a').slot,
  b: channelOf('fill.b').slot,
  brightness: channelOf('colour.brightness').slot,
  tint: channelOf('tint.amount').slot,
};

type Fill = NonNullable<Layer['look']['fill']>;

/** The times of the last changes of each cell, as many as make one flash more than are allowed. */
class Turns {
  private readonly times: Float64Array;
  private readonly counts: Int32Array;

  constructor(cells: number) {
    this.times = new Float64Array(cells * CHANGES).fill(-Infinity);
    this.counts = new Int32Array(cells);
  }

  add(cell: number, time: Ticks): void {
    this.times[cell * CHANGES + (this.counts[cell]++ % CHANGES)] = time;
  }

  /** True while more flashes than are allowed lie within the second that ends at a time. */
  isFlashing(cell: number, time: Ticks): boolean {
    const oldest = this.counts[cell] % CHANGES;
    return this.times[cell * CHANGES + oldest] > time - SECOND;
  }
}

/** Something that is drawn, in the order of depth. */
interface Drawn {
  readonly index: number;
  readonly cover: number;
  readonly isRound: boolean;
  readonly colours: Colours;
}

/** The colour that a layer shows at a time, with what its channels do to it. */
class Colours {
  private readonly last = [NaN, NaN, NaN];
  private lastRgb: Rgb = [0, 0, 0];

  /** `fixed` is its colour where no channel says it; null where the channels of the fill do. */
  constructor(
    private readonly fixed: Rgb | null,
    private readonly tint: Rgb | null,
  ) {}

  at(values: Float64Array, at: number): Rgb {
    const own = this.fixed ?? this.filled(values[at + SLOTS.l], values[at + SLOTS.a], values[at + SLOTS.b]);
    const [brightness, amount, tint] = [values[at + SLOTS.brightness], values[at + SLOTS.tint], this.tint];
    if (brightness === 1 && (tint === null || amount === 0)) return own;
    const tinted = (place: 0 | 1 | 2): number => {
      const part = Math.min(1, own[place] * brightness);
      return tint === null ? part : part + (tint[place] - part) * amount;
    };
    return [tinted(0), tinted(1), tinted(2)];
  }

  /** A fill stands still at most times, and is worked out when it does not. */
  private filled(l: number, a: number, b: number): Rgb {
    const { last } = this;
    if (l !== last[0] || a !== last[1] || b !== last[2]) {
      this.last.splice(0, 3, l, a, b);
      this.lastRgb = rgbFromOklab({ l, a, b });
    }
    return this.lastRgb;
  }
}

/**
 * Estimates whether a scene flashes beyond what WCAG 2.2 (2.3.1) allows, from the boxes and fills of its layers in a
 * coarse grid over the frame: what pictures show, what masks and mattes leave of a layer, and how layers are blended is
 * not known here. Times are given in ascending order.
 */
export class Flashes {
  private readonly columns: number;
  private readonly rows: number;
  private readonly drawn: readonly Drawn[];
  private readonly background: Rgb;
  private readonly pixels: Float64Array;
  /** The same at the frame before, since most of them stay as they were. */
  private readonly before: Float64Array;
  private readonly extremes: Float64Array;
  private readonly directions: Int8Array;
  private readonly reds: Float64Array;
  private readonly general: Turns;
  private readonly red: Turns;
  private isBegun = false;
  /** The first time at which it flashes too often over too large a part, and the layers there; null while it does not. */
  found: { readonly at: Ticks; readonly indices: readonly number[] } | null = null;

  constructor(
    private readonly scene: Scene,
    compiled: CompiledScene,
    isDrawn: (index: number) => boolean,
  ) {
    const cell = Math.max(scene.width, scene.height) / CELLS;
    this.columns = Math.max(1, Math.round(scene.width / cell));
    this.rows = Math.max(1, Math.round(scene.height / cell));
    this.drawn = inDepth(compiled).flatMap((index) => {
      const one = isDrawn(index) ? drawnAs(compiled.layers[index]) : null;
      return one ? [{ index, ...one }] : [];
    });
    this.background = (scene.background ? colourOf(scene.background) : null) ?? [0, 0, 0];
    const cells = this.columns * this.rows;
    this.pixels = new Float64Array(cells * 3);
    this.before = new Float64Array(cells * 3).fill(NaN);
    this.extremes = new Float64Array(cells);
    this.directions = new Int8Array(cells);
    this.reds = new Float64Array(cells * 3);
    this.general = new Turns(cells);
    this.red = new Turns(cells);
  }

  /** Looks at one frame. `opacityOf` gives how far a layer is seen, with its groups, 0…1. */
  look(frame: Frame, time: Ticks, opacityOf: (index: number) => number): void {
    if (this.found) return;
    this.draw(frame, opacityOf);
    const flashing: number[] = [];
    for (let cell = 0; cell < this.extremes.length; cell++) {
      if (this.hasChanged(cell)) this.follow(cell, time);
      if (this.general.isFlashing(cell, time) || this.red.isFlashing(cell, time)) flashing.push(cell);
    }
    this.isBegun = true;
    this.before.set(this.pixels);
    if (flashing.length > 0 && this.isLarge(flashing)) {
      const indices = this.drawn.map(({ index }) => index).filter((index) => this.covers(frame, index, flashing));
      this.found = { at: time, indices };
    }
  }

  private draw(frame: Frame, opacityOf: (index: number) => number): void {
    const { pixels, background } = this;
    for (let at = 0; at < pixels.length; at++) pixels[at] = background[at % 3];
    for (const one of this.drawn) {
      // Most layers of a large scene are smaller than a cell and cover none: their colours are never asked for.
      let opacity = -1;
      let [r, g, b]: Rgb = PICTURE;
      this.cellsOf(frame, one.index, one.isRound, (cell) => {
        if (opacity < 0) {
          opacity = opacityOf(one.index) * one.cover;
          if (opacity > 0) [r, g, b] = one.colours.at(frame.values, one.index * CHANNEL_COUNT);
        }
        const at = cell * 3;
        pixels[at] += (r - pixels[at]) * opacity;
        pixels[at + 1] += (g - pixels[at + 1]) * opacity;
        pixels[at + 2] += (b - pixels[at + 2]) * opacity;
      });
    }
  }

  /** Calls for every cell whose middle a layer's box, or the ellipse in it, covers. */
  private cellsOf(frame: Frame, index: number, isRound: boolean, call: (cell: number) => void): void {
    const [a, b, c, d, e, f] = matrixAt(frame, index);
    const v = index * CHANNEL_COUNT;
    const [width, height] = [frame.values[v + SLOTS.width], frame.values[v + SLOTS.height]];
    const area = a * d - b * c;
    if (!(width > 0 && height > 0) || area === 0 || !Number.isFinite(area)) return;
    const [across, down] = [this.scene.width / this.columns, this.scene.height / this.rows];
    const [w, h] = [a * width, b * width];
    const [s, t] = [c * height, d * height];
    const left = e + Math.min(0, w) + Math.min(0, s);
    const right = e + Math.max(0, w) + Math.max(0, s);
    const top = f + Math.min(0, h) + Math.min(0, t);
    const bottom = f + Math.max(0, h) + Math.max(0, t);
    const first = Math.max(0, Math.ceil(left / across - 0.5));
    const last = Math.min(this.columns - 1, Math.floor(right / across - 0.5));
    const lowest = Math.min(this.rows - 1, Math.floor(bottom / down - 0.5));
    for (let row = Math.max(0, Math.ceil(top / down - 0.5)); row <= lowest; row++) {
      for (let column = first; column <= last; column++) {
        const [x, y] = [(column + 0.5) * across - e, (row + 0.5) * down - f];
        const u = (d * x - c * y) / (area * width);
        const n = (a * y - b * x) / (area * height);
        const isIn = isRound ? Math.hypot(u - 0.5, n - 0.5) <= 0.5 : u >= 0 && u <= 1 && n >= 0 && n <= 1;
        if (isIn) call(row * this.columns + column);
      }
    }
  }

  private covers(frame: Frame, index: number, cells: readonly number[]): boolean {
    const wanted = new Set(cells);
    let isThere = false;
    this.cellsOf(frame, index, false, (cell) => (isThere ||= wanted.has(cell)));
    return isThere;
  }

  private hasChanged(cell: number): boolean {
    const { before, pixels } = this;
    const at = cell * 3;
    return pixels[at] !== before[at] || pixels[at + 1] !== before[at + 1] || pixels[at + 2] !== before[at + 2];
  }

  /** Notes whether a cell has turned from growing brighter to growing darker or back, or to or from a saturated red. */
  private follow(cell: number, time: Ticks): void {
    const at = cell * 3;
    const rgb: Rgb = [this.pixels[at], this.pixels[at + 1], this.pixels[at + 2]];
    const now = relativeLuminance(rgb);
    const { u, v, redness } = chromaticity(rgb);
    const isRed = redness >= RED_SHARE;
    if (!this.isBegun) {
      this.extremes[cell] = now;
      this.reds.set([u, v, isRed ? 1 : 0], at);
      return;
    }
    const { extremes, directions, reds } = this;
    const [before, way] = [extremes[cell], directions[cell]];
    if ((now - before) * way > 0) extremes[cell] = now;
    else if (Math.abs(now - before) >= CHANGE && Math.min(now, before) < BRIGHT) {
      directions[cell] = now > before ? 1 : -1;
      extremes[cell] = now;
      this.general.add(cell, time);
    }
    if (Math.hypot(u - reds[at], v - reds[at + 1]) > RED_CHANGE && (isRed || reds[at + 2] === 1)) {
      reds.set([u, v, isRed ? 1 : 0], at);
      this.red.add(cell, time);
    }
  }

  /** True where cells take up a quarter or more of some rectangle of a third of the frame's width and height. */
  private isLarge(cells: readonly number[]): boolean {
    const { columns, rows } = this;
    const [wide, high] = [columns, rows].map((count) => Math.max(1, Math.round(count * WINDOW)));
    // Sums from the top left corner, of which four give that of any rectangle.
    const sums = new Int32Array((columns + 1) * (rows + 1));
    const flashing = new Set(cells);
    const at = (column: number, row: number): number => row * (columns + 1) + column;
    for (let row = 1; row <= rows; row++) {
      for (let column = 1; column <= columns; column++) {
        const own = flashing.has((row - 1) * columns + column - 1) ? 1 : 0;
        sums[at(column, row)] =
          own + sums[at(column - 1, row)] + sums[at(column, row - 1)] - sums[at(column - 1, row - 1)];
      }
    }
    for (let row = high; row <= rows; row++) {
      for (let column = wide; column <= columns; column++) {
        const count =
          sums[at(column, row)] -
          sums[at(column - wide, row)] -
          sums[at(column, row - high)] +
          sums[at(column - wide, row - high)];
        if (count >= AREA * wide * high) return true;
      }
    }
    return false;
  }
}

/** Indices of the layers as they are drawn: each group's own at its place. */
function inDepth({ layers, parents }: CompiledScene): number[] {
  const children = new Map<number, number[]>();
  layers.forEach((_, index) => {
    const list = children.get(parents[index]);
    if (list) list.push(index);
    else children.set(parents[index], [index]);
  });
  const order: number[] = [];
  const waiting = [...(children.get(-1) ?? [])].reverse();
  for (let index = waiting.pop(); index !== undefined; index = waiting.pop()) {
    order.push(index);
    waiting.push(...[...(children.get(index) ?? [])].reverse());
  }
  return order;
}

/** The colour of a fill, of a gradient that of its middle; null for none that can be read. */
function colourOf(fill: Fill): Rgb | null {
  const texts =
    typeof fill === 'string' ? [fill] : 'stops' in fill ? fill.stops.map(({ colour }) => colour) : [fill.from, fill.to];
  const labs = texts.flatMap((text) => oklabFromCss(text) ?? []);
  if (labs.length === 0) return null;
  const mean = (of: 'l' | 'a' | 'b'): number => labs.reduce((sum, lab) => sum + lab[of], 0) / labs.length;
  return rgbFromOklab({ l: mean('l'), a: mean('a'), b: mean('b') });
}

/** How a layer is drawn in the grid; null where it shows nothing that covers anything. */
function drawnAs({ source, look }: Layer): Omit<Drawn, 'index'> | null {
  const tint = look.tint === undefined ? null : colourOf(look.tint);
  if (source.type === 'picture' || source.type === 'clip')
    return { cover: 1, isRound: false, colours: new Colours(PICTURE, tint) };
  const { fill } = look;
  if (source.type === 'none' || source.type === 'sound' || fill === undefined) return null;
  const alpha = typeof fill === 'string' ? (oklabFromCss(fill)?.alpha ?? 1) : 1;
  const cover = (source.type === 'text' ? WORDS_COVER : 1) * alpha;
  const fixed = typeof fill === 'string' ? null : colourOf(fill);
  return { cover, isRound: source.type === 'ellipse', colours: new Colours(fixed, tint) };
}
