import { beforeAll, describe, expect, test } from '@jest/globals';
import { frameTicks, programmeBoard, type Key, type Layer, type RunRecord, type Scene } from '@wexikine/core';
import { STRIP_HEIGHT } from '../sheet/strip-paths';
import { keyRows } from './key-rows';
import { otherTimes, paintRows, type RowColours, type RowsShown } from './paint-rows';

const board = programmeBoard();
const FRAME = frameTicks(board.rate);
const key = (frame: number, run?: string): Key => ({
  at: frame * FRAME,
  value: frame,
  ease: { type: 'linear' },
  ...(run === undefined ? {} : { by: { run, slot: `s${frame}` } }),
});
const layer = (id: string, keys: Key[]): Layer => ({
  ...board.layers[0],
  id,
  name: id,
  tracks: { opacity: keys },
});
const run = (id: string): RunRecord => ({ id, recipe: { operation: 'bring-in' } }) as RunRecord;
const scene: Scene = {
  ...board,
  runs: [run('r1'), run('r2')],
  length: 100 * FRAME,
  layers: [layer('a', [key(10, 'r1'), key(50, 'r2'), key(90)]), layer('b', [key(10), key(60)])],
};
const COLOURS: RowColours = {
  pine: 'pine',
  wash: 'wash',
  ink: 'ink',
  soft: 'soft',
  saffron: 'saffron',
  rose: 'rose',
  line: 'line',
  runs: ['first', 'second'],
};

/** What was drawn: a name, where on the canvas, in which colour, and the numbers it was called with. */
interface Drawn {
  readonly what: string;
  readonly top: number;
  readonly colour: string;
  readonly numbers: readonly number[];
  readonly path: string;
}

/** A context that notes what is filled and stroked, as far as rows use it. */
function notebook() {
  const drawn: Drawn[] = [];
  const saved: number[] = [];
  let top = 0;
  let path: number[] = [];
  const note = (what: string, colour: string, numbers: readonly number[] = path, d = ''): void =>
    void drawn.push({ what, top, colour, numbers, path: d });
  const context = {
    fillStyle: '',
    strokeStyle: '',
    lineWidth: 1,
    globalAlpha: 1,
    lineCap: 'butt',
    save: () => void saved.push(top),
    restore: () => void (top = saved.pop() ?? 0),
    translate: (_x: number, y: number) => void (top += y),
    beginPath: () => void (path = []),
    rect: () => undefined,
    clip: () => undefined,
    setLineDash: () => undefined,
    roundRect: (...numbers: number[]) => void path.push(...numbers),
    arc: (...numbers: number[]) => void path.push(...numbers),
    moveTo: (...numbers: number[]) => void path.push(...numbers),
    lineTo: (...numbers: number[]) => void path.push(...numbers),
    fill: () => note('fill', context.fillStyle),
    fillRect: (...numbers: number[]) => note('rect', context.fillStyle, numbers),
    stroke: (d?: { readonly text: string }) => note('stroke', context.strokeStyle, path, d?.text ?? ''),
  };
  return { context: context as unknown as CanvasRenderingContext2D, drawn };
}

const shown = (more: Partial<RowsShown> = {}): RowsShown => ({
  rows: keyRows(scene, null, new Set(['a', 'b'])),
  window: { from: 0, span: 100 * FRAME },
  width: 200,
  runs: scene.runs,
  picks: new Map(),
  dragged: 0,
  dryRun: null,
  cues: [],
  played: null,
  ...more,
});

function paint(more: Partial<RowsShown> = {}, scrolled = 0, height = 300): Drawn[] {
  const { context, drawn } = notebook();
  paintRows(context, shown(more), scrolled, height, COLOURS);
  return drawn;
}

/** What was drawn in the row of the first layer. */
const ofA = (drawn: readonly Drawn[]): Drawn[] => drawn.filter(({ top }) => top === STRIP_HEIGHT);

beforeAll(() => {
  Object.assign(globalThis, {
    Path2D: class {
      constructor(readonly text: string) {}
    },
  });
});

describe('painting rows of keys', () => {
  test('tells whose each key is: a bar in the colour of its run, a ring for one by hand', () => {
    const row = ofA(paint());
    const bars = row.filter(({ what }) => what === 'rect');
    expect(bars.map(({ colour, numbers: [x, , width] }) => [colour, x + width / 2])).toEqual([
      ['first', 20],
      ['second', 100],
    ]);
    const rings = row.filter(({ colour, numbers, path }) => colour === 'ink' && path === '' && numbers.length === 5);
    expect(rings.map(({ numbers: [x] }) => x)).toEqual([180]);
  });

  test('marks of keys nearer than two pixels are one', () => {
    const crowded = {
      ...scene,
      layers: [layer('a', [key(10, 'r1'), key(10.5, 'r1'), key(12, 'r1')]), scene.layers[1]],
    };
    const bars = paint({ rows: keyRows(crowded, null, new Set(['a', 'b'])) }).filter(
      ({ what, top, colour }) => what === 'rect' && top === STRIP_HEIGHT && colour === 'first',
    );
    expect(bars.map(({ numbers: [x] }) => x + 2)).toEqual([20, 24]);
  });

  test('of all layers, a post at each time is as high as its share of the most', () => {
    const posts = paint().filter(({ what, top, colour }) => what === 'rect' && top === 0 && colour === 'ink');
    const heights = posts.map(({ numbers: [x, , , height] }) => [Math.round(x + 0.7), height]);
    const [first, ...others] = heights;
    expect(first[0]).toBe(20);
    expect(others.map(([x]) => x)).toEqual([100, 120, 180]);
    // Two keys stand at the first time and one at each other: the posts begin at 3 px.
    for (const [, height] of others) expect(height - 3).toBeCloseTo((first[1] - 3) / 2, 9);
  });

  test('picked keys are drawn where they would be while they are dragged', () => {
    const picks = new Map([['a', new Map([['opacity' as const, new Set([10 * FRAME])]])]]);
    // What is drawn in this row with picked keys and not without.
    const bare = new Set(ofA(paint()).map(({ path }) => path));
    const picked = (frames: number): string[] =>
      ofA(paint({ picks, dragged: frames * FRAME })).flatMap(({ path }) => (bare.has(path) ? [] : [path]));
    expect(picked(0)).toEqual([expect.stringMatching(/^M20(\.0)? /)]);
    expect(picked(20)).toEqual([expect.stringMatching(/^M60(\.0)? /)]);
  });

  test('only rows that are seen are painted', () => {
    const tops = (scrolled: number, height: number): number[] => [
      ...new Set(paint({}, scrolled, height).map(({ top }) => top)),
    ];
    expect(tops(0, STRIP_HEIGHT)).toEqual([0]);
    expect(tops(2 * STRIP_HEIGHT, STRIP_HEIGHT).filter((top) => top === 0)).toEqual([0]);
    const last = paint({}, 2 * STRIP_HEIGHT, STRIP_HEIGHT).filter(({ what }) => what === 'fill');
    expect(last).toHaveLength(1);
  });

  test('cues run down all rows, and what is not played is dimmed on both sides', () => {
    const drawn = paint({ cues: [50 * FRAME], played: { from: 25 * FRAME, to: 75 * FRAME } }, 0, 60);
    const cue = drawn.find(({ colour, numbers }) => colour === 'saffron' && numbers[0] === 100.5);
    expect(cue?.numbers).toEqual([100.5, 0, 100.5, 60]);
    const dimmed = drawn.filter(({ what, colour }) => what === 'rect' && colour === 'soft');
    expect(dimmed.map(({ numbers }) => numbers)).toEqual([
      [0, 0, 50, 60],
      [150, 0, 50, 60],
    ]);
  });

  test('a drag snaps to keys that are not picked', () => {
    const picks = new Map([['a', new Map([['opacity' as const, new Set([10 * FRAME, 50 * FRAME])]])]]);
    expect(otherTimes(shown().rows, picks).map((at) => at / FRAME)).toEqual([90, 10, 60]);
  });
});
