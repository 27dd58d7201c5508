import type { ChannelId } from '../../basics/channel';
import { rampColour } from '../../basics/colour';
import { frameTicks, type Ticks } from '../../basics/time';
import type { Kept } from '../../library/library';
import { tracksOf, withLookParts, type Key, type Layer, type LayerSpan, type LookParts } from '../../scene/layer';
import { createRecipe, type CopyPresets, type MultiplyRecipe } from '../../scene/recipe';
import { layerMade, type LayerMade, type RunRecord, type Scene } from '../../scene/scene';
import { severityOf, type Finding } from '../finding';
import {
  refuse,
  type AddedLayer,
  type Brought,
  type Operated,
  type Reads,
  type Replaying,
  type RunContext,
  type Surroundings,
} from '../operation';
import { createStaging, inOrder, placesOf, problemsOf, readTime } from '../order';
import { planPreset } from '../run';
import { copyId, copyOf, groupId, groupOfCopies, sourcesOf, type Source } from './copies';
import { createDraw, weighted, type Draw } from './draw';
import { livesOf } from './lives';
import { placesOfCopies } from './places';
import { keysOfWay, restOfWay, wayOf } from './ways';

const MOST_LAYERS = 10_000;

/** One copy: its layers, and what the run makes on the first of them. */
interface Copy {
  readonly copy: number;
  readonly layers: readonly Layer[];
  readonly look: LookParts;
  readonly rest: readonly (readonly [ChannelId, number])[];
  readonly span: LayerSpan;
  readonly tracks: Layer['tracks'];
}

function lookOf(
  { colours }: MultiplyRecipe,
  { look, source }: Layer,
  copy: number,
  count: number,
  draw: Draw,
): LookParts {
  if (!colours) return {};
  const { colours: list, how, outlined } = colours;
  const texts = list.map(({ colour }) => colour);
  const colour =
    how === 'ramp'
      ? rampColour(texts, count === 1 ? 0 : copy / (count - 1))
      : texts[
          how === 'turns'
            ? copy % texts.length
            : weighted(
                list.map(({ weight }) => weight),
                draw(copy, 'colour'),
              )
        ];
  const isOutline = source.type !== 'text' && source.type !== 'picture' && draw(copy, 'outline') < outlined;
  if (isOutline) return { fill: null, stroke: colour };
  return look.fill === undefined && look.stroke !== undefined ? { stroke: colour } : { fill: colour };
}

/** Width of an outline where the layer has none, px. */
const OUTLINE = 4;

function createCopies(
  recipe: MultiplyRecipe,
  sources: readonly Source[],
  spans: readonly LayerSpan[],
  scene: Scene,
  runId: string,
  draw: Draw,
): Copy[] {
  const { copies: count, begin, end, ease, seed, seeds } = recipe;
  const sourceOf = (copy: number): Source =>
    sources[recipe.sources === 'turns' ? copy % sources.length : Math.floor(draw(copy, 'source') * sources.length)];
  const placing = { frame: scene, count, draw, seed: seeds?.place ?? seed };
  const ownOf = (copy: number): Source['at'] => sourceOf(copy).at;
  const begins = placesOfCopies(begin, ownOf, { ...placing, draws: ['x', 'y'] });
  // From where it began a direction leads on; whatever else is a place of the frame.
  const fromOf = (copy: number): Source['at'] => (end.by === 'direction' ? begins[copy] : ownOf(copy));
  const ends =
    end.by === 'stays'
      ? begins
      : placesOfCopies(end, fromOf, { ...placing, seed: placing.seed + 1, draws: ['endX', 'endY'] });
  return spans.map((span, copy): Copy => {
    const layers = copyOf(runId, copy, sourceOf(copy), span);
    const [base] = layers;
    const way = wayOf(recipe, base, begins[copy], ends[copy], copy, draw);
    const look = lookOf(recipe, base, copy, count, draw);
    const needsWidth = look.stroke !== undefined && !base.rest['stroke.width'];
    return {
      copy,
      layers,
      look,
      span,
      rest: [...restOfWay(way, base), ...(needsWidth ? [['stroke.width', OUTLINE] as const] : [])],
      tracks: Object.fromEntries(keysOfWay(way, span, ease, runId)),
    };
  });
}

/** A copy as it stands with what the run makes. */
function standing({ layers: [base], look, rest, span, tracks }: Copy): Layer {
  return {
    ...base,
    span,
    look: withLookParts(base.look, look),
    rest: { ...base.rest, ...Object.fromEntries(rest) },
    tracks,
  };
}

/** Keys of a preset, under slots that are never those of another preset or of the way. */
function marked(tracks: Layer['tracks'], run: string, mark: string): Layer['tracks'] {
  return Object.fromEntries(
    Object.entries(tracks).map(([channel, keys]) => {
      const seen = new Set<string>();
      const own = keys.map((key): Key => {
        const slot = key.by?.slot ?? 'key';
        const known = /^(way|in|out)\//.test(slot) ? slot : `${mark}/${slot}`;
        let name = known;
        for (let n = 2; seen.has(name); n++) name = `${known}~${n}`;
        seen.add(name);
        return { ...key, by: { run, slot: name } };
      });
      return [channel, own];
    }),
  );
}

interface Dressed {
  readonly copies: readonly Copy[];
  readonly findings: readonly Finding[];
  /** What was taken from the library. */
  readonly uses: readonly Kept[];
}

/** What the run that is planned again kept of a preset, as presets are planned with it. */
function knownOf(id: string, known: RunContext['known']): RunContext['known'] {
  const kept = known?.uses?.find((one) => one.id === id && one.kind === 'preset');
  if (!kept?.body) return undefined;
  return {
    preset: { id, revision: kept.revision, name: id, body: kept.body },
    ...(known?.uses ? { uses: known.uses } : {}),
  };
}

/** Brings copies in, or sends them out, each by one of some presets, on top of their ways. */
function dress(
  surroundings: Surroundings,
  copies: readonly Copy[],
  { presets, length }: CopyPresets,
  side: 'in' | 'out',
  draw: Draw,
): Dressed {
  const read = readTime(length, surroundings.scene.rate, side === 'in' ? 'In' : 'Out');
  const problems = problemsOf([read]);
  if (problems.length > 0) return { copies, findings: problems, uses: [] };
  const chosen = copies.map(({ copy }) =>
    weighted(
      presets.map(({ weight }) => weight),
      draw(copy, side),
    ),
  );
  const scene: Scene = { ...surroundings.scene, layers: copies.map(standing), runs: [] };
  const tracks = new Map<number, Layer['tracks']>();
  const findings: Finding[] = [];
  const uses: Kept[] = [];
  presets.forEach(({ id, revision }, place) => {
    const indices = copies.flatMap((_, i) => (chosen[i] === place ? [i] : []));
    if (indices.length === 0) return;
    const operation = side === 'in' ? 'bring-in' : 'send-out';
    const pick = { by: 'layers', layers: indices.map((i) => scene.layers[i].id) } as const;
    const recipe = {
      ...createRecipe(operation, id, pick),
      preset: { id, ...(revision === undefined ? {} : { revision }) },
      existing: 'add' as const,
      length: { by: 'fixed' as const, length },
    };
    const { known, ...others } = surroundings.context;
    const then = knownOf(id, known);
    const context: RunContext = { ...others, ...(then ? { known: then } : {}) };
    const operated = planPreset({ ...surroundings, scene, context, indices }, recipe);
    const { preset } = operated;
    if (preset) uses.push({ id, revision: preset.revision, kind: 'preset', body: preset.body });
    uses.push(...(operated.uses ?? []).filter(({ kind }) => kind !== 'preset'));
    findings.push(...operated.findings.filter((finding) => severityOf(finding) === 'error'));
    const places = new Map(scene.layers.map((layer, i) => [layer.id, i]));
    for (const { after } of operated.layers)
      tracks.set(places.get(after.id) ?? -1, marked(after.tracks, context.runId, side));
  });
  return { copies: copies.map((copy, i) => ({ ...copy, tracks: tracks.get(i) ?? copy.tracks })), findings, uses };
}

function dressed(surroundings: Surroundings, copies: readonly Copy[], recipe: MultiplyRecipe, draw: Draw): Dressed {
  const inside: Dressed = recipe.in
    ? dress(surroundings, copies, recipe.in, 'in', draw)
    : { copies, findings: [], uses: [] };
  if (!recipe.out || inside.findings.length > 0) return inside;
  const both = dress(surroundings, inside.copies, recipe.out, 'out', draw);
  const uses = [...inside.uses, ...both.uses];
  return { ...both, uses: uses.filter(({ id }, i) => uses.findIndex((one) => one.id === id) === i) };
}

/** Notes on lives that are too short for what is to happen in them. */
function shortLives({ in: entrance, out, life }: MultiplyRecipe, scene: Scene, copies: readonly Copy[]): Finding[] {
  if (life.by === 'rest' || (!entrance && !out)) return [];
  const lengthOf = (presets: CopyPresets | undefined): Ticks =>
    presets ? readTime(presets.length, scene.rate, '').ticks : 0;
  const needed = lengthOf(entrance) + lengthOf(out);
  const short = copies.filter(({ span }) => span.out - span.in < needed - frameTicks(scene.rate) / 2);
  if (short.length === 0) return [];
  return [{ code: 'short-for-both', layers: short.map(({ layers }) => layers[0].id), at: short[0].span.in }];
}

/** Works out the copies of layers: those that are new, those that go, and what each has. */
export function planMultiply(surroundings: Surroundings, recipe: MultiplyRecipe): Operated {
  const { scene, context } = surroundings;
  const { runId } = context;
  const known = new Set([groupId(runId), ...ownedBy(scene, runId)]);
  const indices = surroundings.indices.filter((index) => !known.has(scene.layers[index].id));
  const staging = createStaging(scene);
  const ordered = inOrder(indices, placesOf(staging, indices, recipe.order));
  const sources = sourcesOf(scene, ordered, staging);
  if (sources.length === 0) return refuse([{ code: 'nothing-picked' }]);
  const draw = createDraw(recipe);
  const lives = livesOf(recipe, scene, draw);
  if (!lives.ok) return refuse(lives.findings);
  const parts = sources.reduce((most, source) => Math.max(most, source.parts.length), 0);
  if (parts * recipe.copies > MOST_LAYERS)
    return refuse([{ code: 'too-many-copies', count: parts * recipe.copies, most: MOST_LAYERS }]);
  const plain = createCopies(recipe, sources, lives.spans, scene, runId, draw);
  const { copies, findings, uses } = dressed(surroundings, plain, recipe, draw);
  if (findings.length > 0) return refuse(findings);
  const { added, removed } = changesOf(scene, runId, copies, nameOf(sources), lives.window);
  return {
    layers: copies.map((copy) => ({
      layer: copyId(runId, copy.copy),
      place: copy.copy,
      starts: copy.span.in,
      lasts: copy.span.out - copy.span.in,
      moments: [],
      values: {},
      after: standing(copy),
    })),
    made: () =>
      copies.map(({ layers: [{ id }], span, rest, look, tracks }) =>
        layerMade(id, { span, rest, look, start: span.in, tracks: tracksOf({ tracks } as Layer) }),
      ),
    ...(uses.length > 0 ? { uses: [...uses] } : {}),
    findings: shortLives(recipe, scene, copies),
    counts: {
      layers: copies.length,
      added: copies.reduce(
        (sum, { tracks }) => sum + Object.values(tracks).reduce((all, keys) => all + keys.length, 0),
        0,
      ),
      replaced: 0,
      removed: 0,
    },
    added,
    removed,
  };
}

function nameOf(sources: readonly Source[]): string {
  const [{ layer }] = sources;
  return sources.length === 1 ? `Copies of ${layer.name}` : `Copies of ${sources.length} layers`;
}

/** Ids of all layers that a run of multiplying has in a scene, without its group. */
function ownedBy({ layers }: Pick<Scene, 'layers'>, run: string): string[] {
  const group = groupId(run);
  const inside = new Set([group]);
  for (let before = -1; before !== inside.size;) {
    before = inside.size;
    for (const { id, parent, copy } of layers) if (copy && parent !== null && inside.has(parent)) inside.add(id);
  }
  inside.delete(group);
  return [...inside];
}

/** Layers that are to come and to go: a copy that is there as one of the same layer stays with all that was done to it. */
function changesOf(
  scene: Scene,
  run: string,
  copies: readonly Copy[],
  name: string,
  window: LayerSpan,
): { readonly added: readonly AddedLayer[]; readonly removed: readonly string[] } {
  const byId = new Map(scene.layers.map((layer) => [layer.id, layer]));
  const isThere = ({ layers: [top] }: Copy): boolean => byId.get(top.id)?.copy?.of === top.copy?.of && byId.has(top.id);
  const fresh = copies.filter((copy) => !isThere(copy));
  const kept = new Set(copies.filter(isThere).map(({ layers: [{ id }] }) => id));
  const owned = ownedBy(scene, run);
  const parents = new Map(scene.layers.map(({ id, parent }) => [id, parent]));
  const isKept = (id: string): boolean => {
    for (let up: string | null = id; up !== null; up = parents.get(up) ?? null) if (kept.has(up)) return true;
    return false;
  };
  const group = byId.has(groupId(run)) ? [] : [groupOfCopies(run, name, scene, window)];
  return {
    added: [...group, ...fresh.flatMap(({ layers }) => layers)].map((layer) => ({ layer })),
    removed: owned.filter((id) => !isKept(id)),
  };
}

/** Layers that go with a run of multiplying: its copies, and its group where nothing else is in it. */
export function layersOfCopies(scene: Pick<Scene, 'layers'>, { id }: Pick<RunRecord, 'id'>): string[] {
  const owned = new Set(ownedBy(scene, id));
  const group = groupId(id);
  const isShared = scene.layers.some((layer) => layer.parent === group && !owned.has(layer.id));
  const all = scene.layers.map((layer) => layer.id).filter((one) => owned.has(one) || (one === group && !isShared));
  // Those on top last: a group can only go when it is empty.
  return all.reverse().sort((a, b) => Number(a === group) - Number(b === group));
}

/** Makes a copy once more over what it is without the run. */
export function replayMultiply(_recipe: MultiplyRecipe, made: LayerMade, state: Layer, _with: Replaying): Layer {
  return {
    ...state,
    span: made.span ?? state.span,
    rest: { ...state.rest, ...Object.fromEntries(made.rest) },
    look: withLookParts(state.look, made.look),
    tracks: { ...state.tracks, ...Object.fromEntries(made.tracks.map(([channel, keys]) => [channel, [...keys]])) },
  };
}

/** Copies are as they were made until the run is changed: what they are copies of may change or go. */
export function multiplyReads(): Reads {
  return { spans: false, rest: false, keys: false, sweeps: false };
}

/** What a run of copies brought: its copies, and the group that they are in while it is there. */
export function broughtCopies(scene: Pick<Scene, 'layers'>, run: Pick<RunRecord, 'id'>): Brought {
  const group = groupId(run.id);
  return { layers: layersOfCopies(scene, run), group: scene.layers.some(({ id }) => id === group) ? group : null };
}
