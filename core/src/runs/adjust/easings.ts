import { asBezier, HOLD, type BezierEasing, type Easing } from '../../basics/easing';
import type { AdjustStep } from '../../scene/recipe';
import { mapPicked, type Entries, type Entry } from './picked';
import type { StepLayer } from './times';

/** Every picked key leaves by an easing. */
export function setEase(entries: Entries, ease: Easing): Entries {
  return mapPicked(entries, (key) => ({ ...key, ease }));
}

/** Every picked key holds. */
export function freeze(entries: Entries): Entries {
  return setEase(entries, HOLD);
}

/** An even easing, as a Bézier that strengths can be read from. */
const EVEN: BezierEasing = { type: 'bezier', x1: 1 / 3, y1: 1 / 3, x2: 2 / 3, y2: 2 / 3 };

function within(share: number): number {
  return Math.min(1, Math.max(0, share));
}

type Strengths = Extract<AdjustStep, { type: 'strengths' }>;

function changed(before: number, by: number, way: Strengths['way']): number {
  return within(way === 'set' ? by : way === 'add' ? before + by : before * by);
}

/**
 * Departure of picked keys and arrival at picked keys, written as (departure, 0, 1 − arrival, 1): set, added to, or
 * scaled. A key before a picked one that is not picked itself keeps how it is left.
 */
export function setStrengths(entries: Entries, { way, parts }: Strengths, layer: StepLayer): Entries {
  const [leave, reach] = [layer.number('leave'), layer.number('reach')];
  return new Map(
    [...entries].map(([channel, list]) => {
      const eased = list.map((entry, i): Entry => {
        const next = list[i + 1];
        if (!next) return entry;
        const leaves = entry.isPicked && parts !== 'arrival';
        const reaches = next.isPicked && parts !== 'departure';
        if (!leaves && !reaches) return entry;
        const { key } = entry;
        const own = asBezier(key.ease, key.value, next.key.value) ?? EVEN;
        const from = leaves ? { x1: changed(own.x1, leave, way), y1: 0 } : { x1: own.x1, y1: own.y1 };
        const to = reaches ? { x2: 1 - changed(1 - own.x2, reach, way), y2: 1 } : { x2: own.x2, y2: own.y2 };
        return { ...entry, key: { ...key, ease: { type: 'bezier', ...from, ...to } } };
      });
      return [channel, eased];
    }),
  );
}
