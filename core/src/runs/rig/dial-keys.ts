import { perUnit, type ChannelId } from '../../basics/channel';
import { frameTicks, MOST_TICKS, TICKS_PER_SECOND, type Rate } from '../../basics/time';
import type { Parameter } from '../../formulas/preset';
import { rigIn } from '../../formulas/rig';
import type { Edit } from '../../scene/edit';
import type { Key, Layer, Track } from '../../scene/layer';
import type { DialSetting, RigRecipe } from '../../scene/recipe';
import type { RunRecord, Scene } from '../../scene/scene';
import { dialText } from './trial';

/** The channel in which the keys of a dial stand in the layer that is made of it: one without limits, of the dial's unit. */
export function dialChannel({ kind }: Pick<Parameter, 'kind'>): ChannelId {
  switch (kind) {
    case 'percent':
      return 'path.distance';
    case 'length':
      return 'letterSpacing';
    case 'angle':
      return 'colour.hue';
    default:
      return 'words.number';
  }
}

/** A dial of a run that has keys. */
export interface KeyedDial {
  readonly run: RunRecord;
  readonly dial: Parameter;
  /** Its keys as those of a layer of its own, so that all that is done by hand with keys is done with these, too. */
  readonly layer: Layer;
}

const known = new WeakMap<Track, Layer>();

/** No layer of a scene has a space in its id. */
const idOf = (run: string, dial: string): string => `${run} ${dial}`;

function layerOf(run: RunRecord, dial: Parameter, keys: Track): Layer {
  const before = known.get(keys);
  if (before?.id === idOf(run.id, dial.name)) return before;
  const made: Layer = {
    id: idOf(run.id, dial.name),
    name: dial.label,
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: Math.min(0, keys[0].at), out: MOST_TICKS },
    rest: {},
    tracks: { [dialChannel(dial)]: [...keys] },
    look: {},
    source: { type: 'none' },
    data: {},
  };
  known.set(keys, made);
  return made;
}

/** The dials of runs of rigs that have keys, in the order of the runs and of the dials of each. */
export function keyedDials(runs: Scene['runs']): KeyedDial[] {
  return runs.flatMap((run) => {
    const { recipe, rig } = run;
    if (recipe.operation !== 'rig' || !rig) return [];
    return (rigIn(rig.body)?.dials ?? []).flatMap((dial): KeyedDial[] => {
      const setting = recipe.parameters[dial.name];
      return setting?.by === 'keys' ? [{ run, dial, layer: layerOf(run, dial, setting.keys) }] : [];
    });
  });
}

/** Whether an id is that of a layer which is made of a dial. */
export function isDialLayer(id: string): boolean {
  return id.includes(' ');
}

const scenes = new WeakMap<Scene, Scene>();

/** A scene with a layer more for each dial that has keys. It is for what is done by hand with keys, and never stored. */
export function withDialLayers(scene: Scene): Scene {
  const before = scenes.get(scene);
  if (before) return before;
  const dials = keyedDials(scene.runs);
  const made = dials.length === 0 ? scene : { ...scene, layers: [...scene.layers, ...dials.map(({ layer }) => layer)] };
  scenes.set(scene, made);
  return made;
}

/** How many of what a person types make one in the unit that keys of a dial are kept in; times are typed as frames. */
export function perDialUnit(dial: Pick<Parameter, 'kind'>, rate: Rate): number {
  return dial.kind === 'time' ? TICKS_PER_SECOND / frameTicks(rate) : perUnit(dialChannel(dial));
}

/** A dial with other keys; without any it keeps the value of the first that it had. */
function settingOf(dial: Parameter, before: Track, keys: readonly Key[], rate: Rate): DialSetting {
  return keys.length > 0
    ? { by: 'keys', keys: keys.map(({ at, value, ease }) => ({ at, value, ease })) }
    : { by: 'fixed', value: dialText(dial, before[0].value, rate) };
}

/** A run whose dials are to be set otherwise. */
export interface DialsTurned {
  readonly run: RunRecord;
  readonly recipe: RigRecipe;
}

/** Edits of a scene with layers made of dials, taken apart: those of layers, and the runs whose dials they change. */
export function takeDialsApart(
  scene: Scene,
  edits: readonly Edit[],
): { readonly edits: readonly Edit[]; readonly turned: readonly DialsTurned[] } {
  const dials = new Map(keyedDials(scene.runs).map((one) => [one.layer.id, one]));
  const turned = new Map<string, DialsTurned>();
  const own = edits.filter((edit) => {
    if (!('layer' in edit) || typeof edit.layer !== 'string') return true;
    const found = dials.get(edit.layer);
    if (!found) return true;
    const { run, dial, layer } = found;
    const recipe = turned.get(run.id)?.recipe ?? (run.recipe as RigRecipe);
    if (edit.type !== 'set-track') return false;
    const setting = settingOf(dial, layer.tracks[dialChannel(dial)] as Track, edit.keys ?? [], scene.rate);
    turned.set(run.id, { run, recipe: { ...recipe, parameters: { ...recipe.parameters, [dial.name]: setting } } });
    return false;
  });
  return { edits: own, turned: [...turned.values()] };
}
