import { describe, expect, test } from '@jest/globals';
import { interpolateZoom } from 'd3-interpolate';
import fc from 'fast-check';
import {
  arrivalSpeed,
  bounceFlights,
  bounceTrouble,
  coveringFraming,
  createCoveringZoom,
  createEvenPath,
  createSway,
  createZoom,
  fallTime,
  flightsEnd,
  MOST_FLIGHTS,
  oscillate,
  oscillatorSettles,
  pathPoint,
  pathProblem,
  READY_PATHS,
} from '.';

describe('a bounce', () => {
  // Common practice, with other numbers beside them: v = 2000 px/s at the first contact.
  test.each([
    [0.7, 5000, 0.56, 196],
    [0.7, 2000, 1.4, 490],
    [0.7, 7000, 0.4, 140],
    [0.5, 5000, 0.4, 100],
    [0.9, 6000, 0.6, 270],
  ])('that gives back %s under gravity %s flies %s s, %s px high', (restitution, gravity, length, height) => {
    const [first] = bounceFlights({ gravity, restitution }, 2000 * restitution);
    expect(first.length).toBeCloseTo(length, 12);
    expect(first.height).toBeCloseTo(height, 9);
  });

  test('falls by √(2h ÷ g), arrives at √(2gh), and each flight follows the last one', () => {
    expect(fallTime(490, 980)).toBeCloseTo(1, 12);
    expect(arrivalSpeed(490, 980)).toBeCloseTo(980, 9);
    const flights = bounceFlights({ gravity: 980, restitution: 0.6 }, 588);
    flights.slice(1).forEach((flight, i) => {
      expect(flight.from).toBeCloseTo(flights[i].from + flights[i].length, 12);
      expect(flight.length / flights[i].length).toBeCloseTo(0.6, 12);
      expect(flight.height / flights[i].height).toBeCloseTo(0.36, 12);
    });
    // All flights together last 2v ÷ g ÷ (1 − e), the sum of a geometric series.
    expect(flightsEnd(flights)).toBeLessThan(((2 * 588) / 980) * 2.5);
    expect(flightsEnd(flights)).toBeGreaterThan(((2 * 588) / 980) * 2.4);
  });

  test('is refused where it would never rest or never come down', () => {
    expect(bounceTrouble({ gravity: 5000, restitution: 1 })).toBe('never-rests');
    expect(bounceTrouble({ gravity: 5000, restitution: -0.1 })).toBe('never-rests');
    expect(bounceTrouble({ gravity: 0, restitution: 0.5 })).toBe('no-gravity');
    expect(bounceTrouble({ gravity: NaN, restitution: 0.5 })).toBe('no-gravity');
    expect(bounceFlights({ gravity: 5000, restitution: 1 }, 2000)).toEqual([]);
    expect(bounceFlights({ gravity: 5000, restitution: 0.99 }, 2000)).toHaveLength(MOST_FLIGHTS);
    expect(bounceFlights({ gravity: 5000, restitution: 0 }, 0)).toEqual([]);
  });
});

test('an oscillator follows its equation in all three cases of damping, from any beginning', () => {
  const number = fc.double({ min: -500, max: 500, noNaN: true });
  fc.assert(
    fc.property(number, number, fc.constantFrom(0, 0.2, 0.99, 1, 1.5, 4), (offset, speed, damping) => {
      const law = { pace: 1.5, damping };
      const omega = 2 * Math.PI * law.pace;
      expect(oscillate(offset, speed, law, 0)[0]).toBeCloseTo(offset, 9);
      const [h, t] = [1e-5, 0.23];
      const at = (time: number): readonly [number, number] => oscillate(offset, speed, law, time);
      const [x, v] = at(t);
      expect((at(t + h)[0] - at(t - h)[0]) / (2 * h)).toBeCloseTo(v, 2);
      const pull = (at(t + h)[1] - at(t - h)[1]) / (2 * h);
      expect(pull).toBeCloseTo(-omega * omega * x - 2 * damping * omega * v, 0);
    }),
  );
  const settles = oscillatorSettles({ pace: 2, damping: 0.3 }, 0.01);
  expect(Math.abs(oscillate(100, 0, { pace: 2, damping: 0.3 }, settles)[0])).toBeCloseTo(1, 6);
  expect(oscillatorSettles({ pace: 2, damping: 0 }, 0.01)).toBe(Infinity);
});

describe('a sway', () => {
  const parts = [
    { rate: 1, amount: 100, seed: 3 },
    { rate: 10, amount: 5, seed: 4 },
  ];

  test('stays within the sum of its amounts: 1 Hz × 100 px and 10 Hz × 5 px within 105 px (common practice)', () => {
    const sway = createSway(parts, { lasts: 60, isLoop: false, fade: 0 });
    const values = Array.from({ length: 6000 }, (_, i) => sway(i / 100));
    expect(Math.max(...values.map(Math.abs))).toBeLessThanOrEqual(105);
    expect(Math.max(...values)).toBeGreaterThan(75);
    const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
    expect(Math.abs(mean)).toBeLessThan(8);
  });

  test('as a loop it meets its beginning in value and slope, whatever the rate', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 9, noNaN: true }), fc.nat(999), (rate, seed) => {
        const sway = createSway([{ rate, amount: 50, seed }], { lasts: 3.7, isLoop: true, fade: 0 });
        const h = 1e-5;
        expect(sway(3.7)).toBeCloseTo(sway(0), 9);
        // The same on both sides of the seam, so that there is no kink.
        expect(sway(3.7 - h)).toBeCloseTo(sway(-h), 9);
        expect(sway(3.7 + h)).toBeCloseTo(sway(h), 9);
      }),
    );
  });

  test('grows from rest and dies away to rest', () => {
    const sway = createSway(parts, { lasts: 4, isLoop: false, fade: 0.5 });
    expect([sway(0), sway(4)]).toEqual([0, 0]);
    expect(sway(0.6)).toBe(createSway(parts, { lasts: 4, isLoop: false, fade: 0 })(0.6));
  });

  test('the slow part carries the slow motion, the fast one the fast: no octave is added', () => {
    const sway = createSway([{ rate: 1, amount: 1, seed: 9 }], { lasts: 64, isLoop: true, fade: 0 });
    const count = 4096;
    const values = Array.from({ length: count }, (_, i) => sway((i * 64) / count));
    const power = (cycles: number): number => {
      let [re, im] = [0, 0];
      values.forEach((value, i) => {
        re += value * Math.cos((2 * Math.PI * cycles * i) / count);
        im += value * Math.sin((2 * Math.PI * cycles * i) / count);
      });
      return re * re + im * im;
    };
    const band = (from: number, to: number): number => {
      let sum = 0;
      for (let cycles = from; cycles < to; cycles++) sum += power(cycles);
      return sum;
    };
    // Gradient noise has its power about half to one and a half times its rate (K. Perlin, 2002).
    expect(band(192, 512) / band(1, 192)).toBeLessThan(0.02);
  });
});

describe('a smooth zoom', () => {
  const framing = fc.record({
    x: fc.double({ min: 0, max: 1, noNaN: true }),
    y: fc.double({ min: 0, max: 1, noNaN: true }),
    zoom: fc.double({ min: 1, max: 8, noNaN: true }),
  });

  test('goes the way that d3-interpolate 3 goes (van Wijk and Nuij, 2003)', () => {
    fc.assert(
      fc.property(framing, framing, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        fc.pre(Math.hypot(a.x - b.x, a.y - b.y) > 1e-3);
        const reference = interpolateZoom([a.x, a.y, 1 / a.zoom], [b.x, b.y, 1 / b.zoom]);
        const [x, y, width] = reference(share);
        const here = createZoom(a, b).at(share);
        expect(here.x).toBeCloseTo(x, 6);
        expect(here.y).toBeCloseTo(y, 6);
        expect(1 / here.zoom).toBeCloseTo(width, 6);
      }),
    );
  });

  test('begins and ends with exactly what was asked for', () => {
    const [from, to] = [
      { x: 0.1, y: 0.7, zoom: 1.3 },
      { x: 0.83, y: 0.21, zoom: 3.7 },
    ];
    for (const end of [{ ...from, zoom: 7 }, to]) {
      const way = createZoom(from, end);
      expect([way.at(0), way.at(-1)]).toEqual([from, from]);
      expect([way.at(1), way.at(2)]).toEqual([end, end]);
    }
  });

  test('begins with exactly what was asked for, wherever it is', () => {
    fc.assert(fc.property(framing, framing, (from, to) => expect(createZoom(from, to).at(0)).toEqual(from)));
  });

  test('is no other than the smoothest way where that shows nothing beyond the picture', () => {
    const [from, to] = [
      { x: 0.4, y: 0.4, zoom: 6 },
      { x: 0.6, y: 0.55, zoom: 5 },
    ];
    const [free, covering] = [createZoom(from, to), createCoveringZoom(from, to)];
    expect(covering.length).toBe(free.length);
    for (const share of [0.2, 0.5, 0.9]) expect(covering.at(share)).toEqual(free.at(share));
  });

  test('on one spot it only zooms, evenly to the eye', () => {
    const way = createZoom({ x: 0.5, y: 0.5, zoom: 1 }, { x: 0.5, y: 0.5, zoom: 4 });
    expect(way.at(0.5)).toEqual({ x: 0.5, y: 0.5, zoom: 2 });
    expect(way.at(1).zoom).toBe(4);
  });

  test('never shows beyond the picture', () => {
    fc.assert(
      fc.property(framing, framing, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, share) => {
        const { x, y, zoom } = createCoveringZoom(a, b).at(share);
        const half = 0.5 / zoom;
        expect(zoom).toBeGreaterThanOrEqual(1 - 1e-9);
        expect(Math.abs(x - 0.5)).toBeLessThanOrEqual(0.5 - half + 1e-9);
        expect(Math.abs(y - 0.5)).toBeLessThanOrEqual(0.5 - half + 1e-9);
      }),
    );
    expect(coveringFraming({ x: 0, y: 1, zoom: 0.5 })).toEqual({ x: 0.5, y: 0.5, zoom: 1 });
  });
});

describe('a path', () => {
  test('is gone along at even speed: arcs and lines have the lengths of geometry', () => {
    const quarter = createEvenPath('M0 0 A100 100 0 0 1 100 100');
    expect(quarter?.length).toBeCloseTo(50 * Math.PI, 1);
    const triangle = createEvenPath('M0 0 H30 V40 Z');
    expect(triangle?.length).toBeCloseTo(120, 9);
    expect(triangle?.isClosed).toBe(true);
    expect(triangle?.corners.map((at) => Number(at.toFixed(9)))).toEqual([30, 70]);
    const side = triangle && pathPoint(triangle, 50);
    expect([side?.x, side?.y, side?.angle].map((value) => Number(value?.toFixed(6)))).toEqual([30, 20, 90]);
    // Round and round, and before its beginning.
    expect(triangle && pathPoint(triangle, 170).y).toBeCloseTo(20, 9);
    expect(triangle && pathPoint(triangle, -60).y).toBeCloseTo(30, 9);
  });

  test('equal steps of distance are equal steps on the line', () => {
    const path = createEvenPath('M0 0 C200 0 0 300 260 120 S 400 -80 500 40');
    if (!path) throw new Error('no path');
    const steps = Array.from({ length: 4001 }, (_, i) => pathPoint(path, (path.length * i) / 4000));
    steps.slice(1).forEach((point, i) => {
      const chord = Math.hypot(point.x - steps[i].x, point.y - steps[i].y);
      expect(chord).toBeLessThanOrEqual(path.length / 4000 + 1e-6);
      expect(chord).toBeGreaterThan((path.length / 4000) * 0.999);
    });
  });

  test('turns go on: once round is 360° more', () => {
    const circle = createEvenPath('M100 0 A100 100 0 0 1 -100 0 A100 100 0 0 1 100 0 Z');
    if (!circle) throw new Error('no path');
    const angles = Array.from({ length: 101 }, (_, i) => pathPoint(circle, (circle.length * i) / 100).angle);
    angles.slice(1).forEach((angle, i) => expect(angle - angles[i]).toBeCloseTo(3.6, 0));
    expect(pathPoint(circle, circle.length * 1.25).angle - pathPoint(circle, circle.length * 0.25).angle).toBeCloseTo(
      360,
      6,
    );
  });

  test('what is no path is told as a sentence, and every ready one is one', () => {
    expect(pathProblem('hello')).toContain('no SVG path');
    expect(pathProblem('M0 0')).toContain('no length');
    expect(pathProblem('')).not.toBeNull();
    expect(READY_PATHS.map(({ d }) => pathProblem(d)).filter((problem) => problem !== null)).toEqual([]);
    for (const { d, fit } of READY_PATHS) {
      const path = createEvenPath(d);
      if (!path) throw new Error('no path');
      const [begin, end] = [pathPoint(path, 0), pathPoint(path, path.isClosed ? 0 : path.length)];
      if (fit !== 'in') expect(Math.hypot(begin.x, begin.y) < 1e-6 || fit === 'round').toBe(true);
      if (fit !== 'out') expect(Math.hypot(end.x, end.y)).toBeLessThan(1e-6);
    }
  });
});
