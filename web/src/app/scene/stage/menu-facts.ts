import type { Layer, Scene } from '@wexikine/core';

/** What is switched on layers and back again. */
const FLIPS = [
  { flips: 'locked', icon: 'lock', label: 'Lock or unlock' },
  { flips: 'hidden', icon: 'visibility_off', label: 'Hide or show' },
  { flips: 'others', icon: 'visibility', label: 'Only these, or all again' },
  { flips: 'guide', icon: 'flag', label: 'Make a guide, or a layer again' },
] as const;

export type Flip = (typeof FLIPS)[number];

function onlyOne({ layers }: Scene, ids: ReadonlySet<string>): Layer | undefined {
  const [id] = ids;
  return ids.size === 1 ? layers.find((layer) => layer.id === id) : undefined;
}

/** True where one group is selected and nothing else. */
export function isOneGroup(scene: Scene, ids: ReadonlySet<string>): boolean {
  return onlyOne(scene, ids)?.kind === 'group';
}

/** What one selected layer can be split into, or joined from; null where that makes no sense. */
export function splitsOf(scene: Scene, ids: ReadonlySet<string>): 'words' | 'box' | 'joined' | null {
  const layer = onlyOne(scene, ids);
  if (!layer) return null;
  if (layer.split) return 'joined';
  if (layer.source.type === 'text') return 'words';
  return layer.source.type === 'picture' || layer.source.type === 'rectangle' ? 'box' : null;
}

/** What can be switched on the selected layers. What holds other layers cannot be a guide. */
export function flipsOf({ layers }: Scene, ids: ReadonlySet<string>): readonly Flip[] {
  const isHolding = layers.some(({ parent }) => parent !== null && ids.has(parent));
  return isHolding ? FLIPS.filter(({ flips }) => flips !== 'guide') : FLIPS;
}
