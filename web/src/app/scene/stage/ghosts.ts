import { CHANNEL_COUNT, type CompiledScene, type Frame, type Ticks } from '@wexikine/core';

/** Ghosts on either side of the playhead. */
const MOST = 3;
/** How strongly the nearest ghost is drawn; each further one by so much of the one before. */
const [NEAREST, FAINTER] = [0.42, 0.6];

/** A moment that is drawn faintly. */
export interface Ghost {
  readonly at: Ticks;
  /** (0, 1). */
  readonly strength: number;
}

/** The moments around a time that are drawn as ghosts, so many ticks apart and within the scene, the faintest first. */
export function ghostsAround(time: Ticks, apart: Ticks, length: Ticks): Ghost[] {
  const ghosts: Ghost[] = [];
  for (let step = MOST; step >= 1; step--) {
    for (const at of [time - step * apart, time + step * apart]) {
      if (at >= 0 && at < length) ghosts.push({ at, strength: NEAREST * FAINTER ** (step - 1) });
    }
  }
  return ghosts;
}

/** Whether a layer looks otherwise in two frames, by its own values or by where its groups put it. */
function isOtherwise(a: Frame, b: Frame, index: number): boolean {
  for (let i = index * 6; i < index * 6 + 6; i++) if (a.matrices[i] !== b.matrices[i]) return true;
  for (let i = index * CHANNEL_COUNT; i < (index + 1) * CHANNEL_COUNT; i++)
    if (a.values[i] !== b.values[i]) return true;
  return false;
}

/**
 * Leaves on in a ghost's frame only those of some layers, and of what is in them, that look otherwise than now; the groups
 * around them stay on. False where nothing is left to draw.
 */
export function keepMoving(
  { parents, order, layers }: CompiledScene,
  ghost: Frame,
  now: Frame,
  ids: ReadonlySet<string>,
): boolean {
  const isWanted = new Uint8Array(layers.length);
  const isAround = new Uint8Array(layers.length);
  let isAny = false;
  // Parents come first: what is in a selected group is meant with it.
  for (const index of order) {
    const parent = parents[index];
    if (ids.has(layers[index].id) || (parent >= 0 && isWanted[parent] === 1)) isWanted[index] = 1;
  }
  for (let place = order.length - 1; place >= 0; place--) {
    const index = order[place];
    const isDrawn = isWanted[index] === 1 && ghost.live[index] === 1 && isOtherwise(ghost, now, index);
    isAny ||= isDrawn;
    if (!isDrawn && isAround[index] === 0) ghost.live[index] = 0;
    else if (parents[index] >= 0) isAround[parents[index]] = 1;
  }
  return isAny;
}
