import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import {
  knobsOf,
  rollVariants,
  solvedIn,
  sweepable,
  TICKS_PER_SECOND,
  variationWords,
  type PresetRecipe,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { wantsLessMotion } from '../../less-motion';
import { createPlanWorker } from '../../planning/plan-worker.factory';
import { drawRun } from '../../planning/planned-run';
import { Planner } from '../../planning/planner';
import { VariantView } from './variant-view';

/** The recipe whose versions are shown. */
export interface VariantsSource {
  readonly scene: Scene;
  readonly recipe: PresetRecipe;
  readonly shelf: Shelf;
  /** The run that is open in the sentence; null for a new one. */
  readonly run: string | null;
}

/** One version, with its dry run once that is planned. */
interface Version {
  readonly recipe: PresetRecipe;
  readonly scene: Scene | null;
  readonly from: number;
  readonly to: number;
}

const COUNTS = [6, 8, 9, 12] as const;
const CONTEXT = { runId: 'variant', by: '', when: '2000-01-01T00:00:00.000Z' };
/** Seconds that stand still before it all begins again. */
const REST = 0.6;
/** What is shown of versions that wait to be played, as a share of their time. */
const STILL = 0.4;
const MOST_SEED = 10_000;

/** Versions of the current sentence side by side, playing together: other seeds, or one parameter swept. */
@Component({
  selector: 'wx-variants-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatDialogModule, VariantView],
  templateUrl: './variants-dialog.html',
  styleUrl: './variants-dialog.scss',
})
export class VariantsDialog {
  private readonly data = inject<VariantsSource>(MAT_DIALOG_DATA);
  private readonly ref = inject<MatDialogRef<VariantsDialog, PresetRecipe>>(MatDialogRef);
  private readonly planner = new Planner(createPlanWorker);
  private readonly parameters = this.data.shelf.preset(this.data.recipe.preset.id)?.body.parameters ?? [];

  protected readonly counts = COUNTS;
  protected readonly sweeps = sweepable(this.parameters);
  protected readonly count = signal(6);
  protected readonly sweep = signal<string | null>(null);
  /** What the versions grow from; keeping one to roll the rest again puts it here. */
  protected readonly base = signal(this.data.recipe);
  private readonly seed = signal(1);
  protected readonly knobs = computed(() => knobsOf(this.base(), this.parameters));
  protected readonly locked = signal<ReadonlySet<string>>(this.firstLocked());
  protected readonly versions = signal<readonly Version[]>([]);
  protected readonly clock = signal(0);
  protected readonly isPlaying = signal(!wantsLessMotion());

  private readonly recipes = computed(() =>
    rollVariants(this.base(), this.parameters, {
      count: this.count(),
      seed: this.seed(),
      locked: this.locked(),
      sweep: this.sweep(),
    }),
  );

  constructor() {
    this.planner.setLibrary([...this.data.shelf.items.values()]);
    this.planner.done$.subscribe(({ task, result }) => {
      const scene = result ? drawRun(this.data.scene, { ...result, run: null }) : this.data.scene;
      const solved = solvedIn(result?.layers ?? []);
      const from = solved.start ?? 0;
      const to = Number.isFinite(solved.finish) ? (solved.finish ?? this.data.scene.length) : this.data.scene.length;
      this.versions.update((versions) =>
        versions.map((version) => (version.recipe === task.recipe ? { ...version, scene, from, to } : version)),
      );
      this.planNext();
    });
    effect(() => {
      const recipes = this.recipes();
      untracked(() => {
        this.planner.cancel();
        this.versions.set(recipes.map((recipe) => ({ recipe, scene: null, from: 0, to: 0 })));
        this.planNext();
      });
    });
    const loop = this.play();
    inject(DestroyRef).onDestroy(() => {
      loop();
      this.planner.close();
    });
  }

  /** All versions run on one clock, from the earliest start to the latest end. */
  protected readonly time = computed(() => {
    const planned = this.versions().filter(({ scene }) => scene !== null);
    if (planned.length === 0) return 0;
    const from = Math.min(...planned.map((version) => version.from));
    const to = Math.max(...planned.map((version) => version.to)) + REST * TICKS_PER_SECOND;
    const last = this.data.scene.length - 1;
    // Before it was ever played, a moment at which much has happened and much has not.
    const passed = this.clock() === 0 && !this.isPlaying() ? (to - from) * STILL : this.clock();
    return Math.min(last, from + (passed % Math.max(1, to - from)));
  });

  protected isLocked(id: string): boolean {
    return this.locked().has(id);
  }

  protected flip(id: string): void {
    this.locked.update((locked) => {
      const next = new Set(locked);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  protected roll(): void {
    this.seed.update((seed) => (seed % MOST_SEED) + 1);
  }

  protected setCount(event: Event): void {
    this.count.set(Number((event.target as HTMLSelectElement).value));
  }

  protected setSweep(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    this.sweep.set(value === '' ? null : value);
  }

  /** Goes on from a version: what is locked stays as it is there. */
  protected growFrom({ recipe }: Version): void {
    this.base.set(recipe);
    this.roll();
  }

  protected keep({ recipe }: Version): void {
    this.ref.close(recipe);
  }

  /** What a version says differently from the sentence. */
  protected said({ recipe }: Version): string {
    const words = this.parameters.flatMap(({ name, label }) => {
      const variation = recipe.parameters[name];
      if (!variation || JSON.stringify(variation) === JSON.stringify(this.data.recipe.parameters[name])) return [];
      return [variation.by === 'random' ? `${label} seed ${variation.seed}` : `${label} ${variationWords(variation)}`];
    });
    const order = recipe.order.by === 'shuffled' ? [`shuffled ${recipe.order.seed}`] : [];
    return [...order, ...words].join(', ') || `seed ${recipe.seed}`;
  }

  /** At first only seeds are rolled; without any, values are. */
  private firstLocked(): ReadonlySet<string> {
    const knobs = knobsOf(this.data.recipe, this.parameters);
    const hasSeeds = knobs.some(({ id, kind }) => kind === 'seed' && id !== 'preset');
    return new Set(hasSeeds ? knobs.filter(({ kind }) => kind === 'value').map(({ id }) => id) : []);
  }

  private planNext(): void {
    const next = this.versions().find(({ scene }) => scene === null);
    if (next)
      this.planner.request({
        scene: this.data.scene,
        task: { recipe: next.recipe, context: CONTEXT, run: this.data.run },
      });
  }

  private play(): () => void {
    let handle = 0;
    let before = performance.now();
    const tick = (now: number): void => {
      if (this.isPlaying()) this.clock.update((clock) => clock + ((now - before) / 1000) * TICKS_PER_SECOND);
      before = now;
      handle = requestAnimationFrame(tick);
    };
    handle = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(handle);
  }
}
