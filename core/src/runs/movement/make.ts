import { clampToChannel, type ChannelId } from '../../basics/channel';
import { LINEAR, reverseEasing, type Easing } from '../../basics/easing';
import type { Columns } from '../../formulas/formula';
import { frameTicks, toFrameGrid, type Rate, type Ticks } from '../../basics/time';
import {
  createWriter,
  easeOf,
  type CompiledMovement,
  type CompiledPreset,
  type MadeRow,
  type Mark,
  type MomentColumns,
  type PresetKey,
  type RowFacts,
} from '../../formulas/preset';
import { bounceTracks } from './bounce';
import { drawTracks } from './draw';
import { framingTracks } from './framing';
import type { MovementKey, MovementLayer, MovementTrack } from './keys';
import { numberColumns, numberOn, switchOf, type NumberColumns } from './lengths';
import { pathTracks } from './along';
import { springTracks } from './spring';
import { swayTracks } from './sway';

/** What making a movement's keys needs besides the preset. */
export interface MovementContext {
  readonly facts: (channel: ChannelId) => RowFacts;
  readonly places: readonly number[];
  readonly rate: Rate;
  readonly mark: Mark;
}

function tracksFor({ movement }: CompiledMovement, layer: MovementLayer): readonly MovementTrack[] {
  switch (movement.type) {
    case 'bounce':
      return bounceTracks(movement, layer);
    case 'spring':
      return springTracks(movement, layer);
    case 'sway':
      return swayTracks(movement, layer);
    case 'draw':
      return drawTracks(movement, layer);
    case 'framing':
      return framingTracks(movement, layer);
    case 'path':
      return pathTracks(movement, layer);
  }
}

/** Keys played backwards about the middle of two times that add up to `sum`; each now leaves by how it was reached. */
function reversedKeys(keys: readonly MovementKey[], sum: Ticks): MovementKey[] {
  return keys
    .map((key, i) => ({ ...key, after: sum - key.after, ease: i === 0 ? LINEAR : reverseEasing(keys[i - 1].ease) }))
    .reverse();
}

/** Names whose values read a channel's rest stand in these columns while its formulas run. */
function channelNumbers(
  compiled: CompiledPreset,
  entry: CompiledMovement,
  columns: Columns,
  { facts }: MovementContext,
): NumberColumns {
  if (entry.ofChannel.size === 0) return new Map();
  const [channel] = entry.channels;
  const { rest, here } = facts(channel);
  const [writeRest, writeHere] = [createWriter(compiled, columns, 'rest'), createWriter(compiled, columns, 'here')];
  for (let row = 0; row < columns.stride; row++) {
    writeRest(row, rest(row));
    writeHere(row, here(row));
  }
  return numberColumns(entry, columns, true);
}

const NONE: readonly string[] = [];

/** What layers of one run share of a movement: things by all that they have in common. */
function createShared(): MovementLayer['shared'] {
  const known = new Map<string, object>();
  const places = new Map<object, number>();
  const nameOf = (part: number | Easing): number | string => {
    if (typeof part !== 'object') return part;
    const place = places.get(part) ?? places.size;
    places.set(part, place);
    return `e${place}`;
  };
  return <T extends object>(alike: readonly (number | Easing)[], make: () => T): T => {
    const name = alike.map(nameOf).join(' ');
    const before = known.get(name) as T | undefined;
    if (before) return before;
    const made = make();
    known.set(name, made);
    return made;
  };
}

/** Works out a movement on all layers: a row of keys for each of its channels. */
export function makeMovement(
  compiled: CompiledPreset,
  entry: CompiledMovement,
  columns: Columns,
  moments: MomentColumns,
  context: MovementContext,
): MadeRow[] {
  const { rate, mark } = context;
  const { movement } = entry;
  const numbers: NumberColumns = new Map([
    ...numberColumns(entry, columns, false),
    ...channelNumbers(compiled, entry, columns, context),
  ]);
  const frame = frameTicks(rate);
  const snap = compiled.preset.grid === 'frames' ? (at: Ticks) => toFrameGrid(at, rate) : (at: Ticks) => at;
  const isShown = switchOf(entry, compiled.scope, columns);
  const shared = createShared();
  const known = new Map<number, ReadonlyMap<ChannelId, readonly MovementKey[]>>();
  const keysOn = (row: number): ReadonlyMap<ChannelId, readonly MovementKey[]> => {
    const before = known.get(row);
    if (before) return before;
    const from = moments.ticks[entry.from][row];
    const to = entry.to === null ? from : Math.max(from + frame, moments.ticks[entry.to][row]);
    const tracks = tracksFor(entry, {
      number: numberOn(numbers, row),
      name: (name) => columns.values[(compiled.scope.places.get(name) as number) * columns.stride + row],
      rest: (channel) => context.facts(channel).rest(row),
      place: context.places[row],
      from,
      to,
      factor: moments.factors[row],
      frame,
      snap,
      shared,
      ease: entry.ease === null ? LINEAR : easeOf(compiled, entry.ease, columns, row),
    });
    const turned = tracks.map(({ channel, keys }): [ChannelId, readonly MovementKey[]] => [
      channel,
      movement.reversed === true ? reversedKeys(keys, from + to) : keys,
    ]);
    const made = new Map(turned);
    known.set(row, made);
    return made;
  };
  const broken = new Map<number, string[]>();
  for (const [field, values] of numbers) {
    values.forEach((value, row) => {
      if (!Number.isFinite(value)) broken.set(row, [...(broken.get(row) ?? []), `${movement.id}/${field}`]);
    });
  }
  return entry.channels.map((channel, i): MadeRow => ({
    channel,
    keysOf: (row, start) =>
      isShown(row)
        ? (keysOn(row).get(channel) ?? []).map(({ after, value, ease, slot }): PresetKey => ({
            at: start + after,
            value: clampToChannel(channel, value),
            ease,
            by: mark(slot),
          }))
        : [],
    brokenOn: (row) => (i === 0 && isShown(row) ? (broken.get(row) ?? NONE) : NONE),
    isMergedOn: () => false,
  }));
}
