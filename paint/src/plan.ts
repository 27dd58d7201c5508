import { CHANNEL_COUNT, CHANNELS, type ChannelId, type CompiledScene } from '@wexikine/core';

/** What of a compiled scene says how its layers are drawn, found once. */
export interface Plan {
  /** Children of every layer, and of the scene itself at −1, from back to front. */
  readonly children: ReadonlyMap<number, readonly number[]>;
  readonly places: ReadonlyMap<string, number>;
  /** Layers that are only mattes of others. */
  readonly onlyMattes: ReadonlySet<number>;
  /** Groups whose parts blend: these do so with what is in their group alone, as in CSS. */
  readonly apart: ReadonlySet<number>;
  /** 1 for a layer that can have effects at some time. */
  readonly hasEffects: Uint8Array;
  /** A layer, what it holds and what it is seen through, itself first. */
  readonly membersOf: (index: number) => readonly number[];
}

/** Channels that give a layer an effect by themselves, where they leave their defaults. */
const ALONE: ReadonlySet<ChannelId> = new Set<ChannelId>([
  'blur',
  'streak.length',
  'colour.brightness',
  'colour.contrast',
  'colour.saturation',
  'colour.hue',
  'colour.grey',
]);
const ALONE_SLOTS = CHANNELS.filter(({ id }) => ALONE.has(id));

/** Which layers throw shadows or have channels of effects that may leave their defaults. */
function effectful({ layers, rest, tracks: { target }, rigs }: CompiledScene): Uint8Array {
  const has = new Uint8Array(layers.length);
  layers.forEach(({ look }, index) => {
    const { shadow, shadows, glow, inner, tint, two } = look;
    const isAlone = ALONE_SLOTS.some(({ slot, default: none }) => rest[index * CHANNEL_COUNT + slot] !== none);
    const isDriven = rigs?.driven(index).some((id) => ALONE.has(id)) ?? false;
    if (isAlone || isDriven || shadow || shadows?.length || glow || inner || tint || two) has[index] = 1;
  });
  for (const cell of target) {
    if (ALONE.has(CHANNELS[cell % CHANNEL_COUNT].id)) has[Math.floor(cell / CHANNEL_COUNT)] = 1;
  }
  return has;
}

/** Finds the plan of a compiled scene. */
export function planOf(compiled: CompiledScene): Plan {
  const { layers, parents } = compiled;
  const children = new Map<number, number[]>();
  const places = new Map(layers.map(({ id }, index) => [id, index]));
  const onlyMattes = new Set<number>();
  const apart = new Set<number>();
  parents.forEach((parent, index) => {
    const list = children.get(parent);
    if (list) list.push(index);
    else children.set(parent, [index]);
    const { blend, matte } = layers[index].look;
    if (blend !== undefined) apart.add(parent);
    const place = matte && !matte.isShown ? places.get(matte.layer) : undefined;
    if (place !== undefined) onlyMattes.add(place);
  });
  const known = new Map<number, readonly number[]>();
  const membersOf = (index: number): readonly number[] => {
    const before = known.get(index);
    if (before) return before;
    const members = new Set([index]);
    for (const one of members) {
      for (const child of children.get(one) ?? []) members.add(child);
      const matte = places.get(layers[one].look.matte?.layer ?? '');
      if (matte !== undefined) members.add(matte);
    }
    const all = [...members];
    known.set(index, all);
    return all;
  };
  return { children, places, onlyMattes, apart, hasEffects: effectful(compiled), membersOf };
}
