import { layerEdits, type Edit } from '../edit';
import type { Finding } from '../finding';
import type { Recipe } from '../recipe';
import { isPresetRecipe } from '../recipe';
import { tracksOf, type Layer, type Scene } from '../scene';
import { formatFrames, formatShort, frameTicks, toFrameGrid, type Ticks } from '../time';

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
    const moved = keys.map((key) => ({ ...key, at: toFrameGrid(key.at, scene.rate) }));
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

/**
 * The mend of a finding where there is a certain one, else null. `recipe` is that of the dry run it was found in,
 * `drawn` the scene with the dry run in it, `standing` the scene as it stands.
 */
export function mendOf(finding: Finding, recipe: Recipe | null, standing: Scene, drawn: Scene): Mend | null {
  switch (finding.code) {
    case 'cannot-meet': {
      const met = recipe && nearest(recipe, finding, standing);
      return met ? { label: `Take ${formatShort(finding.nearest, standing.rate)}`, recipe: met } : null;
    }
    case 'short-for-both':
      return recipe?.operation === 'line-up' ? { label: 'Shorten both', recipe: { ...recipe, squeeze: true } } : null;
    case 'outside-scene': {
      if (finding.at < 0) return null;
      const ends = drawn.layers.filter(({ id }) => finding.layers.includes(id)).map((layer) => reach(layer).to);
      const length = upToFrame(
        ends.reduce((a, b) => Math.max(a, b), standing.length),
        standing,
      );
      if (length <= standing.length) return null;
      const label = `Lengthen the scene by ${formatFrames(length - standing.length, standing.rate)}`;
      return { label, edits: [{ type: 'set-scene', fields: { length } }] };
    }
    case 'outside-layer': {
      if (drawn.layers.some((layer) => finding.layers.includes(layer.id) && reach(layer).from < 0)) return null;
      const edits = editLayers(standing, finding.layers, drawn, (layer) => {
        const { from, to } = reach(layer);
        return { ...layer, span: { in: Math.max(0, from), out: upToFrame(to, standing) } };
      });
      return edits.length > 0
        ? { label: finding.layers.length === 1 ? 'Lengthen the layer' : 'Lengthen the layers', edits }
        : null;
    }
    case 'off-grid': {
      if (recipe) return null;
      const wanted = new Set(finding.layers);
      const layers = standing.layers.filter(({ id }) => wanted.has(id));
      return {
        label: 'Move to whole frames',
        edits: layers.flatMap((layer) => layerEdits(layer, onGrid(layer, standing))),
      };
    }
    case 'revision-missing': {
      if (!recipe || !isPresetRecipe(recipe)) return null;
      const { revision: _old, ...preset } = recipe.preset;
      return { label: 'Take the newest revision', recipe: { ...recipe, preset } };
    }
    default:
      return null;
  }
}
