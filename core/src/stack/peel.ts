import { withKeys, type Layer, type LayerStep, type RunRecord, type Scene } from '../scene';
import { handEdits, type HandEdits } from './hand';

/** A run on one layer: what it did, and what was changed by hand afterwards. */
export interface Link {
  readonly run: RunRecord;
  readonly step: LayerStep;
  readonly hand: HandEdits;
  /** True for one that is put back after a while: hand keys that came meanwhile stay. */
  readonly isBack?: boolean;
  /** True for one that is taken away: only what was done by hand after it stays. */
  readonly isGone?: boolean;
}

/** A layer as it was under some runs, and those runs on it, the first first. */
export interface Peeled {
  readonly under: Layer;
  readonly links: readonly Link[];
}

/** The layer as it was before a step. */
function takeBack(layer: Layer, { span, rest, tracks: steps }: LayerStep): Layer {
  let { tracks } = layer;
  for (const { channel, before } of steps) tracks = withKeys(tracks, channel, before);
  const values: Layer['rest'] = { ...layer.rest };
  for (const { channel, before } of rest ?? []) {
    if (before === null) delete values[channel];
    else values[channel] = before;
  }
  return { ...layer, span: span?.before ?? layer.span, rest: rest ? values : layer.rest, tracks };
}

/** Steps of runs by layer, those of one layer in the order of the runs. */
export function stepsByLayer(runs: readonly RunRecord[]): Map<string, { run: RunRecord; step: LayerStep }[]> {
  const steps = new Map<string, { run: RunRecord; step: LayerStep }[]>();
  for (const run of runs) {
    if (run.off === true) continue;
    for (const step of run.steps) {
      const known = steps.get(step.layer) ?? [];
      known.push({ run, step });
      steps.set(step.layer, known);
    }
  }
  return steps;
}

/** Takes runs off a layer, the last first. */
export function peelLayer(layer: Layer, runs: readonly { run: RunRecord; step: LayerStep }[]): Peeled {
  const links: Link[] = [];
  let under = layer;
  for (const { run, step } of [...runs].reverse()) {
    links.unshift({ run, step, hand: handEdits(step, under) });
    under = takeBack(under, step);
  }
  return { under, links };
}

/** A scene as it was under the runs from an index on, and those runs layer by layer. */
export interface PeeledScene {
  readonly under: Scene;
  readonly peeled: ReadonlyMap<string, Peeled>;
}

export function peelScene(scene: Scene, from: number): PeeledScene {
  const steps = stepsByLayer(scene.runs.slice(from));
  const peeled = new Map<string, Peeled>();
  const layers = scene.layers.map((layer) => {
    const runs = steps.get(layer.id);
    if (!runs) return layer;
    const result = peelLayer(layer, runs);
    peeled.set(layer.id, result);
    return result.under;
  });
  return { under: { ...scene, layers, runs: scene.runs.slice(0, from) }, peeled };
}
