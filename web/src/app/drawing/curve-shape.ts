import { createProgress, type Easing } from '@wexikine/core';

/** A box on screen, in its pixels, with room around the curve for what overshoots. */
export interface ShapeBox {
  readonly width: number;
  readonly height: number;
  readonly padding: number;
}

const SAMPLES = 96;

/** The range of a curve's values, at least 0…1. */
export function curveRange(easing: Easing): readonly [number, number] {
  if (easing.type === 'handles') return [0, 1];
  const progress = createProgress(easing);
  const values = Array.from({ length: SAMPLES + 1 }, (_, i) => progress(i / SAMPLES));
  return [Math.min(0, ...values), Math.max(1, ...values)];
}

/** An easing as the path of an SVG: time across, value up. Free handles are drawn by their handles in shares. */
export function curvePath(easing: Easing, { width, height, padding }: ShapeBox, range = curveRange(easing)): string {
  const [low, high] = range;
  const x = (u: number): string => (padding + u * (width - 2 * padding)).toFixed(1);
  const y = (v: number): string => (height - padding - ((v - low) / (high - low)) * (height - 2 * padding)).toFixed(1);
  if (easing.type === 'handles') {
    const swing = Math.sign(easing.leave.value || easing.arrive.value || 1);
    return `M${x(0)} ${y(0)}C${x(easing.leave.time)} ${y(swing > 0 ? 1 : 0.2)} ${x(1 - easing.arrive.time)} ${y(swing > 0 ? 1 : 0.2)} ${x(1)} ${y(0)}`;
  }
  const progress = createProgress(easing);
  const points = Array.from({ length: SAMPLES + 1 }, (_, i) => {
    // Just before a jump, so that a hold and steps are drawn with their edges upright.
    const u = i / SAMPLES;
    return `${x(u)} ${y(progress(u))}`;
  });
  return `M${points.join('L')}`;
}
