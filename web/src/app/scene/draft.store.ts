import { Injectable, inject, type OnDestroy } from '@angular/core';
import {
  isPreset,
  recipeOfRun,
  severityOf,
  type Finding,
  type LibraryItem,
  type Pick,
  type Plan,
  type Recipe,
  type RunRecord,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import {
  BehaviorSubject,
  combineLatest,
  debounceTime,
  distinctUntilChanged,
  filter,
  firstValueFrom,
  map,
  type Observable,
  type Subscription,
} from 'rxjs';
import { personName } from '../api/person';
import { LibraryService } from '../library/library.service';
import type { PlanTask } from '../planning/messages';
import { drawRun, type PlannedRun } from '../planning/planned-run';
import { createPlanWorker } from '../planning/plan-worker.factory';
import { Checker, Planner, type Planned } from '../planning/planner';
import { Rehearsal } from '../planning/rehearsal';
import { SceneTrail } from '../planning/trail';
import { firstRecipe, firstRigRecipe, firstStyle } from './first-recipe';
import { SceneStore } from './scene.store';

/** The preset that the sentence waits with in a scene that is opened. */
const FIRST_PRESET = 'rise-and-settle';
/** Milliseconds of rest before the scene is looked over in motion. */
const CHECK_AFTER = 350;
/** Milliseconds of rest before what applying takes is planned ahead: longer than from one change of a field to the next. */
const AHEAD_AFTER = 1_000;
/** Layers from which a change takes so long that one may notice, and up to which doing more than was asked holds up nobody. */
const REHEARSED = { least: 300, most: 2_000 } as const;

/** What stands in the sentence, and whether it is shown as a dry run. */
export interface Draft {
  readonly recipe: Recipe;
  /** The run that is open to be changed; null for a new one. */
  readonly run: string | null;
  /** Whether it is a dry run: somebody asked for one, and it was not applied or hidden since. */
  readonly isLive: boolean;
  /** True from when it was applied until a field changes or a dry run is asked for. */
  readonly isApplied?: boolean;
}

/** What the screen shows: the scene with the dry run in it, or as it stands. */
export interface Shown {
  /** The scene as it stands. */
  readonly standing: Scene;
  /** The scene as it is drawn: with the dry run where there is one. */
  readonly drawn: Scene;
  readonly plan: PlannedRun | null;
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
  private readonly planner = new Planner(createPlanWorker, inject(SceneTrail));
  private readonly checker = new Checker(createPlanWorker, inject(SceneTrail));
  private readonly draftSubject = new BehaviorSubject<Draft | null>(null);
  private readonly plannedSubject = new BehaviorSubject<Planned | null>(null);
  private readonly motionSubject = new BehaviorSubject<readonly Finding[]>([]);
  private readonly subscriptions: Subscription[] = [];
  private readonly rehearsal = new Rehearsal();
  private runId = newRunId();
  private isApplying = false;
  /** All that applying a dry run takes, planned before somebody asked for it. */
  private ahead: { readonly of: Planned; readonly plan: Promise<Plan | null> } | null = null;
  /** How many layers took part in what was applied last. */
  appliedTo = 0;
  /** A preset that the screen was opened with. */
  wantedPreset: string | null = null;
  /** A recipe of the library that it was opened with. */
  wantedRecipe: string | null = null;

  readonly draft$ = this.draftSubject.asObservable();
  /** How far planning that takes long has come, 0 to 1. */
  readonly progress$ = this.planner.progress$;
  /** What looking at the scene in motion found: of the dry run, or of the scene as it stands. */
  readonly motion$ = this.motionSubject.asObservable();
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
    const inputs$ = combineLatest([this.scenes.scene$, this.draft$, shelf$]);
    this.subscriptions.push(
      items$.subscribe((items) => {
        this.items = items;
        this.planner.setLibrary(items);
        this.checker.setLibrary(items);
      }),
      this.planner.done$.subscribe((planned) => {
        this.plannedSubject.next(planned);
        this.rehearse(planned);
      }),
      this.checker.done$.subscribe(({ result }) => this.motionSubject.next(result ?? [])),
      combineLatest([this.scenes.scene$, shelf$]).subscribe(([scene, shelf]) => this.begin(scene, shelf)),
      inputs$.subscribe(([scene, draft, shelf]) => {
        if (scene && draft?.isLive && shelf.items.size > 0) this.ask(scene, draft);
      }),
      inputs$.subscribe(() => {
        this.checker.stop();
        this.rehearsal.stop();
      }),
      combineLatest([inputs$, this.plannedSubject.pipe(distinctUntilChanged((a, b) => a?.task === b?.task))])
        .pipe(debounceTime(CHECK_AFTER))
        .subscribe(([[scene, draft, shelf], planned]) => {
          if (scene && shelf.items.size > 0) this.lookOver(scene, draft, planned);
        }),
      this.shown$.pipe(debounceTime(AHEAD_AFTER)).subscribe(() => this.planAhead()),
    );
  }

  ngOnDestroy(): void {
    for (const subscription of this.subscriptions) subscription.unsubscribe();
    this.planner.close();
    this.checker.close();
    this.rehearsal.stop();
  }

  get recipe(): Recipe | null {
    return this.draftSubject.value?.recipe ?? null;
  }

  /** The run that is open to be changed. */
  get run(): string | null {
    return this.draftSubject.value?.run ?? null;
  }

  /** Changes the sentence; the dry run follows. */
  change(recipe: Recipe): void {
    this.draftSubject.next({ recipe, run: this.run, isLive: true });
  }

  /** Says the sentence about other layers; a scene that is shown as it stands stays so. */
  pick(pick: Pick): void {
    const draft = this.draftSubject.value;
    if (!draft) return;
    const recipe: Recipe = { ...draft.recipe, pick };
    this.draftSubject.next({ recipe, run: draft.run, isLive: draft.isLive });
  }

  /** Opens a run to be changed, with the revision that it used or with the newest. */
  reopen(run: RunRecord, revision: 'used' | 'newest'): void {
    this.draftSubject.next({ recipe: recipeOfRun(run, revision), run: run.id, isLive: true });
  }

  /** Begins a new run with a recipe. */
  start(recipe: Recipe): void {
    this.draftSubject.next({ recipe, run: null, isLive: true });
  }

  /** Shows the dry run or the scene as it stands. */
  setLive(isLive: boolean): void {
    const draft = this.draftSubject.value;
    if (draft && draft.isLive !== isLive) this.draftSubject.next({ recipe: draft.recipe, run: draft.run, isLive });
  }

  /** Gives up the planning that is under way and shows the scene as it stands. */
  cancel(): void {
    this.planner.cancel();
    this.setLive(false);
  }

  /**
   * Applies the dry run, as one step; asked for while that is being planned, it waits for it. It is planned once more with
   * all that the scene keeps of it, in the worker; `changed` where sentence or scene became different meanwhile, `not`
   * where there is nothing to apply or it has errors.
   */
  async apply(): Promise<'done' | 'not' | 'changed' | 'failed'> {
    const { scene } = this.scenes;
    const draft = this.draftSubject.value;
    if (this.isApplying || !scene || !draft?.isLive || this.items.length === 0) return 'not';
    this.isApplying = true;
    try {
      return await this.applyDraft(scene, draft);
    } finally {
      this.isApplying = false;
    }
  }

  private async applyDraft(scene: Scene, draft: Draft): Promise<'done' | 'not' | 'changed' | 'failed'> {
    const planned = await this.plannedFor(scene, draft);
    if (!planned) return 'changed';
    if (!planned.result) return 'failed';
    const { run, hasEdits, findings } = planned.result;
    if (!run || !hasEdits || findings.some(keepsFromApplying)) return 'not';
    this.rehearsal.stop();
    const plan = await this.whole(planned);
    if (!this.isStill(scene, draft)) return 'changed';
    if (!plan) return 'failed';
    this.draftSubject.next({ recipe: draft.recipe, run: null, isLive: false, isApplied: true });
    const sentence = plan.run?.sentence ?? '';
    const label = draft.run === null ? sentence : `Change a run: ${sentence}`;
    if (!this.scenes.do(label, plan.edits)) return 'failed';
    this.appliedTo = planned.result.counts.layers;
    this.runId = newRunId();
    return 'done';
  }

  /** Plans what applying the dry run that is shown would take, while it is looked at. */
  private planAhead(): void {
    const [planned, draft, { scene }] = [this.plannedSubject.value, this.draftSubject.value, this.scenes];
    if (!planned?.result || !draft?.isLive || !scene || !this.isFor(planned, scene, draft)) return;
    const { layers, hasEdits } = planned.result;
    if (this.isAhead(planned) || !hasEdits || layers.length < REHEARSED.least || layers.length > REHEARSED.most) return;
    this.ahead = { of: planned, plan: this.planner.whole(planned, true) };
  }

  /** All that applying a dry run takes: as it was planned ahead, or planned now. */
  private async whole(planned: Planned): Promise<Plan | null> {
    const plan = this.isAhead(planned) ? await this.ahead?.plan : null;
    this.ahead = null;
    return plan ?? this.planner.whole(planned);
  }

  private isAhead({ scene, task }: Planned): boolean {
    return this.ahead?.of.task === task && this.ahead.of.scene === scene;
  }

  private begin(scene: Scene | null, shelf: Shelf): void {
    const draft = this.draftSubject.value;
    if (draft?.run !== null && draft && scene && !scene.runs.some(({ id }) => id === draft.run)) {
      this.draftSubject.next({ recipe: draft.recipe, run: null, isLive: false });
    }
    if (!scene || shelf.items.size === 0 || draft) return;
    const kept = this.wantedRecipe === null ? undefined : shelf.items.get(this.wantedRecipe);
    if (kept?.kind === 'recipe') return this.start(kept.body as Recipe);
    if (kept?.kind === 'look') return this.start(firstStyle(scene, kept));
    const rig = this.wantedPreset === null ? undefined : shelf.items.get(this.wantedPreset);
    if (rig?.kind === 'rig') return this.start(firstRigRecipe(scene, rig));
    const wanted = this.wantedPreset === null ? null : shelf.preset(this.wantedPreset);
    const item = wanted ?? shelf.preset(FIRST_PRESET) ?? [...shelf.items.values()].find(isPreset);
    // A scene opens as it stands; only what somebody came with is tried at once.
    if (item) this.draftSubject.next({ recipe: firstRecipe(scene, item), run: null, isLive: wanted !== null });
  }

  private task({ recipe, run }: Draft): PlanTask {
    return { recipe, run, context: { runId: this.runId, by: personName(), when: new Date().toISOString() } };
  }

  private isStill(scene: Scene, draft: Draft): boolean {
    return this.draftSubject.value === draft && this.scenes.scene === scene;
  }

  /** The dry run of a sentence, as soon as it is planned; null where sentence or scene became different before. */
  private plannedFor(scene: Scene, draft: Draft): Promise<Planned | null> {
    const waiting$ = combineLatest([this.plannedSubject, this.scenes.scene$, this.draft$]);
    return firstValueFrom(
      waiting$.pipe(
        filter(([planned]) => !this.isStill(scene, draft) || (planned !== null && this.isFor(planned, scene, draft))),
        map(([planned]) => (this.isStill(scene, draft) ? planned : null)),
      ),
    );
  }

  private isFor({ scene, task, items }: Planned, now: Scene, draft: Draft): boolean {
    return scene === now && task.recipe === draft.recipe && task.run === draft.run && items === this.items;
  }

  private ask(scene: Scene, draft: Draft): void {
    const known = this.plannedSubject.value;
    if (known && this.isFor(known, scene, draft)) return;
    this.planner.request({ scene, task: this.task(draft) });
  }

  /** Plans and draws a dry run of many layers again, which changes nothing. */
  private rehearse({ scene, task, result }: Planned): void {
    const layers = result?.layers.length ?? 0;
    if (layers < REHEARSED.least || layers > REHEARSED.most) return;
    this.rehearsal.soon(() => this.planner.request({ scene, task }));
  }

  /** Looks over what is shown; a dry run as soon as it is planned, and nothing where that failed. */
  private lookOver(scene: Scene, draft: Draft | null, planned: Planned | null): void {
    if (!draft?.isLive) return this.checker.request({ scene, task: null });
    if (!planned || !this.isFor(planned, scene, draft)) return;
    if (planned.result) this.checker.request({ scene, task: planned.result.packed });
    else this.motionSubject.next([]);
  }

  private show(scene: Scene, draft: Draft | null, planned: Planned | null): Shown {
    const still: Shown = { standing: scene, drawn: scene, plan: null, isLive: false, isPlanning: false };
    if (!draft?.isLive) return still;
    if (planned?.scene !== scene) return { ...still, isLive: true, isPlanning: true };
    const isPlanning = !this.isFor(planned, scene, draft);
    return { standing: scene, drawn: this.draw(planned), plan: planned.result, isLive: true, isPlanning };
  }

  /** The scene with a plan in it; kept, since several parts of the screen ask for the same one. */
  private draw(planned: Planned): Scene {
    if (this.applied?.planned === planned) return this.applied.scene;
    const scene = planned.result ? drawRun(planned.scene, planned.result) : planned.scene;
    this.applied = { planned, scene };
    return scene;
  }
}
