import * as z from '../../basics/schema';
import { channelIdSchema, type ChannelId } from '../../basics/channel';
import { countSchema, idSchema } from '../../basics/ids';
import { keySchema, layerSchema, restValue, tracksOf, withKeys, type Key, type Layer } from '../../scene/layer';
import { recipeSchema, type Recipe } from '../../scene/recipe';
import {
  layerMade,
  packMade,
  SCENE_FORMAT,
  type LayerMade,
  type LayerPatch,
  type RunRecord,
  type Scene,
} from '../../scene/scene';
import { ticksSchema } from '../../basics/time';
import { baseLayer, baseOf, createFolding, layOver, nothingTouched, noteTouched, unnamed, type Folding } from './fold';
import { applyPatch, patchBetween } from './patch';

const FIRST_FORMAT = 'wexikine-scene-1';

const keysSchema = z.array(keySchema);
const spanSchema = z.object({ in: ticksSchema, out: ticksSchema });

/** What a run did to one layer, as records of the first format kept it: every channel before and after. */
const stepSchema = z.object({
  layer: idSchema,
  span: z.object({ before: spanSchema, after: spanSchema }).optional(),
  rest: z
    .array(z.object({ channel: channelIdSchema, before: z.number().nullable(), after: z.number().nullable() }))
    .optional(),
  tracks: z.array(
    z.object({ channel: channelIdSchema, before: keysSchema, after: keysSchema, made: keysSchema.optional() }),
  ),
});

const oldRunSchema = z.object({
  id: idSchema,
  sentence: z.string(),
  recipe: z.record(z.string(), z.unknown()),
  preset: z
    .object({ id: idSchema, revision: countSchema, name: z.string(), body: z.record(z.string(), z.unknown()) })
    .optional(),
  uses: z.array(z.object({ id: idSchema, revision: countSchema })).optional(),
  by: z.string(),
  when: z.string(),
  off: z.literal(true).optional(),
  steps: z.array(stepSchema),
});

type OldStep = z.infer<typeof stepSchema>;

/** A run of the first format with its recipe read. */
interface OldRun {
  readonly recipe: Recipe;
  readonly steps: ReadonlyMap<string, OldStep>;
  readonly head: Omit<RunRecord, 'layers' | 'made' | 'patches'>;
}

/** A run as it was written; null where nothing can be made of its recipe: its keys then stay as set by hand. */
function readRun(data: unknown): OldRun | null {
  const read = oldRunSchema.safeParse(data);
  const recipe = read.success ? recipeSchema.safeParse(inPresentWords(read.data.recipe)) : null;
  if (!read.success || !recipe?.success) return null;
  const { steps, ...rest } = read.data;
  return {
    recipe: recipe.data,
    steps: new Map(steps.map((step) => [step.layer, step])),
    head: { ...rest, recipe: recipe.data },
  };
}

/** A recipe that was written when moving throughout had another name. */
function inPresentWords(recipe: Record<string, unknown>): Record<string, unknown> {
  return recipe.operation === 'carry-through' ? { ...recipe, operation: 'move-throughout' } : recipe;
}

/** The layer as it was before a step. */
function takeBack(layer: Layer, { span, rest, tracks: steps }: OldStep): Layer {
  let { tracks } = layer;
  for (const { channel, before } of steps) tracks = withKeys(tracks, channel, before);
  const values: Layer['rest'] = { ...layer.rest };
  for (const { channel, before } of rest ?? []) {
    if (before === null) delete values[channel];
    else values[channel] = before;
  }
  return { ...layer, span: span?.before ?? layer.span, rest: rest ? values : layer.rest, tracks };
}

/** Keys with a slot of their own, where several of one run had the same. */
function withOwnSlots(keys: readonly Key[], run: string): Key[] {
  const seen = new Map<string, number>();
  return keys.map((key) => {
    const slot = key.by?.slot ?? 'key';
    const count = seen.get(slot) ?? 0;
    seen.set(slot, count + 1);
    return { ...key, by: { run, slot: count === 0 ? slot : `${slot}~${count}` } };
  });
}

const OLD_HELD = '/held';

function madeKeys({ made, after }: OldStep['tracks'][number], run: string): Key[] {
  const own = made ?? after.filter(({ by }) => by?.run === run && !by.slot.endsWith(OLD_HELD));
  return withOwnSlots(own, run);
}

/** What a run made on a layer, out of what its step says was there before and after. */
function madeBefore(run: OldRun, step: OldStep, under: Layer): LayerMade {
  const { id } = run.head;
  const { span } = step;
  switch (run.recipe.operation) {
    case 'line-up':
      return layerMade(step.layer, { span: span?.after ?? null });
    case 'arrange': {
      const rest = (step.rest ?? []).map(
        ({ channel, after }) => [channel, after ?? restValue(under, channel)] as const,
      );
      return layerMade(step.layer, { rest });
    }
    case 'clear':
    case 'rig':
    case 'turn-into-keys':
    case 'thin-out':
    case 'adjust':
    case 'pass-on':
    case 'style':
    case 'multiply':
      return layerMade(step.layer, {});
    case 'bring-in':
    case 'send-out':
    case 'accent':
    case 'move-throughout': {
      const tracks = step.tracks
        .map((track) => [track.channel, madeKeys(track, id)] as const)
        .filter(([, keys]) => keys.length > 0);
      const start = Math.min(...tracks.flatMap(([, keys]) => keys.map(({ at }) => at)), Infinity);
      const isAdded = run.recipe.existing === 'add';
      return layerMade(step.layer, {
        moved: span ? span.after.in - span.before.in : 0,
        against: isAdded ? tracks.map(([channel]) => [channel, restValue(under, channel)] as const) : [],
        start: Number.isFinite(start) ? start : 0,
        tracks,
      });
    }
  }
}

/** Names of keys of one channel as the first format knew them: the slot, counted where several had the same. */
function oldNames(keys: readonly Key[]): string[] {
  const seen = new Map<string, number>();
  return keys.map(({ at, by }) => {
    if (!by) return `@${at}`;
    const name = `${by.run}/${by.slot}`;
    const count = seen.get(name) ?? 0;
    seen.set(name, count + 1);
    return `${name}#${count}`;
  });
}

type Origins = Map<string, Key['by']>;

/** Whose keys are now, by the names that they had: those that a run left, found again by time among those that it leaves now. */
function noteOrigins(origins: Map<ChannelId, Origins>, step: OldStep, met: Layer): void {
  for (const { channel, after } of step.tracks) {
    const now = new Map((met.tracks[channel] ?? []).map((key) => [key.at, key]));
    const names = oldNames(after);
    origins.set(channel, new Map(after.map(({ at }, i) => [names[i], now.get(at)?.by])));
  }
}

/** A layer with the keys of runs under the names that they have now; one that has none is a hand key. */
function withOrigins(layer: Layer, origins: ReadonlyMap<ChannelId, Origins>): Layer {
  const tracks = Object.fromEntries(
    tracksOf(layer).map(([channel, keys]) => {
      const known = origins.get(channel);
      const names = oldNames(keys);
      const taken = new Set<string>();
      const renamed = keys.map((key, i) => {
        const { by: _old, ...own } = key;
        const by = known?.get(names[i]);
        const name = by && `${by.run}/${by.slot}`;
        if (!by || !name || taken.has(name)) return own;
        taken.add(name);
        return { ...own, by };
      });
      return [channel, renamed];
    }),
  );
  return { ...layer, tracks };
}

/** A layer as it is kept now, and what each run made on it. */
interface UpgradedLayer {
  readonly layer: Layer;
  readonly made: ReadonlyMap<string, LayerMade>;
  readonly patches: ReadonlyMap<string, LayerPatch>;
}

function upgradeLayer(standing: Layer, runs: readonly OldRun[], folding: Folding): UpgradedLayer {
  const own = runs.flatMap((run) => {
    const step = run.steps.get(standing.id);
    return step ? [{ run, step }] : [];
  });
  const active = own.filter(({ run }) => run.head.off !== true);
  const states = [standing];
  for (const { step } of [...active].reverse()) states.unshift(takeBack(states[0], step));
  const base = baseLayer(unnamed(states[0]), {});
  const touched = nothingTouched();
  const [made, patches] = [new Map<string, LayerMade>(), new Map<string, LayerPatch>()];
  const origins = new Map<ChannelId, Origins>();
  for (const { run, step } of own) {
    if (run.head.off === true) made.set(run.head.id, madeBefore(run, step, base));
  }
  let state = base;
  active.forEach(({ run, step }, i) => {
    const { id } = run.head;
    const own = madeBefore(run, step, state);
    const record: RunRecord = { ...run.head, layers: [standing.id], made: packMade([own]) };
    const { met } = layOver(state, { run: record, made: own, patch: undefined }, folding);
    noteOrigins(origins, step, met);
    const after = withOrigins(states[i + 1], origins);
    const patch = patchBetween(met, after, { run: id, stored: undefined, isAlive: folding.isAlive });
    const level = {
      entry: { run: record, made: own, patch },
      before: state,
      met,
      after: applyPatch(met, patch, folding.isAlive),
    };
    noteTouched(touched, level);
    made.set(id, own);
    if (patch) patches.set(id, patch);
    state = level.after;
  });
  const { base: _none, ...plain } = unnamed(state);
  const kept = active.length > 0 ? baseOf(base, touched) : undefined;
  return { layer: kept ? { ...plain, base: kept } : plain, made, patches };
}

/** Layers and runs of a scene of the first format as they are kept now. */
export function upgradeRuns(
  scene: Pick<Scene, 'layers'> & Partial<Scene>,
  runs: readonly unknown[],
): Pick<Scene, 'layers' | 'runs'> {
  const old = runs.flatMap((run) => readRun(run) ?? []);
  const heads = old.map(({ head }): RunRecord => ({ ...head, layers: [], made: {} }));
  const folding = createFolding({ ...(scene as Scene), runs: heads }, heads);
  const upgraded = scene.layers.map((layer) => upgradeLayer(layer, old, folding));
  const byLayer = new Map(upgraded.map((one) => [one.layer.id, one]));
  const records = old.map(({ head, steps }): RunRecord => {
    const made = [...steps.keys()].flatMap((layer) => byLayer.get(layer)?.made.get(head.id) ?? []);
    const patches = made.flatMap(({ layer }) => byLayer.get(layer)?.patches.get(head.id) ?? []);
    return {
      ...head,
      layers: made.map(({ layer }) => layer),
      made: packMade(made),
      ...(patches.length > 0 ? { patches } : {}),
    };
  });
  return { layers: upgraded.map(({ layer }) => layer), runs: records };
}

const oldSceneSchema = z.looseObject({
  format: z.literal(FIRST_FORMAT),
  layers: z.array(layerSchema),
  runs: z.array(z.unknown()),
  rate: z.object({ num: z.number(), den: z.number() }),
});

/**
 * A scene from a file in the present format: one of the first format is brought over, with its runs, its hand edits and
 * every key where it was. Anything else comes back as it is, for the schema to say what is wrong with it.
 */
export function upgradeScene(data: unknown): unknown {
  const read = oldSceneSchema.safeParse(data);
  if (!read.success) return data;
  const { runs, ...scene } = read.data;
  return { ...scene, format: SCENE_FORMAT, ...upgradeRuns(scene as unknown as Scene, runs) };
}
