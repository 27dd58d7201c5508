import { compileRig, dialsPreset, rigChannels, rigIn, type Rig } from '../../formulas/rig';
import type { CompiledPreset } from '../../formulas/preset';
import type { ChannelId } from '../../basics/channel';
import type { Easing } from '../../basics/easing';
import { keepUsed, shelfAsUsed, type RigItem, type Shelf } from '../../library/library';
import type { RigRecipe } from '../../scene/recipe';
import { compileRigs, trackSpeed } from '../../scene/sample';
import { layerMade, packColumn, type LayerMade, type RunRecord, type UsedRig } from '../../scene/scene';
import type { Key, Layer } from '../../scene/layer';
import { severityOf, type Finding } from '../finding';
import { findUntouched } from '../check';
import { createStaging, maximum, placesOf, problemsOf, readTime, type Staging } from '../order';
import { refuse, type LayerPlan, type Operated, type Reads, type RunContext, type Surroundings } from '../operation';
import { compileVariation, fillColumns, limitedFindings, readOverrides, type Filled } from '../run';

/** A rig as a recipe asks for it. */
interface FoundRig {
  readonly used: Pick<UsedRig, 'id' | 'revision' | 'name'>;
  readonly body: Rig;
  readonly state: RigItem['state'];
  readonly shelf: Shelf;
  readonly kept: RunRecord['uses'] | null;
}

function knownRig({ known }: RunContext, shelf: Shelf, { id, revision }: RigRecipe['rig']): FoundRig | null {
  const used = known?.rig;
  if (used?.id !== id || (revision !== undefined && used.revision !== revision)) return null;
  const body = rigIn(used.body);
  if (!body) return null;
  const { name, revision: then } = used;
  const uses = known?.uses;
  return {
    used: { id, revision: then, name },
    body,
    state: 'published',
    shelf: shelfAsUsed(shelf, uses),
    kept: uses ?? [],
  };
}

/** A rig from the library; or as the run that is planned again used it. */
function findRig({ shelf, context }: Surroundings, { rig }: RigRecipe): FoundRig | Finding {
  const item = shelf.items.get(rig.id);
  const found = item?.kind === 'rig' ? item : null;
  const known = rig.revision !== undefined || !found ? knownRig(context, shelf, rig) : null;
  if (known) return known;
  if (!found) return { code: 'unknown-rig', id: rig.id };
  const { id, revision, name, body, state } = found;
  if (rig.revision !== undefined && rig.revision !== revision) {
    return { code: 'revision-missing', preset: name, revision: rig.revision };
  }
  return { used: { id, revision, name }, body, state, shelf, kept: null };
}

const dialPresets = new WeakMap<Rig, ReturnType<typeof dialsPreset>>();

function dialsOf(rig: Rig): ReturnType<typeof dialsPreset> {
  const known = dialPresets.get(rig) ?? dialsPreset(rig);
  dialPresets.set(rig, known);
  return known;
}

interface Dials {
  readonly filled: Filled;
  readonly problems: readonly Finding[];
}

/** Works out the dials of all layers, as parameters of a preset are. */
function fillDials(
  { scene }: Surroundings,
  recipe: RigRecipe,
  compiled: CompiledPreset,
  name: string,
  run: { readonly staging: Staging; readonly indices: readonly number[]; readonly places: readonly number[] },
): Dials {
  const { overrides, problems } = readOverrides(recipe, compiled, scene);
  const variations = compiled.parameters.map((entry) => {
    const setting = recipe.parameters[entry.parameter.name];
    return compileVariation(entry, setting?.by === 'keys' ? undefined : setting, compiled.lookup);
  });
  const known = new Set(compiled.parameters.map(({ parameter }) => parameter.name));
  const unknown = Object.keys(recipe.parameters).filter((dial) => !known.has(dial));
  const sources = variations.map(({ source }) => source);
  const filled = fillColumns({ ...run, recipe, compiled, sources, overrides, lastPlace: maximum(run.places) });
  return {
    filled,
    problems: [
      ...problems,
      ...variations.flatMap(({ problem }) => (problem ? [problem] : [])),
      ...unknown.map((dial): Finding => ({ code: 'unknown-parameter', preset: name, name: dial })),
    ],
  };
}

/** The dials as the inputs of the rig's formulas; what is keyed counts unless a layer has broken away. Curves are kept once each. */
function inputsOf(
  recipe: RigRecipe,
  { scope, curves: known }: CompiledPreset,
  { columns }: Filled,
): Pick<UsedRig, 'inputs' | 'curves'> {
  const { values, stride } = columns;
  const curves: Easing[] = [];
  const curveAt = (place: number): number => {
    const easing = known.easings[place];
    if (!curves.includes(easing)) curves.push(easing);
    return curves.indexOf(easing);
  };
  const inputs = [...scope.places].flatMap(([name, place]): UsedRig['inputs'] => {
    if (!name.startsWith('@')) return [];
    const setting = recipe.parameters[name.slice(1)];
    if (setting?.by === 'keys') return [{ name, keys: setting.keys }];
    const column = [...values.subarray(place * stride, (place + 1) * stride)];
    const isCurve = scope.parameters.get(name.slice(1))?.kind === 'curve';
    return [{ name, values: packColumn(isCurve ? column.map(curveAt) : column) }];
  });
  return { inputs, ...(curves.length > 0 ? { curves } : {}) };
}

/** Slower than this share of its mean speed, a key is reached without any to be seen. */
const SLOWEST_ARRIVAL = 0.01;
const JUST_BEFORE = 1e-3;

function arrivesWithSpeed(from: Key, to: Key): boolean {
  const mean = Math.abs(to.value - from.value) / (to.at - from.at);
  const speed = Math.abs(trackSpeed([from, to], to.at - JUST_BEFORE));
  return speed > Math.max(mean * SLOWEST_ARRIVAL, Number.EPSILON);
}

/** What a layer's keys lack for a rig that carries a speed on; null where they lack nothing. */
function lacks(layer: Layer, channels: readonly ChannelId[]): 'no-keys' | 'no-speed' | null {
  const tracks = channels.flatMap((channel) => {
    const keys = layer.tracks[channel];
    return keys ? [keys] : [];
  });
  if (tracks.every((keys) => keys.length < 2)) return 'no-keys';
  const arrives = tracks.some((keys) => keys.some((key, i) => i > 0 && arrivesWithSpeed(keys[i - 1], key)));
  return arrives ? null : 'no-speed';
}

/** Layers on which a rig that reads the speed of arrival has nothing to do. */
function findIdle(rig: Rig, driven: readonly ChannelId[], layers: readonly Layer[]): Finding[] {
  const reading = compileRig(rig)
    .formulas.filter(({ channel, formula }) => driven.includes(channel) && formula.reads.has('arrival'))
    .map(({ channel }) => channel);
  if (reading.length === 0) return [];
  return (['no-keys', 'no-speed'] as const).flatMap((why): Finding[] => {
    const idle = layers.filter((layer) => lacks(layer, reading) === why).map(({ id }) => id);
    return idle.length > 0 ? [{ code: 'rig-idle', layers: idle, why, channels: reading }] : [];
  });
}

/** Circles among what the scene's rigs and this one drive. */
function findCircles({ scene, context }: Surroundings, recipe: RigRecipe, rig: UsedRig, layers: string[]): Finding[] {
  // Without a channel of another layer, or another of one's own, there is nothing to wait for.
  const { formulas } = compileRig(rig.body as unknown as Rig);
  if (
    formulas.every(({ sources, formula }) =>
      sources.every(({ role, name }) => role === null || !formula.reads.has(name)),
    )
  )
    return [];
  const run: RunRecord = { id: context.runId, sentence: '', recipe, rig, by: '', when: context.when, layers, made: {} };
  const rigs = compileRigs({ ...scene, runs: [...scene.runs, run] });
  return (rigs?.circles ?? []).map(({ cells }) => ({
    code: 'rig-circle',
    layers: [...new Set(cells.map(({ layer }) => layer))],
    channels: [...new Set(cells.map(({ channel }) => channel))],
  }));
}

/** Works out a recipe that rigs layers: it makes no keys, so that layers stay as they are. */
export function planRig(surroundings: Surroundings, recipe: RigRecipe): Operated {
  const { scene, indices } = surroundings;
  const found = findRig(surroundings, recipe);
  if ('code' in found) return refuse([found]);
  const { used, body, state, shelf, kept } = found;
  const [broken] = compileRig(body).problems;
  if (broken) return refuse([{ code: 'rig-broken', rig: used.name, message: broken.message }]);
  const result = surroundings.compile(dialsOf(body), shelf);
  if (!result.ok) return refuse([{ code: 'rig-broken', rig: used.name, message: result.problems[0].message }]);
  const staging = createStaging(scene);
  const places = placesOf(staging, indices, recipe.order);
  const later = readTime(recipe.later, scene.rate, 'Later by');
  const { filled, problems } = fillDials(surroundings, recipe, result.compiled, used.name, {
    staging,
    indices,
    places,
  });
  const stops = [...problemsOf([later]), ...problems].filter((problem) => severityOf(problem) === 'error');
  if (stops.length > 0) return refuse(stops);
  const all = rigChannels(body);
  const channels = all.filter((channel) => recipe.channels?.includes(channel) ?? true);
  if (channels.length === 0) {
    const message = `It drives ${all.join(', ')}. Choose some of these.`;
    return refuse([{ code: 'bad-field', field: 'Channels', text: (recipe.channels ?? []).join(', '), message }]);
  }
  const layers = indices.map((index) => scene.layers[index]);
  const rig: UsedRig = {
    ...used,
    body: body as unknown as UsedRig['body'],
    channels,
    ...(recipe.roles ? { roles: recipe.roles } : {}),
    later: later.ticks,
    places: packColumn(places),
    ...inputsOf(recipe, result.compiled, filled),
  };
  const ids = layers.map(({ id }) => id);
  return {
    layers: layers.map((layer, row): LayerPlan => {
      const starts = layer.span.in + places[row] * later.ticks;
      return {
        layer: layer.id,
        place: places[row],
        starts,
        lasts: Math.max(0, layer.span.out - starts),
        moments: [],
        values: filled.values[row],
        after: layer,
      };
    }),
    made: () => ids.map((id) => layerMade(id, {})),
    findings: [
      ...(state === 'draft' || state === 'in review' ? [{ code: 'draft-preset' as const, preset: used.name }] : []),
      ...limitedFindings(filled.limited, (row) => layers[row].id),
      ...findIdle(body, channels, layers),
      ...findUntouched(channels, layers),
      ...findCircles(surroundings, recipe, rig, ids),
    ],
    counts: { layers: layers.length, added: 0, replaced: 0, removed: 0 },
    rig,
    uses: kept ? [...kept] : keepUsed(shelf, result.compiled.uses),
  };
}

/** A rig makes no keys: what is there stays. */
export function replayRig(_recipe: RigRecipe, _made: LayerMade, state: Layer): Layer {
  return state;
}

/** A rig looks at its layers as they are at each moment; its plan depends on nothing but where the layers of its dials rest. */
export function rigReads(_recipe: RigRecipe, { rig }: RunRecord): Reads {
  const rest = rig ? (rigIn(rig.body)?.dials.some(({ kind }) => kind === 'layer') ?? false) : false;
  return { spans: false, rest, keys: false, sweeps: false };
}
