import { channelOf, type ChannelId } from '../../basics/channel';
import { easingFromStrengths } from '../../basics/easing';
import { READY_PATHS } from '../../basics/motion';
import {
  MOVEMENTS,
  presetChannels,
  type Movement,
  type MovementNumber,
  type MovementType,
  type Preset,
} from '../../formulas/preset';
import { freeId } from './matrix';
import { movedItem } from './parameters';

/** Beginnings of what is counted in a channel's unit. */
const IN_UNITS = {
  px: { amount: '20px', start: 'rest + 120px' },
  deg: { amount: '4deg', start: 'rest - 30deg' },
  share: { amount: '10%', start: 'rest × 40%' },
  number: { amount: '0.1', start: 'rest × 40%' },
} as const;

function standardNumbers(
  numbers: Readonly<Record<string, MovementNumber>>,
  channel: ChannelId,
): Record<string, string> {
  const own = IN_UNITS[channelOf(channel).unit];
  return Object.fromEntries(
    Object.entries(numbers).map(([name, { standard }]) => [
      name,
      name === 'amount' || name === 'start' ? own[name] : standard,
    ]),
  );
}

/** The channels of which a movement can have one, those that are free first; none where its channels are its own. */
export function movementChannelChoices(preset: Preset, type: MovementType, all: readonly ChannelId[]): ChannelId[] {
  const { units } = MOVEMENTS[type];
  const taken = new Set(presetChannels(preset));
  if (units === null) return [];
  return all.filter((id) => units.includes(channelOf(id).unit) && !taken.has(id));
}

function firstFree(preset: Preset, type: MovementType): ChannelId {
  const wanted = ['position.y', 'position.x', 'rotation', 'scale.x', 'scale.y', 'opacity', 'skew'] as const;
  return movementChannelChoices(preset, type, wanted)[0] ?? 'position.y';
}

/** A movement as it begins: from the first moment to the last, with safe numbers. */
export function createMovement(preset: Preset, type: MovementType): Movement {
  const id = freeId(
    (preset.movements ?? []).map((movement) => movement.id),
    type,
  );
  const from = preset.moments[0].id;
  const to = preset.moments[preset.moments.length - 1].id;
  const channel = firstFree(preset, type);
  const numbers = standardNumbers(MOVEMENTS[type].numbers, channel) as never;
  const part = standardNumbers(MOVEMENTS[type].parts ?? {}, channel) as never;
  const ease = easingFromStrengths(0.35, 0.35);
  switch (type) {
    case 'bounce':
      return { id, type, channel, from, by: 'height', numbers };
    case 'spring':
      return { id, type, channel, from, numbers };
    case 'sway':
      return { id, type, channel, from, to, isLoop: false, parts: [part], numbers };
    case 'draw':
      return { id, type, from, to, way: 'beginning', ease, numbers };
    case 'framing':
      return { id, type, from, to, way: 'all', ease, parts: [part, { x: '60%', y: '45%', zoom: '140%' }], numbers };
    case 'path': {
      const [{ d, fit }] = READY_PATHS.filter((ready) => ready.fit === (preset.phase === 'exit' ? 'out' : 'in'));
      return { id, type, from, to, d, fit, turns: false, ease, numbers };
    }
  }
}

/** Adds a movement at the end. */
export function addMovement(preset: Preset, movement: Movement): Preset {
  return { ...preset, movements: [...(preset.movements ?? []), movement] };
}

/** The preset with a movement changed; what hangs together is kept together by `change`. */
export function changeMovement(preset: Preset, id: string, change: (movement: Movement) => Movement): Preset {
  if (!preset.movements) return preset;
  return {
    ...preset,
    movements: preset.movements.map((movement) => (movement.id === id ? change(movement) : movement)),
  };
}

/** The preset without a movement; without any it has no list of them, as if there never were one. */
export function removeMovement(preset: Preset, id: string): Preset {
  const { movements = [], ...rest } = preset;
  const left = movements.filter((movement) => movement.id !== id);
  return left.length > 0 ? { ...rest, movements: left } : rest;
}

/** Moves a movement up or down in the list. */
export function moveMovement(preset: Preset, id: string, by: number): Preset {
  const { movements } = preset;
  return movements ? { ...preset, movements: movedItem(movements, (movement) => movement.id === id, by) } : preset;
}

/** Writes one formula of a movement: a number by its name, of a part as `0.rate`. */
export function setMovementNumber(preset: Preset, id: string, field: string, text: string): Preset {
  const [index, name] = field.includes('.') ? field.split('.') : [null, field];
  return changeMovement(preset, id, (movement) => {
    if (index === null) return { ...movement, numbers: { ...movement.numbers, [name]: text } } as Movement;
    if (!('parts' in movement)) return movement;
    const parts = movement.parts.map((part, i) => (i === Number(index) ? { ...part, [name]: text } : part));
    return { ...movement, parts } as Movement;
  });
}

/** Most and fewest parts that a movement may have. */
export function partLimits(type: MovementType): readonly [least: number, most: number] {
  return type === 'framing' ? [2, 12] : [1, 6];
}

/** Adds a part like the last one: another rate of a sway, another framing. */
export function addPart(preset: Preset, id: string): Preset {
  return changeMovement(preset, id, (movement) => {
    if (!('parts' in movement) || movement.parts.length >= partLimits(movement.type)[1]) return movement;
    const parts = [...movement.parts, { ...movement.parts[movement.parts.length - 1] }];
    return { ...movement, parts } as Movement;
  });
}

/** Takes a part away, where enough are left. */
export function removePart(preset: Preset, id: string, index: number): Preset {
  return changeMovement(preset, id, (movement) => {
    if (!('parts' in movement) || movement.parts.length <= partLimits(movement.type)[0]) return movement;
    return { ...movement, parts: (movement.parts as readonly object[]).filter((_, i) => i !== index) } as Movement;
  });
}
