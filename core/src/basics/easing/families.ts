import type { Easing } from './easing';
import { polylineOf } from './polyline';

/** The usual families of easings, by how they leave. Formulas: R. Penner's easing equations, as in common practice. */
export const EASING_FAMILIES = [
  'sine',
  'quadratic',
  'cubic',
  'quartic',
  'quintic',
  'exponential',
  'circular',
  'back',
  'elastic',
  'bounce',
] as const;
/** A named family of curves, such as quadratic or elastic. */
export type EasingFamily = (typeof EASING_FAMILIES)[number];

/** Which end is eased: the departure, the arrival or both. */
export const EASED_ENDS = ['departure', 'arrival', 'both'] as const;
/** At which end a family’s curve is eased: as it leaves, as it arrives, or both. */
export type EasedEnd = (typeof EASED_ENDS)[number];

/** How far "back" goes back: 10 % of the way. */
const BACK = 1.70158;
const ELASTIC_PERIOD = 0.3;
/** 2^-10, which the exponential leaves over and which is taken off so that it begins at 0. */
const EXPONENTIAL_REST = 2 ** -10;
/** Four parabolas that span 2.75 widths of the half first one. */
const BOUNCES = [1, 2, 2.5, 2.75] as const;
const BOUNCE_SPAN = 2.75;

function exponentialDeparture(u: number): number {
  return (2 ** (10 * (u - 1)) - EXPONENTIAL_REST) / (1 - EXPONENTIAL_REST);
}

function elasticDeparture(u: number): number {
  const fading = (2 ** (10 * (u - 1)) - EXPONENTIAL_REST) / (1 - EXPONENTIAL_REST);
  return -fading * Math.sin(((u - 1 - ELASTIC_PERIOD / 4) * 2 * Math.PI) / ELASTIC_PERIOD);
}

/** A ball that falls onto 1 and bounces three times, each flight a parabola. */
function bounceArrival(u: number): number {
  const x = u * BOUNCE_SPAN;
  if (x < BOUNCES[0]) return x * x;
  const flight = BOUNCES.findIndex((end) => x < end);
  const i = flight < 0 ? BOUNCES.length - 1 : flight;
  const [from, to] = [BOUNCES[i - 1], BOUNCES[i]];
  const [middle, half] = [(from + to) / 2, (to - from) / 2];
  return 1 - half * half + (x - middle) ** 2;
}

function departureOf(family: EasingFamily): (u: number) => number {
  switch (family) {
    case 'sine':
      return (u) => 1 - Math.cos((u * Math.PI) / 2);
    case 'quadratic':
      return (u) => u * u;
    case 'cubic':
      return (u) => u ** 3;
    case 'quartic':
      return (u) => u ** 4;
    case 'quintic':
      return (u) => u ** 5;
    case 'exponential':
      return exponentialDeparture;
    case 'circular':
      return (u) => 1 - Math.sqrt(1 - u * u);
    case 'back':
      return (u) => u * u * ((BACK + 1) * u - BACK);
    case 'elastic':
      return elasticDeparture;
    case 'bounce':
      return (u) => 1 - bounceArrival(1 - u);
  }
}

/** The exact progress of a family; [0, 1] → share of the way. Ends are exact. */
export function familyProgress(family: EasingFamily, end: EasedEnd): (u: number) => number {
  const departure = departureOf(family);
  const inner = (u: number): number => {
    if (end === 'departure') return departure(u);
    if (end === 'arrival') return 1 - departure(1 - u);
    return u < 0.5 ? departure(2 * u) / 2 : 1 - departure(2 - 2 * u) / 2;
  };
  return (u) => (u <= 0 ? 0 : u >= 1 ? 1 : inner(u));
}

/** Cubic polynomials are one Bézier exactly: evenly spaced control times, and these control values. */
function exactValues(family: EasingFamily): readonly [number, number] | null {
  switch (family) {
    case 'quadratic':
      return [0, 1 / 3];
    case 'cubic':
      return [0, 0];
    case 'back':
      return [0, -BACK / 3];
    default:
      return null;
  }
}

/**
 * An easing of a family: a Bézier where the family is exactly one, else a `linear()` within 0.1 % of the way.
 */
export function easingOfFamily(family: EasingFamily, end: EasedEnd): Easing {
  const values = end === 'both' ? null : exactValues(family);
  if (!values) return { type: 'points', points: polylineOf(familyProgress(family, end)) };
  const [y1, y2] = end === 'departure' ? values : [1 - values[1], 1 - values[0]];
  return { type: 'bezier', x1: 1 / 3, y1, x2: 2 / 3, y2 };
}
