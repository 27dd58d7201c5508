import { layerEdits, type Edit } from '../edit';
import { isSame, type Layer, type LayerStep, type RunRecord, type Scene } from '../scene';
import { peelScene, type Link, type Peeled, type PeeledScene } from './peel';
import { createReplaying, replayLink, type Replaying } from './replay';

/** What a change of a scene's runs gives. */
export interface Restacked {
  readonly edits: readonly Edit[];
  readonly runs: readonly RunRecord[];
}

type Rows = Map<string, { index: number; step: LayerStep }[]>;

/** Span that a layer had under each link when it was made. */
function spansThen({ under, links }: Peeled): Map<string, { in: number; out: number }> {
  const spans = new Map<string, { in: number; out: number }>();
  let { span } = under;
  for (const { run, step, hand } of links) {
    if (step.span) ({ before: span } = step.span);
    spans.set(run.id, span);
    const left = step.span?.after ?? span;
    span = hand.span ? { in: left.in + hand.span.in, out: left.out + hand.span.out } : left;
  }
  return spans;
}

function rebuildLayer(
  peeled: Peeled,
  links: readonly Link[],
  replaying: Replaying,
): { layer: Layer; steps: Map<string, LayerStep> } {
  const spans = spansThen(peeled);
  const steps = new Map<string, LayerStep>();
  let layer = peeled.under;
  for (const link of links) {
    const replayed = replayLink(link, layer, spans.get(link.run.id) ?? layer.span, replaying);
    if (link.isGone !== true) steps.set(link.run.id, replayed.step);
    ({ layer } = replayed);
  }
  return { layer, steps };
}

function runEdits(before: readonly RunRecord[], after: readonly RunRecord[]): Edit[] {
  const old = new Map(before.map((run) => [run.id, run]));
  const ids = new Set(after.map(({ id }) => id));
  const edits: Edit[] = before.filter(({ id }) => !ids.has(id)).map(({ id }) => ({ type: 'remove-run', run: id }));
  const order = before.filter(({ id }) => ids.has(id)).map(({ id }) => id);
  after.forEach((run, index) => {
    const standing = old.get(run.id);
    if (standing && order[index] === run.id) {
      if (!isSame(standing, run)) edits.push({ type: 'set-run', run });
      return;
    }
    if (standing) {
      edits.push({ type: 'remove-run', run: run.id });
      order.splice(order.indexOf(run.id), 1);
    }
    edits.push({ type: 'add-run', index, run });
    order.splice(index, 0, run.id);
  });
  return edits;
}

/**
 * Takes the runs from an index on off the scene, and builds it up again with other runs in their place. `linksOf` gives
 * the links of a layer in their new order; `runs` are all runs of the scene afterwards, their steps not yet brought up to date.
 */
export function restack(
  scene: Scene,
  from: number,
  runs: readonly RunRecord[],
  linksOf: (peeled: Peeled, layer: string) => readonly Link[],
  peeledScene: PeeledScene = peelScene(scene, from),
): Restacked {
  const replaying = createReplaying(scene, runs);
  const rows: Rows = new Map();
  const edits: Edit[] = [];
  scene.layers.forEach((layer, index) => {
    const peeled = peeledScene.peeled.get(layer.id) ?? { under: layer, links: [] };
    const links = linksOf(peeled, layer.id);
    if (links.length === 0 && peeled.links.length === 0) return;
    const rebuilt = rebuildLayer(peeled, links, replaying);
    edits.push(...layerEdits(layer, rebuilt.layer));
    for (const [run, step] of rebuilt.steps) {
      const steps = rows.get(run) ?? [];
      steps.push({ index, step });
      rows.set(run, steps);
    }
  });
  const next = runs.map((run, index) => {
    if (index < from || run.off === true) return run;
    const steps = (rows.get(run.id) ?? []).map(({ step }) => step);
    return { ...run, steps: inOrderOf(run.steps, steps) };
  });
  return { edits: [...edits, ...runEdits(scene.runs, next)], runs: next };
}

/** Steps in the order in which the run had them, new ones at the end. */
function inOrderOf(before: readonly LayerStep[], after: readonly LayerStep[]): LayerStep[] {
  const places = new Map(before.map(({ layer }, place) => [layer, place]));
  const placeOf = ({ layer }: LayerStep): number => places.get(layer) ?? before.length;
  return [...after].sort((a, b) => placeOf(a) - placeOf(b));
}
