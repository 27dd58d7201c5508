import { describe, expect, test } from '@jest/globals';
import { CHANNEL_COUNT, compileScene, createFrame, programmeBoard, type Frame, type Layer } from '@wexikine/core';
import fc from 'fast-check';
import type { Brush } from './brush';
import { createGrounds } from './grounds';
import { planOf } from './plan';
import type { Context, Surfaces } from './surfaces';

/** What was drawn on a surface, in order: the place of each layer, and all that it was drawn from. */
type Drawn = (readonly [index: number, ...from: unknown[]])[];
interface Recorded {
  readonly drawn: Drawn;
  isGone: boolean;
}

const COUNT = 40;
const base = programmeBoard().layers.find(({ kind }) => kind === 'card') as Layer;
const layers = Array.from({ length: COUNT }, (_, i): Layer => ({ ...base, id: `l${i}`, parent: null, tracks: {} }));

function contextOf(recorded: Recorded): Context {
  const canvas = { width: 64, height: 64, recorded };
  const draw = ({ recorded: from }: { recorded: Recorded }): void => {
    if (from.isGone) throw new Error('A surface was drawn from that was given back.');
    recorded.drawn.push(...from.drawn);
  };
  return { canvas, recorded, setTransform: () => undefined, drawImage: draw } as never;
}

function recordedOn(context: Context): Recorded {
  return (context as unknown as { recorded: Recorded }).recorded;
}

/** A canvas with its grounds; `paint` gives what is to be seen on it, and how many layers were drawn for that. */
function setUp() {
  let drawings = 0;
  let arrived = 0;
  const taken: Recorded[] = [];
  const surfaces = {
    take: () => {
      const recorded = { drawn: [], isGone: false };
      taken.push(recorded);
      return contextOf(recorded);
    },
    give: (context: Context) => (recordedOn(context).isGone = true),
    arrived: () => arrived,
    framesArrived: () => 0,
  } as unknown as Surfaces;
  const drawnFrom = ({ picture: { compiled, frame }, view }: Brush, index: number): Drawn[number] => {
    const [value, across] = [frame.values[index * CHANNEL_COUNT], frame.matrices[index * 6 + 4]];
    return [index, compiled.layers[index], value, across, frame.live[index], view.scale, arrived];
  };
  const grounds = createGrounds(surfaces, (brush, _, index) => {
    drawings++;
    recordedOn(brush.context).drawn.push(drawnFrom(brush, index));
  });
  const recorded: Recorded = { drawn: [], isGone: false };
  const context = contextOf(recorded);
  const bounds = { x: 0, y: 0, width: 64, height: 64 };
  return {
    arrive: () => arrived++,
    open: () => taken.filter(({ isGone }) => !isGone).length,
    /** Gives what is to be seen, and what is to be seen where nothing is kept. */
    paint: (list: readonly Layer[], set: (frame: Frame) => void, more: Partial<Brush> = {}) => {
      const compiled = compileScene({ layers: [...list] });
      const frame: Frame = createFrame(compiled);
      frame.live.fill(1);
      set(frame);
      recorded.drawn.length = 0;
      drawings = 0;
      const picture = { compiled, frame };
      const brush = { context, patch: bounds, bounds, picture, view: { scale: 1, x: 0, y: 0 }, ...more };
      grounds(brush, planOf(compiled));
      return { seen: [...recorded.drawn], wanted: list.map((_, index) => drawnFrom(brush, index)), drawings };
    },
  };
}

/** One value of the twenty-first layer. */
const dragged =
  (value: number) =>
  (frame: Frame): void =>
    void (frame.values[20 * CHANNEL_COUNT] = value);

describe('what stands still beside what moves', () => {
  test('is drawn once: a layer that is dragged among many is soon drawn alone', () => {
    const { paint } = setUp();
    const counts = Array.from({ length: 10 }, (_, step) => {
      const { seen, wanted, drawings } = paint(layers, dragged(step));
      expect(seen).toEqual(wanted);
      return drawings;
    });
    // The first frame has none before it. Once the same one has changed four times, what lies behind it is kept, in the next
    // frame what lies before it; a layer is drawn in each but the last frames as well, on one surface or another.
    expect(counts).toEqual([COUNT, COUNT, COUNT, COUNT, COUNT, 20, 1, 1, 1, 1]);
  });

  test('whatever changes, and however, the canvas shows what it shows without it', () => {
    const change = fc.record({
      at: fc.integer({ min: 0, max: COUNT - 1 }),
      often: fc.integer({ min: 1, max: 12 }),
      what: fc.constantFrom('value', 'matrix', 'span', 'layer', 'view', 'arrival', 'nothing', 'order'),
    });
    fc.assert(
      fc.property(fc.array(change, { minLength: 1, maxLength: 12 }), (changes) => {
        const { paint, arrive, open } = setUp();
        let list = [...layers];
        let zoom = 1;
        const [values, places, lives] = [layers.map(() => 0), layers.map(() => 0), layers.map(() => 1)];
        const set = (frame: Frame): void => {
          values.forEach((value, index) => (frame.values[index * CHANNEL_COUNT] = value));
          places.forEach((place, index) => (frame.matrices[index * 6 + 4] = place));
          frame.live.set(lives);
        };
        for (const { at, often, what } of changes) {
          for (let i = 0; i < often; i++) {
            if (what === 'value') values[at]++;
            if (what === 'matrix') places[at]++;
            if (what === 'span') lives[at] = 1 - lives[at];
            if (what === 'layer') list = list.map((layer, k) => (k === at ? { ...layer } : layer));
            if (what === 'view') zoom++;
            if (what === 'arrival') arrive();
            if (what === 'order') list = [...list.slice(at), ...list.slice(0, at)];
            const { seen, wanted } = paint(list, set, { view: { scale: zoom, x: 0, y: 0 } });
            expect(seen.length).toBe(wanted.length);
            expect(seen.every((one, k) => one.every((part, m) => part === wanted[k][m]))).toBe(true);
            expect(open()).toBeLessThanOrEqual(2);
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  test('hundreds are kept some at a time, and each frame shows them all', () => {
    const { paint, open } = setUp();
    const many = Array.from({ length: 300 }, (_, i): Layer => ({ ...base, id: `m${i}`, parent: null, tracks: {} }));
    const counts = Array.from({ length: 20 }, (_, step) => {
      const { seen, wanted, drawings } = paint(many, (frame) => void (frame.values[150 * CHANNEL_COUNT] = step));
      expect(seen).toEqual(wanted);
      return drawings;
    });
    expect(counts.every((count, i) => i === 0 || count <= counts[i - 1])).toBe(true);
    expect([counts[5], counts[8], counts[19], open()]).toEqual([300 - 32, 300 - 4 * 32, 1, 2]);
  });

  test('few layers, and layers that blend with what lies behind, are drawn each time', () => {
    const few = setUp();
    const blending = setUp();
    const mixed = layers.map((layer, i): Layer => (i === 3 ? { ...layer, look: { blend: 'multiply' } } : layer));
    for (let step = 0; step < 10; step++) {
      expect(few.paint(layers.slice(0, 23), dragged(step)).drawings).toBe(23);
      expect(blending.paint(mixed, dragged(step)).drawings).toBe(COUNT);
    }
    expect([few.open(), blending.open()]).toEqual([0, 0]);
  });

  test('a layer that is drawn otherwise at every moment of the shutter is never kept', () => {
    const { paint } = setUp();
    const blurred = layers.map((layer, i): Layer => {
      return i === 2 ? { ...layer, look: { motionBlur: { angle: 180, phase: -90, samples: 4 } } } : layer;
    });
    const compiled = compileScene({ layers: blurred });
    for (let step = 0; step < 10; step++) {
      const frame = createFrame(compiled);
      frame.values[20 * CHANNEL_COUNT] = step;
      const { drawings } = paint(blurred, () => undefined, {
        picture: { compiled, frame, shutter: { at: 0, step: 1 } },
      });
      // What lies behind it is too little for a picture, so all up to the one that is dragged are drawn.
      expect(drawings).toBe(step < 5 ? COUNT : 21);
    }
  });
});
