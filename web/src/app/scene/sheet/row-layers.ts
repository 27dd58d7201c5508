import { computed, type Signal } from '@angular/core';
import { compileRigs, layersUnder, type Layer, type Recipe, type Scene } from '@wexikine/core';
import { drivenLayer } from './driven';
import type { SheetRun } from './rows';
import type { DrivenLayer } from './strip';

/** What the layers of the sheet are looked up in. */
export interface RowLayersOf {
  /** The scene as it is drawn, with the dry run. */
  readonly scene: Signal<Scene>;
  /** The scene without the dry run. */
  readonly standing: Signal<Scene>;
  readonly plan: Signal<SheetRun | null>;
  readonly recipe: Signal<Recipe | null>;
}

/** A row's layer in its other states: without the dry run, as the run found it, driven by rigs. Worked out for the rows that are seen. */
export class RowLayers {
  /** All layers without the dry run, by their ids. */
  readonly standing = computed(() => new Map(this.of.standing().layers.map((layer) => [layer.id, layer])));
  readonly runId = computed(() => this.of.plan()?.run?.id ?? null);
  /** The rigs of the scene as it is drawn. */
  readonly rigs = computed(() => compileRigs(this.of.scene()));

  private readonly under = computed(() => {
    const standing = this.standing();
    const runId = this.runId();
    const layerUnder = runId === null ? (layer: Layer) => layer : layersUnder(this.of.standing(), runId);
    return kept((id): Layer | undefined => {
      const layer = standing.get(id);
      return layer && layerUnder(layer);
    });
  });
  private readonly indices = computed(() => new Map(this.of.scene().layers.map(({ id }, index) => [id, index])));
  private readonly driven = computed(() => {
    const [rigs, indices] = [this.rigs(), this.indices()];
    return kept((id): DrivenLayer | null => rigs && drivenLayer(rigs, indices.get(id) ?? 0));
  });

  constructor(private readonly of: RowLayersOf) {}

  /** The layer without the dry run, where there is one. */
  standingOf(id: string): Layer | undefined {
    return this.of.plan() === null ? undefined : this.standing().get(id);
  }

  /** The layer as the run found it, to show which keys it replaces and which go; lining up only moves them. */
  underOf(id: string): Layer | undefined {
    return this.of.plan() === null || this.of.recipe()?.operation === 'line-up' ? undefined : this.under()(id);
  }

  /** What rigs do to the layer; the same answer as long as the scene is. */
  drivenOf(id: string): DrivenLayer | null {
    return this.driven()(id);
  }
}

/** A function whose answers are kept. */
function kept<T>(work: (id: string) => T): (id: string) => T {
  const known = new Map<string, T>();
  return (id) => {
    const found = known.get(id);
    if (found !== undefined || known.has(id)) return found as T;
    const made = work(id);
    known.set(id, made);
    return made;
  };
}
