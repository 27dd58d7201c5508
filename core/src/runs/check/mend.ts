import { LINEAR } from '../../basics/easing';
import { layerEdits, type Edit } from '../../scene/edit';
import { layersOfFinding, type Finding } from '../finding';
import { createStaging, maximum, placesOf } from '../order';
import { orderWords } from '../sentence';
import { isHoldingForNext } from './keys';
import { renewCurve } from './linked';
import type { Recipe } from '../../scene/recipe';
import { isPresetRecipe, withRevisions } from '../../scene/recipe';
import { tracksOf, type Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { formatFrames, formatShort, frameTicks, MOST_TICKS, toFrameGrid, type Ticks } from '../../basics/time';

/** A certain way to mend what was found: another recipe for the dry run, or edits of the scene. */
export type Mend =
  { readonly label: string; readonly recipe: Recipe } | { readonly label: string; readonly edits: readonly Edit[] };

function upToFrame(ticks: Ticks, scene: Scene): Ticks {
  const frame = frameTicks(scene.rate);
  return Math.ceil(ticks / frame) * frame;
}

/** First and last key of a layer, and its span. */
function reach(layer: Layer): { from: Ticks; to: Ticks } {
  let { in: from, out: to } = layer.span;
  for (const [, keys] of tracksOf(layer)) {
    from = Math.min(from, keys[0].at);
    to = Math.max(to, keys[keys.length - 1].at);
  }
  return { from, to };
}

function onGrid(layer: Layer, scene: Scene): Layer {
  const tracks = tracksOf(layer).map(([channel, keys]) => {
    const moved = keys.map((key, i) => {
      const isHolding = isHoldingForNext(keys, i);
      const at = toFrameGrid(isHolding ? keys[i + 1].at : key.at, scene.rate);
      return { ...key, at: isHolding ? at - 1 : at };
    });
    return [channel, moved.filter((key, i) => moved[i + 1]?.at !== key.at)];
  });
  return { ...layer, tracks: Object.fromEntries(tracks) };
}

/** Edits that give the picked layers of a drawn scene what they lack; `drawn` holds the dry run where there is one. */
function editLayers(standing: Scene, ids: readonly string[], drawn: Scene, change: (layer: Layer) => Layer): Edit[] {
  const wanted = new Set(ids);
  const shown = new Map(drawn.layers.map((layer) => [layer.id, layer]));
  return standing.layers
    .filter(({ id }) => wanted.has(id))
    .flatMap((layer) => {
      const { span } = change(shown.get(layer.id) ?? layer);
      return layerEdits(layer, { ...layer, span });
    });
}

/** The recipe that meets the nearest time that can be met. */
function nearest(recipe: Recipe, finding: Extract<Finding, { code: 'cannot-meet' }>, scene: Scene): Recipe | null {
  if (!isPresetRecipe(recipe)) return null;
  const at = formatShort(finding.nearest, scene.rate);
  if (finding.field === 'Window') return { ...recipe, length: { by: 'fit', window: at } };
  const finish = { by: 'finish', at } as const;
  if (recipe.start.by === 'finish') return { ...recipe, start: finish };
  if (recipe.spacing.by === 'finish') return { ...recipe, spacing: finish };
  return { ...recipe, length: finish };
}

/** The scene made long enough for what runs past its end. */
function lengthen(finding: Extract<Finding, { code: 'outside-scene' }>, standing: Scene, drawn: Scene): Mend[] {
  const wanted = new Set(finding.layers);
  const ends = drawn.layers.filter(({ id }) => wanted.has(id)).map((layer) => reach(layer).to);
  const length = upToFrame(
    ends.reduce((a, b) => Math.max(a, b), standing.length),
    standing,
  );
  if (length <= standing.length || length > MOST_TICKS) return [];
  const label = `Lengthen the scene by ${formatFrames(length - standing.length, standing.rate)}`;
  return [{ label, edits: [{ type: 'set-scene', fields: { length } }] }];
}

/** Only those layers that are over in time. */
function fewer(finding: Finding, recipe: Recipe, drawn: Scene, taking: readonly string[]): Mend[] {
  const late = new Set(layersOfFinding(finding));
  const layers = taking.filter((id) => !late.has(id) && drawn.layers.some((layer) => layer.id === id));
  if (layers.length === 0 || layers.length === taking.length) return [];
  return [{ label: `Take only the ${layers.length} that fit`, recipe: { ...recipe, pick: { by: 'layers', layers } } }];
}

/** Those past the end begin again with the first. */
function wrap(recipe: Recipe): Mend[] {
  if (!isPresetRecipe(recipe)) return [];
  const { spacing } = recipe;
  if ((spacing.by !== 'cues' && spacing.by !== 'rows') || spacing.wrap === true) return [];
  return [{ label: 'Begin again with the first', recipe: { ...recipe, spacing: { ...spacing, wrap: true } } }];
}

/** Layers whose last key on each channel is reached at an even speed, so that there is one to carry on. */
function evenArrival(finding: Extract<Finding, { code: 'rig-idle' }>, standing: Scene): Mend[] {
  const wanted = new Set(finding.layers);
  const edits = standing.layers
    .filter(({ id }) => wanted.has(id))
    .flatMap((layer) => {
      const tracks = { ...layer.tracks };
      for (const channel of finding.channels) {
        const keys = tracks[channel];
        if (keys && keys.length > 1) tracks[channel] = keys.with(-2, { ...keys[keys.length - 2], ease: LINEAR });
      }
      return layerEdits(layer, { ...layer, tracks });
    });
  return edits.length > 0 ? [{ label: 'Let them arrive at an even speed', edits }] : [];
}

/** Orders in which layers that share a place have different ones, the first that does. */
function otherOrder(finding: Extract<Finding, { code: 'one-place' }>, recipe: Recipe, standing: Scene): Mend[] {
  if (!('order' in recipe)) return [];
  const wanted = new Set(finding.layers);
  const indices = standing.layers.flatMap(({ id }, index) => (wanted.has(id) ? [index] : []));
  const order = (['across', 'down', 'layered'] as const)
    .map((by) => ({ by }))
    .find((one) => maximum(placesOf(createStaging(standing), indices, one)) > 0);
  return order ? [{ label: `Take them ${orderWords(order)}`, recipe: { ...recipe, order } }] : [];
}

function takesTurns(recipe: Recipe): boolean {
  if (recipe.operation === 'line-up') return recipe.way.by === 'rows';
  return isPresetRecipe(recipe) && (recipe.spacing.by === 'rows' || recipe.spacing.by === 'cues');
}

/** Layers that take part in a dry run, in their order. */
type Taking = readonly string[];

/**
 * The certain mends of a finding, the first the plainest; none where there is none. `recipe` is that of the dry run it
 * was found in and `taking` who takes part there, `drawn` the scene with the dry run in it, `standing` the scene as it stands.
 */
export function mendsOf(
  finding: Finding,
  recipe: Recipe | null,
  standing: Scene,
  drawn: Scene,
  taking: Taking = [],
): readonly Mend[] {
  switch (finding.code) {
    case 'cannot-meet': {
      const met = recipe && nearest(recipe, finding, standing);
      return met ? [{ label: `Take ${formatShort(finding.nearest, standing.rate)}`, recipe: met }] : [];
    }
    case 'twice':
      return recipe && isPresetRecipe(recipe) && recipe.operation === finding.operation
        ? [{ label: 'Take its place', recipe: { ...recipe, existing: 'take-place' } }]
        : [];
    case 'short-for-both':
      return recipe?.operation === 'line-up' ? [{ label: 'Shorten both', recipe: { ...recipe, squeeze: true } }] : [];
    case 'outside-scene': {
      const longer = finding.at < 0 ? [] : lengthen(finding, standing, drawn);
      if (!recipe || !takesTurns(recipe)) return longer;
      return [...longer, ...fewer(finding, recipe, drawn, taking), ...wrap(recipe)];
    }
    case 'cues-run-out':
      return recipe
        ? [
            ...fewer({ ...finding, code: 'left-alone', layers: taking.slice(finding.cues) }, recipe, drawn, taking),
            ...wrap(recipe),
          ]
        : [];
    case 'outside-layer':
      // Where layers end is what a line-up says: made longer, they would be shortened again.
      return recipe?.operation === 'line-up' ? [] : lengthenLayers(finding, standing, drawn);
    case 'one-place':
      return recipe ? otherOrder(finding, recipe, standing) : [];
    case 'rig-idle':
      return finding.why === 'no-speed' ? evenArrival(finding, standing) : [];
    case 'curve-waiting': {
      const edits = recipe ? [] : renewCurve(standing, finding);
      return edits.length > 0 ? [{ label: `Take revision ${finding.to}`, edits }] : [];
    }
    case 'off-grid': {
      if (recipe) return [];
      const wanted = new Set(finding.layers);
      const edits = standing.layers
        .filter(({ id }) => wanted.has(id))
        .flatMap((layer) => layerEdits(layer, onGrid(layer, standing)));
      return edits.length > 0 ? [{ label: 'Move to whole frames', edits }] : [];
    }
    case 'matte-gone': {
      const wanted = new Set(finding.layers);
      const edits = standing.layers.flatMap(({ id, look: { matte: _gone, ...look } }): Edit[] =>
        wanted.has(id) ? [{ type: 'set-layer', layer: id, fields: { look } }] : [],
      );
      return [{ label: 'Take the matte away', edits }];
    }
    case 'revision-missing':
      return recipe ? [{ label: 'Take the newest revision', recipe: withRevisions(recipe, []) }] : [];
    default:
      return [];
  }
}

function lengthenLayers(finding: Extract<Finding, { code: 'outside-layer' }>, standing: Scene, drawn: Scene): Mend[] {
  const wanted = new Set(finding.layers);
  if (drawn.layers.some((layer) => wanted.has(layer.id) && reach(layer).from < 0)) return [];
  const edits = editLayers(standing, finding.layers, drawn, (layer) => {
    const { from, to } = reach(layer);
    return { ...layer, span: { in: Math.max(0, from), out: upToFrame(to, standing) } };
  });
  const label = finding.layers.length === 1 ? 'Lengthen the layer' : 'Lengthen the layers';
  return edits.length > 0 ? [{ label, edits }] : [];
}
