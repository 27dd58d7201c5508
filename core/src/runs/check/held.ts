import type { ChannelId } from '../../basics/channel';
import type { Finding } from '../finding';
import type { Key, Layer, Track } from '../../scene/layer';
import { isHeldExactly } from '../../basics/time';

/** What a scene's schema allows; planning never makes more. */
const MOST_VALUE = 1e12;
const MOST_REST = 1e9;
const MOST_HANDLE = 1e9;
const MOST_KEYS = 100_000;

type Unheld = Extract<Finding, { code: 'cannot-hold' }>['what'];

function isWithin(value: number, most: number): boolean {
  return value >= -most && value <= most;
}

function keyProblem({ at, value, ease }: Key): Unheld | null {
  if (!isHeldExactly(at)) return 'time';
  if (!isWithin(value, MOST_VALUE)) return 'value';
  if (ease.type !== 'handles') return null;
  return isWithin(ease.leave.value, MOST_HANDLE) && isWithin(ease.arrive.value, MOST_HANDLE) ? null : 'value';
}

function layerProblem({ span, rest, tracks }: Layer): Unheld | null {
  if (!isHeldExactly(span.in) || !isHeldExactly(span.out)) return 'time';
  for (const channel in rest) if (!isWithin(rest[channel as ChannelId] as number, MOST_REST)) return 'value';
  for (const channel in tracks) {
    const keys = tracks[channel as ChannelId] as Track;
    if (keys.length > MOST_KEYS) return 'keys';
    for (const key of keys) {
      const problem = keyProblem(key);
      if (problem) return problem;
    }
  }
  return null;
}

/** Layers that would get times or values that a scene cannot hold; null where there are none. */
export function findUnheld(layers: readonly Layer[]): Finding | null {
  const found: string[] = [];
  let what: Unheld | null = null;
  for (const layer of layers) {
    const problem = layerProblem(layer);
    if (!problem) continue;
    what ??= problem;
    found.push(layer.id);
  }
  return what ? { code: 'cannot-hold', layers: found, what } : null;
}
