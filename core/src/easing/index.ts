export {
  easingSchema,
  HOLD,
  LINEAR,
  easingFromStrengths,
  createProgress,
  asBezier,
  type Easing,
  type BezierEasing,
  type PointsEasing,
  type StepsEasing,
} from './easing';
export { createCubicBezier, solveBezier, unitCubic, unitCubicSlope, type BezierPoints } from './bezier';
export { createLinearFunction, type LinearPoint } from './linear';
export { createSteps, type Jump } from './steps';
export { parseEasing, formatEasing, type EasingTextResult } from './css';
