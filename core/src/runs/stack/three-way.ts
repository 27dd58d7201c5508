import { isSame, type Key } from '../../scene/layer';
import type { LayerMade } from '../../scene/scene';

/**
 * A number as it was made, with what became different in the plan: where it is as it was planned then it is as it is
 * planned now, else it moves as far as the plan did.
 */
function number(made: number, then: number, now: number): number {
  return made === then ? now : made + (now - then);
}

/** A key of the plan then and now; null where the plan does not have it. */
function keyOf(made: Key | null, then: Key | null, now: Key | null): Key | null {
  if (!made || !then || !now) return then && now ? null : now;
  return {
    ...made,
    at: number(made.at, then.at, now.at),
    value: number(made.value, then.value, now.value),
    ease: isSame(then.ease, now.ease) ? made.ease : now.ease,
  };
}

type Tracks = LayerMade['tracks'];

function keysBySlot(tracks: Tracks): Map<string, Key> {
  return new Map(tracks.flatMap(([channel, keys]) => keys.map((key) => [`${channel} ${key.by?.slot ?? ''}`, key])));
}

/** Keys as they were made, with what became different from one plan to the other. */
function tracksOf(made: Tracks, then: Tracks, now: Tracks): Tracks {
  const [own, before, after] = [made, then, now].map(keysBySlot);
  const channels = new Set([...made, ...now].map(([channel]) => channel));
  return [...channels].flatMap((channel) => {
    const slots = new Set([...own.keys(), ...after.keys()].filter((name) => name.startsWith(`${channel} `)));
    const keys = [...slots].flatMap(
      (name) => keyOf(own.get(name) ?? null, before.get(name) ?? null, after.get(name) ?? null) ?? [],
    );
    keys.sort((a, b) => a.at - b.at);
    const apart = keys.filter((key, i) => keys[i + 1]?.at !== key.at);
    return apart.length > 0 ? [[channel, apart] as const] : [];
  });
}

function valuesOf(made: LayerMade['rest'], then: LayerMade['rest'], now: LayerMade['rest']): LayerMade['rest'] {
  const [own, before] = [new Map(made), new Map(then)];
  return now.map(([channel, value]) => {
    const [was, planned] = [own.get(channel), before.get(channel)];
    return [channel, was === undefined || planned === undefined ? value : number(was, planned, value)] as const;
  });
}

function spanOf(made: LayerMade['span'], then: LayerMade['span'], now: LayerMade['span']): LayerMade['span'] {
  if (!made || !then || !now) return now;
  const span = { in: number(made.in, then.in, now.in), out: number(made.out, then.out, now.out) };
  return span.out > span.in ? span : now;
}

/**
 * What a run made on a layer, with what is different between its plan in surroundings as they were and as they are: only
 * that changes, whatever else a plan would make of today's scene.
 */
export function threeWay(made: LayerMade, then: LayerMade, now: LayerMade): LayerMade {
  return {
    layer: made.layer,
    moved: number(made.moved, then.moved, now.moved),
    span: spanOf(made.span, then.span, now.span),
    rest: valuesOf(made.rest, then.rest, now.rest),
    against: valuesOf(made.against, then.against, now.against),
    look: isSame(then.look, now.look) ? made.look : now.look,
    data: isSame(then.data, now.data) ? made.data : now.data,
    start: number(made.start, then.start, now.start),
    tracks: tracksOf(made.tracks, then.tracks, now.tracks),
  };
}
