import { channelOf, type ChannelId } from '../../basics/channel';
import {
  createScope,
  CURVE,
  DIMENSIONS,
  numberOf,
  RUN_NAMES,
  SWITCH,
  type CurveProgress,
  type Scope,
  type ValueType,
} from '../formula';
import type { Parameter, Preset } from './preset';

const { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME } = DIMENSIONS;

/**
 * Edges of the layer's upright box and the place of its anchor (x, y) in the rest pose, in scene pixels: for presets
 * that come from the frame's edge, or that turn about a corner.
 */
const EDGE_NAMES: Readonly<Record<string, ValueType>> = {
  'layer.left': numberOf(LENGTH),
  'layer.right': numberOf(LENGTH),
  'layer.top': numberOf(LENGTH),
  'layer.bottom': numberOf(LENGTH),
  'layer.x': numberOf(LENGTH),
  'layer.y': numberOf(LENGTH),
};

/** Every name, in the order of its place in the inputs. `rest` and `here` have the unit of the cell's channel. */
export const PRESET_NAMES = { ...RUN_NAMES, ...EDGE_NAMES };

/** The parts of a colour, each an input of its own. A cell of `fill.a` reads the part a. */
export const COLOUR_PARTS = ['l', 'a', 'b'] as const;

/** What a formula can read of a layer parameter: its upright box in the rest pose, in scene pixels. */
export const LAYER_PARTS = ['left', 'right', 'top', 'bottom', 'x', 'y', 'width', 'height'] as const;

/** Kinds whose values are formulas that give a number. */
export type NumberKind = Exclude<Parameter['kind'], 'colour' | 'choice' | 'curve' | 'layer'>;

/** True for kinds whose values are formulas that give a number. */
export function isNumberKind(kind: Parameter['kind']): kind is NumberKind {
  return kind !== 'colour' && kind !== 'choice' && kind !== 'curve' && kind !== 'layer';
}

/** What a formula of a parameter's kind must give. */
export function typeOfKind(kind: NumberKind): ValueType {
  switch (kind) {
    case 'time':
      return numberOf(TIME, true);
    case 'length':
      return numberOf(LENGTH);
    case 'angle':
      return numberOf(ANGLE);
    case 'frequency':
      return numberOf(FREQUENCY);
    case 'switch':
      return SWITCH;
    case 'percent':
    case 'number':
    case 'seed':
      return numberOf(PLAIN);
  }
}

/** What a formula for a channel must give. */
export function typeOfChannel(channel: ChannelId): ValueType {
  switch (channelOf(channel).unit) {
    case 'px':
      return numberOf(LENGTH);
    case 'deg':
      return numberOf(ANGLE);
    case 'share':
    case 'number':
      return numberOf(PLAIN);
  }
}

/** The inputs of one parameter, without the @: its own, or one for each of its parts. */
export function inputsOfParameter({ name, kind, options }: Parameter): (readonly [string, ValueType])[] {
  switch (kind) {
    case 'colour':
      return COLOUR_PARTS.map((part) => [`${name}.${part}`, numberOf(PLAIN)]);
    case 'choice':
      return (options ?? []).map((option) => [`${name}.${option.name}`, SWITCH]);
    case 'layer':
      return LAYER_PARTS.map((part) => [`${name}.${part}`, numberOf(LENGTH)]);
    case 'curve':
      return [[name, CURVE]];
    default:
      return [[name, typeOfKind(kind)]];
  }
}

/** Why the bare name of a parameter does not fit in a formula; null where it does. */
export function whyUnfit({ name, kind, options }: Parameter): string | null {
  switch (kind) {
    case 'colour':
      return 'is a colour, and fits the channels of fill and stroke colours';
    case 'choice': {
      const all = (options ?? []).map((option) => `@${name}.${option.name}`).join(', ');
      return `is a choice. Ask for one of its options, such as if ${all.split(', ')[0]} then … else …`;
    }
    case 'layer':
      return `is a layer. Read its place or size: @${name}.x, @${name}.left, @${name}.width`;
    default:
      return null;
  }
}

const COLOUR_CHANNEL = /^(?:fill|stroke)\.([lab])$/;

/** All that the formulas of a preset may read; every scope of a preset has the same places. */
interface Base {
  readonly scope: Scope;
  readonly colours: readonly string[];
}

function baseOf({ parameters }: Pick<Preset, 'parameters'>, curves: readonly CurveProgress[]): Base {
  const types = Object.fromEntries(parameters.flatMap(inputsOfParameter));
  const scope = createScope({ ...PRESET_NAMES, rest: numberOf(PLAIN), here: numberOf(PLAIN) }, types);
  const reasons = parameters.map((parameter) => [parameter.name, whyUnfit(parameter)] as const);
  const unfit = new Map(reasons.flatMap(([name, why]) => (why === null ? [] : [[name, why] as const])));
  const colours = parameters.filter(({ kind }) => kind === 'colour').map(({ name }) => name);
  return { scope: { ...scope, unfit, curves }, colours };
}

/** Names for moment times: all but `rest` and `here`, whose places stay free. */
export function momentScope(preset: Pick<Preset, 'parameters'>, curves: readonly CurveProgress[] = []): Scope {
  const { scope } = baseOf(preset, curves);
  const names = new Map(scope.names);
  names.delete('rest');
  names.delete('here');
  return { ...scope, names };
}

/** Names for the cells of one channel. A colour parameter stands for the part that the channel is. */
export function cellScope(
  preset: Pick<Preset, 'parameters'>,
  channel: ChannelId,
  curves: readonly CurveProgress[] = [],
): Scope {
  const { scope, colours } = baseOf(preset, curves);
  const own = typeOfChannel(channel);
  const names = new Map([...scope.names, ['rest', own] as const, ['here', own] as const]);
  return withColours({ ...scope, names }, colours, channel);
}

/** A scope in which colours stand for the part that a channel is; as it was for channels that are none of a colour. */
export function withColours(scope: Scope, colours: readonly string[], channel: ChannelId): Scope {
  const part = COLOUR_CHANNEL.exec(channel)?.[1];
  if (part === undefined || colours.length === 0) return scope;
  const parameters = new Map(scope.parameters);
  const places = new Map(scope.places);
  const unfit = new Map(scope.unfit);
  for (const colour of colours) {
    parameters.set(colour, numberOf(PLAIN));
    places.set(`@${colour}`, scope.places.get(`@${colour}.${part}`) as number);
    unfit.delete(colour);
  }
  return { ...scope, parameters, places, unfit };
}

/** Names for parameter values given by a run: who the layer is, and nothing of the preset. */
export function runScope(): Scope {
  return createScope(PRESET_NAMES);
}
