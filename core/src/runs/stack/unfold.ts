import type { ChannelId } from '../../basics/channel';
import {
  dataPartsBetween,
  isSame,
  lookPartsBetween,
  type Layer,
  type LookPart,
  type LookParts,
} from '../../scene/layer';
import type { LayerPatch } from '../../scene/scene';
import {
  baseLayer,
  foldLayer,
  noteTouched,
  nothingTouched,
  saysData,
  saysKeys,
  saysLook,
  saysRest,
  saysSpan,
  type Entry,
  type Folding,
  type Level,
  type Touched,
} from './fold';
import { keyPatchBetween, patchAt, patchOf, spanPatchBetween, type IsAlive } from './patch';

/** A layer taken apart: its base, its runs with all that was changed by hand over them, and what they touch. */
export interface Unfolded {
  readonly standing: Layer;
  readonly base: Layer;
  readonly levels: readonly Level[];
  readonly touched: Touched;
}

function channelsOf(standing: Layer, levels: readonly Level[], part: 'tracks' | 'rest'): Set<ChannelId> {
  // What was there before it was taken away by hand counts, too, whether a run changed it or not.
  const last = levels.at(-1)?.after[part] ?? {};
  const channels = new Set(Object.keys({ ...standing[part], ...last }) as ChannelId[]);
  for (const { before, after } of levels) {
    if (before[part] === after[part]) continue;
    for (const channel of Object.keys({ ...before[part], ...after[part] }) as ChannelId[]) channels.add(channel);
  }
  return channels;
}

/** Parts of the look that stand, or that any run or hand edit over one said. */
function lookPartsOf(standing: Layer, levels: readonly Level[]): Set<LookPart> {
  const parts = new Set(Object.keys({ ...standing.look, ...levels.at(-1)?.after.look }) as LookPart[]);
  for (const { before, after } of levels)
    for (const part of Object.keys(lookPartsBetween(before.look, after.look)) as LookPart[]) parts.add(part);
  return parts;
}

/** Columns of the data that any run or hand edit over one said. */
function columnsOf(levels: readonly Level[]): Set<string> {
  const columns = new Set<string>();
  for (const { before, after, entry } of levels)
    for (const column of Object.keys({ ...entry.made.data, ...dataPartsBetween(before.data, after.data) }))
      columns.add(column);
  return columns;
}

/** Patches of a layer with what was changed by hand since they were written: each part at the last run that touches the same. */
function freshPatches(standing: Layer, levels: readonly Level[], isAlive: IsAlive): (LayerPatch | undefined)[] {
  const stored = levels.map(({ entry, met }) => patchAt(entry.patch, met.span.in));
  const fresh = stored.map((patch) => ({
    span: patch?.span,
    rest: { ...patch?.rest },
    look: { ...patch?.look } as Record<string, unknown>,
    data: { ...patch?.data },
    tracks: { ...patch?.tracks },
  }));
  const spanAt = levels.findLastIndex(saysSpan);
  if (spanAt >= 0) fresh[spanAt].span = spanPatchBetween(levels[spanAt].met, standing);
  for (const channel of channelsOf(standing, levels, 'tracks')) {
    const at = levels.findLastIndex((level) => saysKeys(level, channel));
    if (at < 0) continue;
    const { met, entry } = levels[at];
    const known = { run: entry.run.id, stored: stored[at]?.tracks?.[channel], isAlive };
    const patch = keyPatchBetween(met.tracks[channel] ?? [], standing.tracks[channel] ?? [], known);
    if (patch) fresh[at].tracks[channel] = patch;
    else delete fresh[at].tracks[channel];
  }
  for (const channel of channelsOf(standing, levels, 'rest')) {
    const at = levels.findLastIndex((level) => saysRest(level, channel));
    if (at < 0) continue;
    const value = standing.rest[channel] ?? null;
    if (value !== (levels[at].met.rest[channel] ?? null)) fresh[at].rest[channel] = value;
    else delete fresh[at].rest[channel];
  }
  for (const part of lookPartsOf(standing, levels)) {
    const at = levels.findLastIndex((level) => saysLook(level, part));
    if (at < 0) continue;
    const [value, met] = [standing.look[part], levels[at].met.look[part]];
    if (isSame(value, met)) delete fresh[at].look[part];
    else fresh[at].look[part] = value ?? null;
  }
  for (const column of columnsOf(levels)) {
    const at = levels.findLastIndex((level) => saysData(level, column));
    if (at < 0) continue;
    const value = standing.data[column] ?? null;
    if (value !== (levels[at].met.data[column] ?? null)) fresh[at].data[column] = value;
    else delete fresh[at].data[column];
  }
  return levels.map(({ entry, met }, i) => {
    const patch = patchOf(standing.id, met.span.in, { ...fresh[i], look: fresh[i].look as LookParts });
    return isSame(patch, stored[i]) ? entry.patch : patch;
  });
}

function touchedBy(levels: readonly Level[]): Touched {
  const touched = nothingTouched();
  for (const level of levels) noteTouched(touched, level);
  return touched;
}

/** The stored base of a layer; where no run touches it any more, what stands. */
function soundBase(standing: Layer, base: Layer, touched: Touched): Layer {
  const { base: stored } = standing;
  const isStale =
    (stored?.span !== undefined && !touched.span) ||
    (stored?.whole === true && !touched.all) ||
    Object.keys(stored?.rest ?? {}).some((channel) => !touched.rest.has(channel as ChannelId)) ||
    Object.keys(stored?.look ?? {}).some((part) => !touched.look.has(part as LookPart)) ||
    Object.keys(stored?.data ?? {}).some((column) => !touched.data.has(column)) ||
    (!touched.all && Object.keys(stored?.tracks ?? {}).some((channel) => !touched.tracks.has(channel as ChannelId)));
  if (!isStale) return base;
  const keep = <T>(entries: Partial<Record<ChannelId, T>> | undefined, isKept: (channel: ChannelId) => boolean) =>
    Object.fromEntries(Object.entries(entries ?? {}).filter(([channel]) => isKept(channel as ChannelId)));
  return baseLayer(standing, {
    ...(touched.all ? { whole: true } : {}),
    ...(stored?.span && touched.span ? { span: stored.span } : {}),
    rest: keep(stored?.rest, (channel) => touched.rest.has(channel)),
    look: Object.fromEntries(
      Object.entries(stored?.look ?? {}).filter(([part]) => touched.look.has(part as LookPart)),
    ) as LookParts,
    data: Object.fromEntries(Object.entries(stored?.data ?? {}).filter(([column]) => touched.data.has(column))),
    tracks: keep(stored?.tracks, (channel) => touched.all || touched.tracks.has(channel)),
  });
}

/**
 * Takes a layer apart into its base, its runs, and what was changed by hand over each of them: what is written in the
 * runs' patches, and what was changed since, which is found by comparing.
 */
export function unfold(standing: Layer, entries: readonly Entry[], folding: Folding): Unfolded {
  if (entries.length === 0) {
    return { standing, base: baseLayer(standing, {}), levels: [], touched: nothingTouched() };
  }
  const stored = baseLayer(standing);
  let levels = foldLayer(stored, entries, folding);
  const base = soundBase(standing, stored, touchedBy(levels));
  if (base !== stored) levels = foldLayer(base, entries, folding);
  const patches = freshPatches(standing, levels, folding.isAlive);
  const first = levels.findIndex(({ entry }, i) => entry.patch !== patches[i]);
  if (first >= 0) {
    const fresh = levels.slice(first).map(({ entry }, i): Entry => ({ ...entry, patch: patches[first + i] }));
    levels = [...levels.slice(0, first), ...foldLayer(levels[first].before, fresh, folding)];
  }
  return { standing, base, levels, touched: touchedBy(levels) };
}
