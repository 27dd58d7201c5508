import type { Easing } from '../../basics/easing';
import type { ChannelId } from '../../basics/channel';
import type { PresetProblem } from '../../formulas/preset';
import type { Ticks } from '../../basics/time';

/** What a check found, with the facts its sentence needs. `layers` are ids; `at` a scene time to go to. */
export type Finding =
  | { readonly code: 'nothing-picked' }
  | { readonly code: 'unknown-preset'; readonly id: string }
  | { readonly code: 'unknown-rig'; readonly id: string }
  | { readonly code: 'wrong-phase'; readonly preset: string; readonly phase: string; readonly operation: string }
  | { readonly code: 'draft-preset'; readonly preset: string }
  | { readonly code: 'preset-broken'; readonly preset: string; readonly problem: PresetProblem }
  | {
      readonly code: 'movement-trouble';
      readonly movement: string;
      readonly why: 'no-gravity' | 'never-rests' | 'never-settles' | 'no-pace';
      readonly layers: readonly string[];
    }
  | { readonly code: 'rig-broken'; readonly rig: string; readonly message: string }
  | { readonly code: 'look-broken'; readonly look: string; readonly message: string }
  | { readonly code: 'rig-circle'; readonly layers: readonly string[]; readonly channels: readonly string[] }
  | {
      readonly code: 'rig-not-finite';
      readonly layers: readonly string[];
      readonly channel: string;
      readonly at: Ticks;
    }
  | {
      readonly code: 'rig-idle';
      readonly layers: readonly string[];
      readonly why: 'no-keys' | 'no-speed';
      /** The channels that the rig reads the arrival of. */
      readonly channels: readonly ChannelId[];
    }
  | { readonly code: 'no-path'; readonly layers: readonly string[] }
  | { readonly code: 'no-words'; readonly layers: readonly string[] }
  | { readonly code: 'no-number-shown'; readonly layers: readonly string[] }
  | { readonly code: 'nothing-to-turn'; readonly what: 'turn-into-keys' | 'thin-out' }
  | {
      readonly code: 'turned-into-keys';
      readonly layers: readonly string[];
      readonly keys: number;
      readonly channel: ChannelId;
      /** In the channel's unit. */
      readonly error: number;
      readonly at: Ticks;
    }
  | { readonly code: 'bad-field'; readonly field: string; readonly text: string; readonly message: string }
  | { readonly code: 'unknown-parameter'; readonly preset: string; readonly name: string }
  | { readonly code: 'locked'; readonly layers: readonly string[] }
  | { readonly code: 'hidden'; readonly layers: readonly string[] }
  | { readonly code: 'guides'; readonly layers: readonly string[] }
  | { readonly code: 'vanished'; readonly layers: readonly string[] }
  | { readonly code: 'left-alone'; readonly layers: readonly string[] }
  | {
      readonly code: 'outside-layer';
      readonly layers: readonly string[];
      readonly at: Ticks;
      readonly by: Ticks;
    }
  | { readonly code: 'outside-scene'; readonly layers: readonly string[]; readonly at: Ticks; readonly by: Ticks }
  | { readonly code: 'entrance-meets-exit'; readonly layers: readonly string[]; readonly at: Ticks; readonly by: Ticks }
  | {
      readonly code: 'twice';
      readonly layers: readonly string[];
      readonly at: Ticks;
      readonly operation: 'bring-in' | 'send-out';
    }
  | { readonly code: 'cannot-hold'; readonly layers: readonly string[]; readonly what: 'time' | 'value' | 'keys' }
  | { readonly code: 'too-short'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'limited'; readonly parameter: string; readonly layers: readonly string[] }
  | { readonly code: 'not-finite'; readonly slot: string; readonly layers: readonly string[] }
  | { readonly code: 'off-grid'; readonly layers: readonly string[]; readonly at: Ticks }
  | {
      readonly code: 'cannot-meet';
      readonly field: 'Finish' | 'Window';
      readonly wanted: Ticks;
      /** The nearest that can be met. */
      readonly nearest: Ticks;
      readonly why: 'frames' | 'before-scene' | 'longer';
    }
  | { readonly code: 'no-cues'; readonly at: Ticks }
  | { readonly code: 'cues-run-out'; readonly cues: number; readonly places: number }
  | { readonly code: 'no-data'; readonly column: string; readonly layers: readonly string[] }
  | { readonly code: 'no-distance'; readonly layers: readonly string[] }
  | { readonly code: 'one-place'; readonly layers: readonly string[]; readonly of: 'starts' | 'looks' }
  | { readonly code: 'unknown-pick' }
  | { readonly code: 'unknown-run'; readonly run: string }
  | { readonly code: 'revision-missing'; readonly preset: string; readonly revision: number }
  | { readonly code: 'short-for-both'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'no-room'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'nothing-to-clear' }
  | {
      readonly code: 'nothing-to-pass';
      readonly layer: string;
      readonly what: 'motion' | 'data';
      readonly stops: boolean;
    }
  | { readonly code: 'nothing-to-adjust' }
  | {
      readonly code: 'adjusted';
      readonly on: number;
      readonly keys: number;
      readonly changed: number;
      /** Keys that are no more, as others stand at their times or say the same without them. */
      readonly gone: number;
    }
  | { readonly code: 'rounded'; readonly layers: readonly string[]; readonly keys: number; readonly most: Ticks }
  | { readonly code: 'source-gone' }
  | { readonly code: 'item-gone'; readonly kind: 'look' | 'palette' }
  | { readonly code: 'too-many-copies'; readonly count: number; readonly most: number }
  | { readonly code: 'no-number'; readonly column: string; readonly layers: readonly string[] }
  | { readonly code: 'no-colour'; readonly column: string; readonly layers: readonly string[] }
  | { readonly code: 'no-part'; readonly part: string; readonly layers: readonly string[] }
  | { readonly code: 'file-gone'; readonly layers: readonly string[] }
  | { readonly code: 'matte-gone'; readonly layers: readonly string[] }
  | { readonly code: 'with-group'; readonly layers: readonly string[] }
  | { readonly code: 'kept-by-hand'; readonly layers: readonly string[]; readonly keys: number }
  | { readonly code: 'collide'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'ends-off-frame'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'uncovered'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'flashes'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'big-steps'; readonly layers: readonly string[]; readonly at: Ticks; readonly step: number }
  | {
      readonly code: 'curve-waiting';
      readonly curve: string;
      readonly name: string;
      /** The newest revision. */
      readonly to: number;
      readonly easing: Easing;
      readonly keys: number;
      readonly layers: readonly string[];
      readonly at: Ticks;
    }
  | {
      readonly code: 'update-waiting';
      readonly run: string;
      readonly preset: string;
      /** The same as `to` where it is what the preset takes from the library that is newer. */
      readonly from: number;
      readonly to: number;
      readonly layers: readonly string[];
    };

/** An error stops the run, a warning asks for a look, a note only says what was done. */
export type Severity = 'error' | 'warning' | 'note';

/** How grave a finding is: an error keeps a run from being applied. */
export function severityOf(finding: Finding): Severity {
  switch (finding.code) {
    case 'nothing-to-pass':
      return finding.stops ? 'error' : 'warning';
    case 'nothing-picked':
    case 'unknown-preset':
    case 'unknown-rig':
    case 'wrong-phase':
    case 'preset-broken':
    case 'movement-trouble':
    case 'rig-broken':
    case 'look-broken':
    case 'bad-field':
    case 'unknown-parameter':
    case 'cannot-meet':
    case 'no-cues':
    case 'unknown-pick':
    case 'unknown-run':
    case 'revision-missing':
    case 'nothing-to-clear':
    case 'nothing-to-adjust':
    case 'nothing-to-turn':
    case 'source-gone':
    case 'item-gone':
    case 'too-many-copies':
    case 'no-room':
    case 'cannot-hold':
      return 'error';
    case 'locked':
    case 'hidden':
    case 'guides':
    case 'vanished':
    case 'left-alone':
    case 'off-grid':
    case 'kept-by-hand':
    case 'update-waiting':
    case 'curve-waiting':
    case 'with-group':
    case 'turned-into-keys':
    case 'adjusted':
    case 'rounded':
      return 'note';
    case 'draft-preset':
    case 'outside-layer':
    case 'outside-scene':
    case 'entrance-meets-exit':
    case 'twice':
    case 'too-short':
    case 'limited':
    case 'not-finite':
    case 'cues-run-out':
    case 'no-data':
    case 'no-distance':
    case 'one-place':
    case 'short-for-both':
    case 'collide':
    case 'ends-off-frame':
    case 'uncovered':
    case 'flashes':
    case 'big-steps':
    case 'rig-circle':
    case 'rig-not-finite':
    case 'rig-idle':
    case 'no-path':
    case 'no-words':
    case 'no-number-shown':
    case 'file-gone':
    case 'matte-gone':
    case 'no-number':
    case 'no-colour':
    case 'no-part':
      return 'warning';
  }
}

/** Layers that a finding is about, as ids. */
export function layersOfFinding(finding: Finding): readonly string[] {
  return 'layers' in finding ? finding.layers : [];
}
