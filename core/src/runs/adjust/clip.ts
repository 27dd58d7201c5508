import * as z from '../../basics/schema';
import { channelIdSchema, channelOf, type ChannelId } from '../../basics/channel';
import { easingSchema } from '../../basics/easing';
import { frameTicks, rateSchema, ticksSchema, type Ticks } from '../../basics/time';
import { layerEdits, type Edit } from '../../scene/edit';
import { restValue, tracksOf, type Key, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { dialChannel, keyedDials } from '../rig';
import type { HandPicks } from './by-hand';

const clipKeySchema = z.strictObject({
  /** From the first of all copied keys. */
  after: ticksSchema,
  value: z.number().min(-1e12).max(1e12),
  ease: easingSchema,
});

/** Keys on the clipboard, as text: those of several layers, in the order of the layers. */
export const keyClipSchema = z
  .strictObject({
    format: z.literal('wexikine-keys-1'),
    rate: rateSchema,
    layers: z
      .array(
        z.strictObject({
          name: z.string().max(200),
          /** From the in point of the layer to the first of all copied keys. */
          offset: ticksSchema,
          tracks: z.partialRecord(
            channelIdSchema,
            z.strictObject({ rest: z.number(), keys: z.array(clipKeySchema).min(1).max(100_000) }),
          ),
        }),
      )
      .max(20_000),
    /** Keys of dials, with the name of their rig. */
    dials: z
      .array(
        z.strictObject({
          rig: z.string().max(200),
          name: z.string().max(200),
          label: z.string().max(200),
          kind: z.string().max(40),
          keys: z.array(clipKeySchema).min(1).max(100_000),
        }),
      )
      .max(1_000)
      .optional(),
  })
  .refine(({ layers, dials = [] }) => layers.length + dials.length > 0)
  .describe('Keys of several layers, to be pasted onto others, and of dials.');

/** Keys on the clipboard. */
export type KeyClip = Readonly<z.infer<typeof keyClipSchema>>;

/** Copies picked keys; null where none are. */
export function copyKeys(scene: Scene, picks: HandPicks): KeyClip | null {
  const times = [...picks.values()].flatMap((channels) => [...channels.values()].flatMap((own) => [...own]));
  if (times.length === 0) return null;
  const first = times.reduce((least, at) => Math.min(least, at), Infinity);
  const layers = scene.layers.flatMap((layer): KeyClip['layers'] => {
    const own = picks.get(layer.id);
    if (!own) return [];
    const tracks = tracksOf(layer).flatMap(([channel, keys]) => {
      const copied = keys
        .filter(({ at }) => own.get(channel)?.has(at) ?? false)
        .map(({ at, value, ease }) => ({ after: at - first, value, ease }));
      return copied.length > 0 ? [[channel, { rest: restValue(layer, channel), keys: copied }] as const] : [];
    });
    if (tracks.length === 0) return [];
    return [{ name: layer.name, offset: first - layer.span.in, tracks: Object.fromEntries(tracks) }];
  });
  const dials = copiedDials(scene, picks, first);
  if (layers.length + dials.length === 0) return null;
  return { format: 'wexikine-keys-1', rate: scene.rate, layers, ...(dials.length > 0 ? { dials } : {}) };
}

function copiedDials(scene: Scene, picks: HandPicks, first: Ticks): NonNullable<KeyClip['dials']> {
  return keyedDials(scene.runs).flatMap(({ run, dial, layer }) => {
    const channel = dialChannel(dial);
    const times = picks.get(layer.id)?.get(channel);
    const keys = (layer.tracks[channel] ?? [])
      .filter(({ at }) => times?.has(at) ?? false)
      .map(({ at, value, ease }) => ({ after: at - first, value, ease }));
    const { name, label, kind } = dial;
    return keys.length > 0 ? [{ rig: run.rig?.name ?? '', name, label, kind, keys }] : [];
  });
}

/** Reads text as copied keys; a sentence where it is none. */
export function readKeyClip(text: string): KeyClip | string {
  const wrong = 'There are no keys on the clipboard. Pick some keys and copy them first.';
  if (!text.includes('wexikine-keys-1')) return wrong;
  try {
    const parsed = keyClipSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : wrong;
  } catch {
    return wrong;
  }
}

/** Where and how keys are pasted. */
export interface PasteWay {
  /** The first of all keys stands here, or as long after each layer's in point as it did. */
  readonly at: { readonly by: 'time'; readonly time: Ticks } | { readonly by: 'offset' };
  /** Values as they were, or as far from the rest pose as they were. */
  readonly values: 'absolute' | 'relative';
  /** Another channel for all copied ones; null keeps each. */
  readonly channel: ChannelId | null;
}

/** What became of one target. */
export interface PasteReport {
  readonly layer: string;
  readonly keys: number;
  /** Why nothing went there; null where something did. */
  readonly why: string | null;
}

/** Shares and px do not mix: a channel takes keys of its own unit only. */
function targetOf(from: ChannelId, to: ChannelId | null): ChannelId | null {
  if (to === null) return from;
  return channelOf(from).unit === channelOf(to).unit ? to : null;
}

function pastedLayer(
  layer: Layer,
  source: KeyClip['layers'][number],
  { at, values, channel: to }: PasteWay,
  scale: (after: Ticks) => Ticks,
): { layer: Layer; keys: number; why: string | null } {
  const start = at.by === 'time' ? at.time : layer.span.in + source.offset;
  const tracks = { ...layer.tracks };
  let keys = 0;
  for (const [name, copied] of Object.entries(source.tracks)) {
    const channel = targetOf(name as ChannelId, to);
    if (channel === null || copied === undefined) continue;
    const by = values === 'relative' ? restValue(layer, channel) - copied.rest : 0;
    const pasted = copied.keys.map(({ after, value, ease }): Key => ({
      at: start + scale(after),
      value: value + by,
      ease,
    }));
    const taken = new Set(pasted.map((key) => key.at));
    const kept = (tracks[channel] ?? []).filter((key) => !taken.has(key.at));
    tracks[channel] = [...kept, ...pasted].sort((a, b) => a.at - b.at);
    keys += pasted.length;
  }
  return { layer: { ...layer, tracks }, keys, why: keys > 0 ? null : 'its unit is another' };
}

/** Times of a clip in a scene: of another rate they keep the number of their frame. */
export function rescaled(clip: Pick<KeyClip, 'rate'>, scene: Pick<Scene, 'rate'>): (after: Ticks) => Ticks {
  const [then, now] = [frameTicks(clip.rate), frameTicks(scene.rate)];
  return (after) => (then === now ? after : Math.round((after / then) * now));
}

/**
 * Pastes keys onto layers: one copied layer goes to all of them, several go by their place, again and again. Times of
 * another rate keep the number of their frame. Locked layers are left out, and said.
 */
export function pasteKeys(
  scene: Scene,
  clip: KeyClip,
  targets: readonly string[],
  way: PasteWay,
): { readonly edits: readonly Edit[]; readonly report: readonly PasteReport[] } {
  const scale = rescaled(clip, scene);
  const edits: Edit[] = [];
  const report = targets.map((id, place): PasteReport => {
    const layer = scene.layers.find((one) => one.id === id);
    if (!layer) return { layer: id, keys: 0, why: 'it is not there any more' };
    if (layer.locked) return { layer: id, keys: 0, why: 'it is locked' };
    const pasted = pastedLayer(layer, clip.layers[place % clip.layers.length], way, scale);
    edits.push(...layerEdits(layer, pasted.layer));
    return { layer: id, keys: pasted.keys, why: pasted.why };
  });
  return { edits, report };
}

/** What went where, as a sentence: "9 keys each on 11 layers; “Moon” took none: it is locked." */
export function pasteWords(scene: Scene, report: readonly PasteReport[]): string {
  const names = new Map(scene.layers.map(({ id, name }) => [id, name]));
  const done = report.filter(({ why }) => why === null);
  const keys = done.reduce((sum, one) => sum + one.keys, 0);
  const failed = report
    .filter(({ why }) => why !== null)
    .map(({ layer, why }) => `“${names.get(layer) ?? layer}” took none: ${why}`);
  const pasted = `${keys === 1 ? '1 key' : `${keys} keys`} pasted on ${done.length === 1 ? '1 layer' : `${done.length} layers`}`;
  return `${[pasted, ...failed].join('; ')}.`;
}
