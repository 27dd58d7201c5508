import { Injectable, inject, type OnDestroy } from '@angular/core';
import {
  apply,
  isPreset,
  severityOf,
  type Finding,
  type LibraryItem,
  type Plan,
  type Recipe,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { BehaviorSubject, combineLatest, distinctUntilChanged, map, type Observable, type Subscription } from 'rxjs';
import { personName } from '../api/person';
import { LibraryService } from '../library/library.service';
import { createPlanWorker } from '../planning/plan-worker.factory';
import { Planner, type Planned } from '../planning/planner';
import { firstRecipe } from './first-recipe';
import { SceneStore } from './scene.store';

/** The preset of the first dry run in a scene. */
const FIRST_PRESET = 'rise-and-settle';

/** What stands in the sentence, and whether it is shown as a dry run. */
export interface Draft {
  readonly recipe: Recipe;
  /** False right after it was applied, until a field changes. */
  readonly isLive: boolean;
}

/** What the screen shows: the scene with the dry run in it, or as it stands. */
export interface Shown {
  /** The scene as it stands. */
  readonly standing: Scene;
  /** The scene as it is drawn: with the dry run where there is one. */
  readonly drawn: Scene;
  readonly plan: Plan | null;
  readonly isLive: boolean;
  /** True while a newer plan is being made. */
  readonly isPlanning: boolean;
}

/** Errors keep a run from being applied, and so does a draft, which has no revision to keep to. */
export function keepsFromApplying(finding: Finding): boolean {
  return severityOf(finding) === 'error' || finding.code === 'draft-preset';
}

function newRunId(): string {
  return `run-${crypto.randomUUID().slice(0, 13)}`;
}

/** The sentence of a scene screen: its recipe, and its dry run planned in a worker. */
@Injectable()
export class DraftStore implements OnDestroy {
  private readonly scenes = inject(SceneStore);
  private readonly library = inject(LibraryService);
  private items: readonly LibraryItem[] = [];
  private readonly planner = new Planner(createPlanWorker());
  private readonly draftSubject = new BehaviorSubject<Draft | null>(null);
  private readonly plannedSubject = new BehaviorSubject<Planned | null>(null);
  private readonly subscriptions: Subscription[] = [];
  private runId = newRunId();
  /** A preset that the screen was opened with. */
  wantedPreset: string | null = null;

  readonly draft$ = this.draftSubject.asObservable();
  readonly shown$: Observable<Shown | null> = combineLatest([
    this.scenes.scene$,
    this.draft$,
    this.plannedSubject,
  ]).pipe(
    map(([scene, draft, planned]) => (scene ? this.show(scene, draft, planned) : null)),
    distinctUntilChanged(
      (a, b) =>
        a?.drawn === b?.drawn && a?.plan === b?.plan && a?.isPlanning === b?.isPlanning && a?.isLive === b?.isLive,
    ),
  );
  private applied: { readonly planned: Planned; readonly scene: Scene } | null = null;

  constructor() {
    const { items$, shelf$ } = this.library;
    this.subscriptions.push(
      items$.subscribe((items) => {
        this.items = items;
        this.planner.setLibrary(items);
      }),
      this.planner.planned$.subscribe((planned) => this.plannedSubject.next(planned)),
      combineLatest([this.scenes.scene$, shelf$]).subscribe(([scene, shelf]) => this.begin(scene, shelf)),
      combineLatest([this.scenes.scene$, this.draft$, shelf$]).subscribe(([scene, draft, shelf]) => {
        if (scene && draft?.isLive && shelf.items.size > 0) this.ask(scene, draft.recipe);
      }),
    );
  }

  ngOnDestroy(): void {
    for (const subscription of this.subscriptions) subscription.unsubscribe();
    this.planner.close();
  }

  get recipe(): Recipe | null {
    return this.draftSubject.value?.recipe ?? null;
  }

  /** Changes the sentence; the dry run follows. */
  change(recipe: Recipe): void {
    this.draftSubject.next({ recipe, isLive: true });
  }

  /** Shows the dry run or the scene as it stands. */
  setLive(isLive: boolean): void {
    const draft = this.draftSubject.value;
    if (draft) this.draftSubject.next({ ...draft, isLive });
  }

  /** Applies the plan that is shown, as one step. False where there is none, or it has errors. */
  apply(): boolean {
    const { scene } = this.scenes;
    const planned = this.plannedSubject.value;
    const recipe = this.recipe;
    if (!scene || !planned?.plan || planned.scene !== scene || planned.recipe !== recipe) return false;
    const { plan } = planned;
    if (!plan.run || planned.items !== this.items || plan.findings.some(keepsFromApplying)) return false;
    this.setLive(false);
    if (!this.scenes.do(plan.run.sentence, plan.edits)) return false;
    this.runId = newRunId();
    return true;
  }

  private begin(scene: Scene | null, shelf: Shelf): void {
    if (!scene || shelf.items.size === 0 || this.draftSubject.value) return;
    const wanted = this.wantedPreset === null ? null : shelf.preset(this.wantedPreset);
    const item = wanted ?? shelf.preset(FIRST_PRESET) ?? [...shelf.items.values()].find(isPreset);
    if (item) this.draftSubject.next({ recipe: firstRecipe(scene, item), isLive: true });
  }

  private ask(scene: Scene, recipe: Recipe): void {
    const known = this.plannedSubject.value;
    if (known?.scene === scene && known.recipe === recipe && known.items === this.items) return;
    const context = { runId: this.runId, by: personName(), when: new Date().toISOString() };
    this.planner.request({ scene, recipe, context });
  }

  private show(scene: Scene, draft: Draft | null, planned: Planned | null): Shown {
    const still: Shown = { standing: scene, drawn: scene, plan: null, isLive: false, isPlanning: false };
    if (!draft?.isLive) return still;
    if (planned?.scene !== scene) return { ...still, isLive: true, isPlanning: true };
    const isPlanning = planned.recipe !== draft.recipe || planned.items !== this.items;
    return { standing: scene, drawn: this.draw(planned), plan: planned.plan, isLive: true, isPlanning };
  }

  /** The scene with a plan in it; kept, since several parts of the screen ask for the same one. */
  private draw(planned: Planned): Scene {
    if (this.applied?.planned === planned) return this.applied.scene;
    const result = apply(planned.scene, planned.plan?.edits ?? []);
    const scene = result.ok ? result.scene : planned.scene;
    this.applied = { planned, scene };
    return scene;
  }
}
