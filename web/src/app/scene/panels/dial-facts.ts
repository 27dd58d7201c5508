import {
  figuresWords,
  rigFigures,
  type Parameter,
  type Rig,
  type RigRecipe,
  type RunRecord,
  type Scene,
  type Shelf,
  type Ticks,
} from '@wexikine/core';
import type { DialRow } from './dial-rows';

/** How many layers of a run share all of its dials, in words. */
export function sharedWords({ layers }: Pick<RunRecord, 'layers'>, { overrides = {} }: RigRecipe): string {
  if (layers.length === 1) return 'on 1 layer';
  const apart = Object.keys(overrides).filter((id) => layers.includes(id)).length;
  return apart === 0 ? `shared by all ${layers.length}` : `shared by ${layers.length - apart} of ${layers.length}`;
}

/** Dials that a layer has of its own. */
export function ownDials({ dials }: Rig, { overrides = {} }: RigRecipe, layer: string | null): Parameter[] {
  const names = Object.keys(overrides[layer ?? '']?.parameters ?? {});
  return dials.filter(({ name }) => names.includes(name));
}

/** What a dial is set to, by the name of the layer or the curve that it is. */
export function settingWords(
  { dial, text, words }: Pick<DialRow, 'dial' | 'text' | 'words'>,
  { layers }: Scene,
  { items }: Shelf,
): string {
  if (words !== text) return words;
  if (dial.kind === 'layer') return layers.find(({ id }) => id === text)?.name ?? 'the layer itself';
  const curve = /^curve (.+)$/.exec(text)?.[1];
  return dial.kind === 'curve' && curve !== undefined ? (items.get(curve)?.name ?? text) : words;
}

/** Time of the next key of a dial, or of the one before; null where there is none. */
export function keyBeside({ parameters }: RigRecipe, dial: string, time: Ticks, direction: 1 | -1): Ticks | null {
  const setting = parameters[dial];
  if (setting?.by !== 'keys') return null;
  const others = setting.keys.map(({ at }) => at).filter((at) => (at - time) * direction > 0);
  if (others.length === 0) return null;
  return direction > 0 ? Math.min(...others) : Math.max(...others);
}

/** What a rig does with its dials as they are for all, in words; nothing where it answers no motion. */
export function rigWords(rig: Rig, shelf: Shelf, rows: readonly Pick<DialRow, 'dial' | 'text'>[]): string {
  if (!/\b(arrival|chase)\b/.test(rig.formulas.map(({ text }) => text).join('\n'))) return '';
  const figures = rigFigures(rig, shelf, Object.fromEntries(rows.map(({ dial, text }) => [dial.name, text])));
  return figures ? figuresWords(figures).join(' · ') : '';
}
