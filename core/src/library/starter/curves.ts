import { easingFromStrengths, easingOfFamily, HOLD, LINEAR, type Easing } from '../../basics/easing';
import type { CurveItem } from '../library';
import type { PresetEasing } from '../../formulas/preset';
import { itemFields } from './builder';

function curve(id: string, name: string, note: string, easing: Easing): CurveItem {
  return { ...itemFields({ id: `curve-${id}`, name, note, tags: ['curve'] }), kind: 'curve', body: { easing } };
}

const arrive = curve('arrive', 'Arrive', 'Leaves at speed and comes softly to rest; for what comes in.', {
  type: 'bezier',
  x1: 0.12,
  y1: 0.78,
  x2: 0.3,
  y2: 1,
});
const depart = curve('depart', 'Depart', 'Begins softly and leaves at speed; for what goes out.', {
  type: 'bezier',
  x1: 0.7,
  y1: 0,
  x2: 0.88,
  y2: 0.22,
});
const soft = curve(
  'soft',
  'Soft',
  'Soft at both ends alike; for moves within the frame.',
  easingFromStrengths(0.45, 0.45),
);
const gentle = curve(
  'gentle',
  'Gentle',
  'Leaves readily and takes its time to arrive.',
  easingFromStrengths(0.3, 0.55),
);
const overshoot = curve(
  'overshoot',
  'Overshoot',
  'Passes its place by a tenth of the way and comes back.',
  easingOfFamily('back', 'arrival'),
);
const swing = curve('swing', 'Swing home', 'Swings about its place like a soft spring until it rests.', {
  type: 'spring',
  damping: 0.35,
  within: 0.002,
});
const drop = curve(
  'drop',
  'Drop',
  'Falls and bounces three times, each time lower.',
  easingOfFamily('bounce', 'arrival'),
);
const steps = curve('flip', 'Flip book', 'Moves in six steps, as drawings on a pad do.', {
  type: 'steps',
  count: 6,
  jump: 'end',
});

/** The named curves that a new library begins with. */
export const STARTER_CURVES: readonly CurveItem[] = [arrive, depart, soft, gentle, overshoot, swing, drop, steps];

function named({ id, revision, body }: CurveItem): PresetEasing {
  return { type: 'curve', id, revision, is: body.easing };
}

/** Easings of the starter library: its own named curves, and the two that need no name. */
export const CURVES = {
  even: LINEAR,
  hold: HOLD,
  arrive: named(arrive),
  depart: named(depart),
  soft: named(soft),
  gentle: named(gentle),
  overshoot: named(overshoot),
  swing: named(swing),
  drop: named(drop),
} as const satisfies Record<string, PresetEasing>;
