import { describePresetProblem, type PresetProblem } from '../preset';
import type { Scene } from '../scene';
import { formatFrames, formatShort, type Ticks } from '../time';

/** What a check found, with the facts its sentence needs. `layers` are ids; `at` a scene time to go to. */
export type Finding =
  | { readonly code: 'nothing-picked' }
  | { readonly code: 'unknown-preset'; readonly id: string }
  | { readonly code: 'wrong-phase'; readonly preset: string; readonly phase: string; readonly operation: string }
  | { readonly code: 'draft-preset'; readonly preset: string }
  | { readonly code: 'preset-broken'; readonly preset: string; readonly problem: PresetProblem }
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
  | { readonly code: 'too-short'; readonly layers: readonly string[]; readonly at: Ticks }
  | { readonly code: 'limited'; readonly parameter: string; readonly layers: readonly string[] }
  | { readonly code: 'not-finite'; readonly slot: string; readonly layers: readonly string[] }
  | { readonly code: 'off-grid'; readonly layers: readonly string[]; readonly at: Ticks };

/** An error stops the run, a warning asks for a look, a note only says what was done. */
export type Severity = 'error' | 'warning' | 'note';

export function severityOf(finding: Finding): Severity {
  switch (finding.code) {
    case 'nothing-picked':
    case 'unknown-preset':
    case 'wrong-phase':
    case 'preset-broken':
    case 'bad-field':
    case 'unknown-parameter':
      return 'error';
    case 'locked':
    case 'hidden':
    case 'guides':
    case 'vanished':
    case 'left-alone':
    case 'off-grid':
      return 'note';
    default:
      return 'warning';
  }
}

/** Layers that a finding is about, as ids. */
export function layersOfFinding(finding: Finding): readonly string[] {
  return 'layers' in finding ? finding.layers : [];
}

const NAMES_SHOWN = 3;

function nameLayers(scene: Scene, ids: readonly string[]): string {
  const names = new Map(scene.layers.map(({ id, name }) => [id, name]));
  const shown = ids.slice(0, NAMES_SHOWN).map((id) => `“${names.get(id) ?? id}”`);
  const rest = ids.length - shown.length;
  if (rest > 0) return `${shown.join(', ')} and ${rest} more`;
  return shown.length > 1 ? `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1]}` : shown[0];
}

function counted(count: number, singular: string, plural: string): string {
  return count === 1 ? singular : `${count} ${plural}`;
}

function aboutMany(scene: Scene, ids: readonly string[], one: string, many: string): string {
  return `${nameLayers(scene, ids)} ${ids.length === 1 ? one : many}`;
}

/** A finding as a sentence: what, where, and what to do. */
export function describeFinding(finding: Finding, scene: Scene): string {
  const { rate } = scene;
  switch (finding.code) {
    case 'nothing-picked':
      return 'No layer is picked. Choose layers by tag, name or kind, or tick them in the run sheet.';
    case 'unknown-preset':
      return `The library has no preset “${finding.id}”. Choose another one.`;
    case 'wrong-phase':
      return `“${finding.preset}” is made for another part (${finding.phase}) than “${finding.operation.replace('-', ' ')}”. Choose the verb that goes with it.`;
    case 'draft-preset':
      return `“${finding.preset}” is a draft. It can be tried here; publish it to apply it.`;
    case 'preset-broken':
      return `“${finding.preset}” cannot run. ${describePresetProblem(finding.problem)}`;
    case 'bad-field':
      return `${finding.field}: “${finding.text}” does not work. ${finding.message}`;
    case 'unknown-parameter':
      return `“${finding.preset}” has no parameter @${finding.name}. Take it out of the sentence.`;
    case 'locked':
      return aboutMany(scene, finding.layers, 'is locked and stays as it is.', 'are locked and stay as they are.');
    case 'hidden':
      return aboutMany(scene, finding.layers, 'is hidden and stays as it is.', 'are hidden and stay as they are.');
    case 'guides':
      return aboutMany(scene, finding.layers, 'is a guide and takes no part.', 'are guides and take no part.');
    case 'vanished':
      return `${counted(finding.layers.length, 'One picked layer is', 'picked layers are')} no longer in the scene.`;
    case 'left-alone':
      return aboutMany(
        scene,
        finding.layers,
        'has keys already and is left alone.',
        'have keys already and are left alone.',
      );
    case 'outside-layer':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} keys up to ${formatFrames(finding.by, rate)} outside the layer's span, first at ${formatShort(finding.at, rate)}. Make the layer longer or start earlier.`;
    case 'outside-scene':
      return `${aboutMany(scene, finding.layers, 'ends', 'end')} up to ${formatFrames(finding.by, rate)} outside the scene. Shorten the gap or lengthen the scene.`;
    case 'entrance-meets-exit':
      return `${aboutMany(scene, finding.layers, 'begins', 'begin')} to leave ${formatFrames(finding.by, rate)} before having arrived, at ${formatShort(finding.at, rate)}. Move the exit or shorten the entrance.`;
    case 'too-short':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} too few frames for every moment at ${formatShort(finding.at, rate)}; moments on one frame became one. Give it more length.`;
    case 'limited':
      return `@${finding.parameter} was brought within its limits for ${nameLayers(scene, finding.layers)}.`;
    case 'not-finite':
      return `${finding.slot} gives no finite number for ${nameLayers(scene, finding.layers)}; the rest pose stands in. Look at the formula.`;
    case 'off-grid':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} keys between frames, first at ${formatShort(finding.at, rate)}.`;
  }
}
