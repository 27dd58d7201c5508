import type { AdjustStep } from '../../scene/recipe';
import { freeze, setEase, setStrengths } from './easings';
import { settled, type Entries } from './picked';
import {
  conform,
  fillWindow,
  fit,
  jitterTimes,
  moveLater,
  retime,
  reverse,
  shift,
  spreadTimes,
  startAt,
  stretch,
  toCues,
  wholeFrames,
  type StepLayer,
} from './times';
import {
  jitterValues,
  limitAcceleration,
  limitSpeed,
  limitValues,
  mirrorValues,
  offsetValues,
  scaleValues,
  smoothValues,
  spreadValues,
  type RestOf,
} from './values';
import { hold, thinOut, type MarkNew } from './written';

/** What steps need of a layer besides their numbers. */
export interface StepContext {
  readonly layer: StepLayer;
  readonly rest: RestOf;
  readonly mark: MarkNew;
  /** Where its first picked key is to stand, for steps that put the starts of all layers in order; null where it stays. */
  readonly start: number | null;
}

function done(entries: Entries, step: AdjustStep, { layer, rest, mark, start }: StepContext): Entries {
  switch (step.type) {
    case 'shift':
      return shift(entries, layer);
    case 'stretch':
      return stretch(entries, step, layer);
    case 'fit':
      return fit(entries, step, layer);
    case 'window':
      return fillWindow(entries, step, layer);
    case 'reverse':
      return reverse(entries);
    case 'restagger':
    case 'close-gaps':
      return start === null ? entries : startAt(entries, start);
    case 'spread':
      return step.of === 'time' ? spreadTimes(entries) : spreadValues(entries);
    case 'retime':
      return retime(entries, step);
    case 'jitter':
      return jitterValues(jitterTimes(entries, layer), layer);
    case 'whole-frames':
      return wholeFrames(entries, layer);
    case 'conform':
      return conform(entries, layer);
    case 'to-cues':
      return toCues(entries, layer);
    case 'hold':
      return hold(entries, layer, mark);
    case 'move-later':
      return moveLater(entries, layer);
    case 'scale':
      return scaleValues(entries, step, layer, rest);
    case 'offset':
      return offsetValues(entries, layer);
    case 'mirror':
      return mirrorValues(entries, rest);
    case 'limit':
      return limitValues(entries, layer);
    case 'limit-speed':
      return limitSpeed(entries, layer);
    case 'limit-acceleration':
      return limitAcceleration(entries, layer);
    case 'smooth':
      return smoothValues(entries, layer);
    case 'freeze':
      return freeze(entries);
    case 'ease':
      return setEase(entries, step.ease);
    case 'strengths':
      return setStrengths(entries, step, layer);
    case 'thin-out':
      return thinOut(entries, layer, mark);
  }
}

/** Does one step on a layer's keys; they come out in order of time, one at each. */
export function doStep(entries: Entries, step: AdjustStep, context: StepContext): Entries {
  return settled(done(entries, step, context));
}
