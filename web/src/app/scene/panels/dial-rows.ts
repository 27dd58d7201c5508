import {
  dialNumber,
  dialText,
  dialWords,
  frameTicks,
  isNumberKind,
  sampleTrack,
  type DialSetting,
  type Key,
  type Parameter,
  type Rate,
  type RigRecipe,
  type RunRecord,
  type Ticks,
} from '@wexikine/core';
import { valueText } from '../sheet/rows';

/** For whom a dial is turned: all layers of the run, or one that breaks away. */
export type Whom = { readonly layer: string | null };

/** A dial as the panel shows it. */
export interface DialRow {
  readonly dial: Parameter;
  /** In base units; null for what is no number, or a formula. */
  readonly value: number | null;
  readonly from: number;
  readonly to: number;
  readonly step: number | null;
  /** What it is set to, as text that can be typed. */
  readonly text: string;
  readonly words: string;
  /** How it is set, where it is not one value for all: "along the order", "keyed, 2 keys". */
  readonly how: string;
  readonly isOwn: boolean;
  readonly isKeyed: boolean;
  readonly isDefault: boolean;
}

/** Without soft limits a dial reaches so far beyond its default. */
const REACH = 2;

function limitsOf(dial: Parameter, value: number, rate: Rate): readonly [number, number] {
  const from = dialNumber(dial, dial.from ?? dial.min, rate);
  const to = dialNumber(dial, dial.to ?? dial.max, rate);
  const usual = Math.max(1e-3, Math.abs(value)) * REACH;
  const low = from ?? Math.min(0, value - usual);
  return [low, to ?? Math.max(low + usual, value + usual)];
}

/** The text of a setting where it is one value for all; of one that is keyed what it is at a time. */
function textOf(dial: Parameter, setting: DialSetting | undefined, time: Ticks, rate: Rate): string {
  if (setting === undefined) return dial.default;
  if (setting.by === 'fixed') return setting.value;
  if (setting.by === 'keys') return dialText(dial, sampleTrack(setting.keys, time), rate);
  if (setting.by === 'cycle') return setting.values[0];
  return setting.by === 'data' ? dial.default : setting.from;
}

/** A dial of a run at a time, for all of its layers or for one. */
export function dialRow(dial: Parameter, recipe: RigRecipe, { layer }: Whom, time: Ticks, rate: Rate): DialRow {
  const setting = recipe.parameters[dial.name];
  const own = layer === null ? undefined : recipe.overrides?.[layer]?.parameters?.[dial.name];
  const text = own ?? textOf(dial, setting, time, rate);
  const value = dialNumber(dial, text, rate);
  const standard = dialNumber(dial, dial.default, rate) ?? 0;
  const [from, to] = limitsOf(dial, standard, rate);
  const isVaried = own === undefined && setting !== undefined && setting.by !== 'fixed';
  return {
    dial,
    value: isNumberKind(dial.kind) && dial.kind !== 'switch' ? value : null,
    from,
    to,
    step: dialNumber(dial, dial.step, rate),
    text,
    words:
      isVaried && setting.by !== 'keys'
        ? dialWords(setting)
        : value === null
          ? text
          : valueText(dial.kind, value, rate),
    how: own !== undefined ? 'its own' : isVaried ? howWords(setting) : dial.note,
    isOwn: own !== undefined,
    isKeyed: setting?.by === 'keys',
    isDefault: own === undefined && setting === undefined,
  };
}

function howWords(setting: DialSetting): string {
  switch (setting.by) {
    case 'fixed':
      return '';
    case 'keys':
      return dialWords(setting);
    case 'cycle':
      return 'by turns';
    case 'ramp':
      return 'along the order';
    case 'random':
      return 'at random';
    case 'data':
      return `from “${setting.column}”`;
  }
}

function withOwn(recipe: RigRecipe, layer: string, dial: string, text: string | null): RigRecipe {
  const { [layer]: standing = {}, ...others } = recipe.overrides ?? {};
  const { [dial]: _before, ...parameters } = standing.parameters ?? {};
  const next = text === null ? parameters : { ...parameters, [dial]: text };
  const overrides = Object.keys(next).length === 0 ? others : { ...others, [layer]: { parameters: next } };
  const { overrides: _standing, ...rest } = recipe;
  return Object.keys(overrides).length === 0 ? rest : { ...rest, overrides };
}

/** Keys with one more, or with another value where one stands. */
export function withKey(keys: readonly Key[], at: Ticks, value: number): Key[] {
  const before = keys.filter((key) => key.at !== at);
  const ease = keys.find((key) => key.at === at)?.ease ?? ({ type: 'bezier', x1: 0.4, y1: 0, x2: 0.3, y2: 1 } as const);
  return [...before, { at, value, ease }].sort((a, b) => a.at - b.at);
}

/** The recipe with a dial turned: for one layer alone, as a key at the time where the dial is keyed, or for all. */
export function turned(
  recipe: RigRecipe,
  row: DialRow,
  { layer }: Whom,
  text: string,
  time: Ticks,
  rate: Rate,
): RigRecipe {
  const { name } = row.dial;
  if (layer !== null) return withOwn(recipe, layer, name, text);
  const setting = recipe.parameters[name];
  const number = dialNumber(row.dial, text, rate);
  const next: DialSetting =
    setting?.by === 'keys' && number !== null
      ? { by: 'keys', keys: withKey(setting.keys, onFrame(time, rate), number) }
      : { by: 'fixed', value: text };
  return { ...recipe, parameters: { ...recipe.parameters, [name]: next } };
}

/** A time on the nearest frame. */
function onFrame(time: Ticks, rate: Rate): Ticks {
  const frame = frameTicks(rate);
  return Math.max(0, Math.round(time / frame) * frame);
}

/** The recipe with a key of the dial at a time; the dial becomes keyed with it. */
export function keyed(recipe: RigRecipe, row: DialRow, time: Ticks, rate: Rate): RigRecipe {
  const setting = recipe.parameters[row.dial.name];
  const keys = withKey(setting?.by === 'keys' ? setting.keys : [], onFrame(time, rate), row.value ?? 0);
  return { ...recipe, parameters: { ...recipe.parameters, [row.dial.name]: { by: 'keys', keys } } };
}

/** The recipe without the key of a dial that stands at a time; without any left the dial has one value again. */
export function unkeyed(recipe: RigRecipe, row: DialRow, time: Ticks, rate: Rate): RigRecipe {
  const setting = recipe.parameters[row.dial.name];
  if (setting?.by !== 'keys') return recipe;
  const keys = setting.keys.filter(({ at }) => at !== onFrame(time, rate));
  const next: DialSetting = keys.length === 0 ? { by: 'fixed', value: row.text } : { by: 'keys', keys };
  return { ...recipe, parameters: { ...recipe.parameters, [row.dial.name]: next } };
}

/** Whether a key of the dial stands at a time. */
export function hasKeyAt(recipe: RigRecipe, dial: string, time: Ticks, rate: Rate): boolean {
  const setting = recipe.parameters[dial];
  return setting?.by === 'keys' && setting.keys.some(({ at }) => at === onFrame(time, rate));
}

/** The recipe with a dial as the rig has it: for one layer as the others have it. */
export function reset(recipe: RigRecipe, dial: string, { layer }: Whom): RigRecipe {
  if (layer !== null) return withOwn(recipe, layer, dial, null);
  const { [dial]: _standing, ...parameters } = recipe.parameters;
  return { ...recipe, parameters };
}

/** Dials of another run of the same rig, or as many of them as this rig has, in this recipe. */
export function pasted(recipe: RigRecipe, dials: readonly Parameter[], from: RigRecipe['parameters']): RigRecipe {
  const names = new Set(dials.map(({ name }) => name));
  const kept = Object.entries(from).filter(([name]) => names.has(name));
  return { ...recipe, parameters: { ...recipe.parameters, ...Object.fromEntries(kept) } };
}

/** Runs of rigs, those on a layer first. */
export function rigRuns(runs: readonly RunRecord[], layer: string | null): RunRecord[] {
  const rigs = runs.filter(({ rig, recipe }) => rig !== undefined && recipe.operation === 'rig');
  const isOn = (run: RunRecord): number => (layer !== null && run.layers.includes(layer) ? 0 : 1);
  return [...rigs].sort((a, b) => isOn(a) - isOn(b));
}
