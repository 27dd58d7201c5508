import { keyTimes, type Layer, type Scene, type Ticks } from '@wexikine/core';

/** When a layer begins and ends to move, as it stands and with the dry run. */
export interface MotionSpan {
  readonly layer: string;
  readonly name: string;
  readonly now: readonly [Ticks, Ticks] | null;
  /** Null where nothing changes. */
  readonly after: readonly [Ticks, Ticks] | null;
}

function spanOf(layer: Layer | undefined): readonly [Ticks, Ticks] | null {
  const times = layer ? keyTimes(layer) : [];
  return times.length === 0 ? null : [times[0], times[times.length - 1]];
}

/**
 * Spans of motion in order: of the layers that take part in theirs, without a dry run of all that have keys, as they
 * lie in the scene.
 */
export function motionSpans(standing: Scene, drawn: Scene, taking: readonly string[]): MotionSpan[] {
  const isDryRun = drawn !== standing;
  const [before, now] = [standing, drawn].map(({ layers }) => new Map(layers.map((layer) => [layer.id, layer])));
  const ids = taking.length > 0 ? taking : standing.layers.map(({ id }) => id);
  return ids.flatMap((id) => {
    const [was, is] = [spanOf(before.get(id)), spanOf(now.get(id))];
    if (!was && !is) return [];
    const name = now.get(id)?.name ?? before.get(id)?.name ?? '';
    return [{ layer: id, name, now: was, after: isDryRun ? is : null }];
  });
}

/** How many of them begin or end at another time. */
export function changedSpans(spans: readonly MotionSpan[]): number {
  return spans.filter(({ now, after }) => after && (!now || now[0] !== after[0] || now[1] !== after[1])).length;
}
