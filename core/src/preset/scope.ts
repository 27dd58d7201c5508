import { channelOf, type ChannelId } from '../channel';
import { createScope, DIMENSIONS, numberOf, RUN_NAMES, SWITCH, type Scope, type ValueType } from '../formula';
import type { Parameter, ParameterKind, Preset } from './preset';

const { ANGLE, FREQUENCY, LENGTH, PLAIN, TIME } = DIMENSIONS;

/** Edges of the layer's upright box in its rest pose, in scene pixels; presets that come from the frame's edge need them. */
const EDGE_NAMES: Readonly<Record<string, ValueType>> = {
  'layer.left': numberOf(LENGTH),
  'layer.right': numberOf(LENGTH),
  'layer.top': numberOf(LENGTH),
  'layer.bottom': numberOf(LENGTH),
};

/** Every name, in the order of its place in the inputs. `rest` and `here` have the unit of the cell's channel. */
export const PRESET_NAMES = { ...RUN_NAMES, ...EDGE_NAMES };

/** What a formula of a parameter's kind must give. */
export function typeOfKind(kind: ParameterKind): ValueType {
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

function parameterTypes(parameters: readonly Parameter[]): Record<string, ValueType> {
  return Object.fromEntries(parameters.map(({ name, kind }) => [name, typeOfKind(kind)]));
}

/** Names for moment times: all but `rest` and `here`, whose places stay free. */
export function momentScope(preset: Pick<Preset, 'parameters'>): Scope {
  const all = cellScope(preset, 'opacity');
  const names = new Map(all.names);
  names.delete('rest');
  names.delete('here');
  return { ...all, names };
}

/** Names for the cells of one channel. */
export function cellScope({ parameters }: Pick<Preset, 'parameters'>, channel: ChannelId): Scope {
  const own = typeOfChannel(channel);
  return createScope({ ...PRESET_NAMES, rest: own, here: own }, parameterTypes(parameters));
}

/** Names for parameter values given by a run: who the layer is, and nothing of the preset. */
export function runScope(): Scope {
  return createScope(PRESET_NAMES);
}
