import type { ChannelId } from '../../basics/channel';
import type { Parameter } from '../../formulas/preset';
import type { Rig } from '../../formulas/rig';
import type { RigItem } from '../library';
import { itemFields, parameter } from './builder';

type Parts = {
  readonly dials: readonly Parameter[];
  readonly formulas: Rig['formulas'];
  readonly roles?: Rig['roles'];
};

/** A rig of the starter library. */
export function rig(
  id: string,
  name: string,
  note: string,
  tags: readonly string[],
  { dials, formulas, roles }: Parts,
): RigItem {
  const body: Rig = { dials: [...dials], roles: roles ?? [], formulas };
  return { ...itemFields({ id: `rig-${id}`, name, note, tags }), kind: 'rig', body };
}

/** A formula of some lines that drives channels. */
export function drive(channels: readonly ChannelId[], ...lines: readonly string[]): Rig['formulas'][number] {
  return { channels: [...channels], text: lines.join('\n') };
}

/** Both of a place. */
export const POSITION: readonly ChannelId[] = ['position.x', 'position.y'];
/** Both of a size. */
export const SCALE: readonly ChannelId[] = ['scale.x', 'scale.y'];
/** The layer that others go after. */
export const LEADER = { name: 'leader', note: 'the layer that the others go after' };

/** A dial of swings a second. */
export const pace = (standard: string, to = '6Hz'): Parameter =>
  parameter(
    'pace',
    'Pace',
    'frequency',
    standard,
    { min: '0.01Hz', from: '0.1Hz', to, step: '0.1Hz' },
    'swings a second',
  );
/** A dial of how fast something dies away. */
export const calm = (standard: string): Parameter =>
  parameter(
    'calm',
    'Calm',
    'number',
    standard,
    { min: '0', from: '0', to: '12', step: '0.1' },
    'how fast it dies away, per second',
  );
/** A dial of how much a spring is braked. */
export const damping = (standard: string): Parameter =>
  parameter(
    'damping',
    'Damping',
    'number',
    standard,
    { min: '0', max: '4', from: '0.1', to: '2', step: '0.05' },
    'below 1 it swings past, at 1 it does not',
  );
/** A dial of frames from one to the next. */
export const gap = (standard: string): Parameter =>
  parameter('gap', 'Gap', 'time', standard, { min: '0f', from: '0f', to: '20f', step: '1f' }, 'from one to the next');
/** A dial of per cent. */
export const share = (name: string, label: string, standard: string, to: string, note: string): Parameter =>
  parameter(name, label, 'percent', standard, { from: '0%', to, step: '1%' }, note);
/** A dial of pixels. */
export const length = (name: string, label: string, standard: string, to: string, note: string): Parameter =>
  parameter(name, label, 'length', standard, { from: '0px', to, step: '1px' }, note);
