import { clampToChannel, type ChannelId } from '../../basics/channel';
import type { Layer } from './layer';
import type { LayerLook } from './look';
import type { Mask } from './mask';

type FurtherShadow = NonNullable<LayerLook['shadows']>[number];
/** What a channel gives: keys, a rig, or the rest pose. */
type Read = (id: ChannelId) => number;

const MASKS = ['mask1', 'mask2', 'mask3'] as const;
const SHADOWS = ['shadow2', 'shadow3'] as const;

/** The channels of one mask by its place, 0 for the first; none from the fourth on, which move with all of them. */
export function maskChannels(place: number): readonly ChannelId[] {
  const own = MASKS.at(place);
  return own && place >= 0
    ? [`${own}.x`, `${own}.y`, `${own}.width`, `${own}.height`, `${own}.rotation`, `${own}.soft`]
    : [];
}

/** The channels of a further shadow by its place, 0 for the one below the first; none from the third on. */
export function shadowChannels(place: number): readonly ChannelId[] {
  const own = SHADOWS.at(place);
  return own && place >= 0 ? [`${own}.x`, `${own}.y`, `${own}.blur`, `${own}.spread`, `${own}.opacity`] : [];
}

/** A mask with what its own channels do to it, by its place: moved, stretched, turned and softened. */
export function movedMask(mask: Mask, place: number, read: Read): Mask {
  const own = MASKS.at(place);
  if (own === undefined) return mask;
  const value = (part: 'x' | 'y' | 'width' | 'height' | 'rotation' | 'soft'): number =>
    clampToChannel(`${own}.${part}`, read(`${own}.${part}`));
  return {
    ...mask,
    x: mask.x + value('x'),
    y: mask.y + value('y'),
    width: mask.width * value('width'),
    height: mask.height * value('height'),
    turn: mask.turn + value('rotation'),
    soft: Math.max(0, mask.soft + value('soft')),
  };
}

/** A further shadow with what its own channels do to it, by its place, and how much of it is seen, 0…1. */
export function movedShadow(
  shadow: FurtherShadow,
  place: number,
  read: Read,
): FurtherShadow & { readonly opacity: number } {
  const own = SHADOWS.at(place);
  if (own === undefined) return { ...shadow, opacity: 1 };
  const value = (part: 'x' | 'y' | 'blur' | 'spread' | 'opacity'): number =>
    clampToChannel(`${own}.${part}`, read(`${own}.${part}`));
  return {
    ...shadow,
    x: shadow.x + value('x'),
    y: shadow.y + value('y'),
    blur: Math.max(0, shadow.blur + value('blur')),
    spread: Math.max(0, (shadow.spread ?? 0) + value('spread')),
    opacity: value('opacity'),
  };
}

/** Values by channel as they are when each part moves up by one place: what belonged to the first of the lists is gone. */
function movedUp<T>(values: Readonly<Partial<Record<ChannelId, T>>>, places: readonly (readonly ChannelId[])[]) {
  const own = new Set<string>(places.flat());
  const moved = Object.fromEntries(Object.entries(values).filter(([id]) => !own.has(id)));
  places.slice(1).forEach((ids, i) =>
    ids.forEach((id, k) => {
      if (values[id] !== undefined) moved[places[i][k]] = values[id];
    }),
  );
  return moved as Partial<Record<ChannelId, T>>;
}

/**
 * A layer without one of its masks or further shadows, by its place. Those after it move up, and their rest values and keys with
 * them.
 */
export function withoutPart(layer: Layer, part: 'masks' | 'shadows', place: number): Layer {
  const { [part]: standing = [], ...others } = layer.look;
  const left = standing.filter((_, i) => i !== place);
  const channelsAt = part === 'masks' ? maskChannels : shadowChannels;
  const places = (part === 'masks' ? MASKS : SHADOWS).map((_, i) => channelsAt(i)).slice(place);
  return {
    ...layer,
    look: left.length > 0 ? { ...others, [part]: left } : others,
    rest: movedUp(layer.rest, places),
    tracks: movedUp(layer.tracks, places),
  };
}
