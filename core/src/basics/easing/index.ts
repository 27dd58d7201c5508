export {
  easingSchema,
  HOLD,
  LINEAR,
  easingFromStrengths,
  createProgress,
  asBezier,
  progressOf,
  springPoints,
  type Easing,
  type BezierEasing,
  type CurvedEasing,
  type PointsEasing,
  type StepsEasing,
  type SpringEasing,
  type CurveLink,
} from './easing';
export {
  handlesBetween,
  easeOfHandles,
  scaledEasing,
  HANDLE_SHARE,
  type CurvePoint,
  type SegmentHandles,
} from './handles';
export { unlinked, linkOf } from './link';
export { reverseEasing, linkedEasing } from './reverse';
export { createCubicBezier, solveBezier, unitCubic, unitCubicSlope, type BezierPoints } from './bezier';
export { createLinearFunction, type LinearPoint } from './linear';
export { createSteps, stepProgress, type Jump } from './steps';
export { createSpring, springRemainder, springSettleTime, type SpringShape } from './spring';
export { polylineOf } from './polyline';
export {
  EASING_FAMILIES,
  EASED_ENDS,
  familyProgress,
  easingOfFamily,
  type EasingFamily,
  type EasedEnd,
} from './families';
export { parseEasing, formatEasing, easingText, type EasingTextResult } from './css';
