import { oscillate, oscillatorStep, type OscillatorStep } from '../../basics/motion';
import { TICKS_PER_SECOND, type Ticks } from '../../basics/time';

/** Value of a source for a row at a time. */
type Source = (source: number, row: number, time: Ticks) => number;

/** Where a mass is that a spring pulls to a source, from a time on. */
export type Chaser = (source: number, row: number, from: Ticks, time: Ticks, pace: number, damping: number) => number;

/** Steps a second of the grid on which the way is worked out. */
const STEPS = 240;
const STEP = TICKS_PER_SECOND / STEPS;

interface Way {
  /** Place and speed at each step from the beginning. */
  readonly places: number[];
  readonly speeds: number[];
  /** What one step of the grid does. */
  readonly step: OscillatorStep;
}

/**
 * Follows sources by springs. Each way is worked out from its beginning on one grid and kept, so that jumping to a time
 * and playing backwards give the same; between two steps the goal stands where it is in the middle of them.
 */
export function createChaser(source: Source): Chaser {
  const ways = new Map<string, Way>();
  return (which, row, from, time, pace, damping) => {
    if (!(time > from)) return source(which, row, time);
    const name = `${which} ${row} ${pace} ${damping}`;
    let way = ways.get(name);
    const law = { pace, damping };
    if (!way) {
      way = { places: [source(which, row, from)], speeds: [0], step: oscillatorStep(law, 1 / STEPS) };
      ways.set(name, way);
    }
    const { xx, xv, vx, vv } = way.step;
    const steps = Math.floor((time - from) / STEP);
    for (let i = way.places.length - 1; i < steps; i++) {
      const goal = source(which, row, Math.round(from + (i + 0.5) * STEP));
      const [offset, speed] = [way.places[i] - goal, way.speeds[i]];
      way.places.push(goal + xx * offset + xv * speed);
      way.speeds.push(vx * offset + vv * speed);
    }
    const rest = time - from - steps * STEP;
    if (rest <= 0) return way.places[steps];
    const goal = source(which, row, Math.round(from + steps * STEP + rest / 2));
    return goal + oscillate(way.places[steps] - goal, way.speeds[steps], law, rest / TICKS_PER_SECOND)[0];
  };
}
