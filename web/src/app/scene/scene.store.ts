import { Injectable, inject, type OnDestroy } from '@angular/core';
import {
  describeEditProblem,
  difference,
  createShelf,
  isEmptyDifference,
  replan,
  withFollowers,
  type Edit,
  type Scene,
  type SceneChange,
  type StoredScene,
} from '@wexikine/core';
import {
  BehaviorSubject,
  firstValueFrom,
  Subject,
  type Subscription,
  debounceTime,
  distinctUntilChanged,
  filter,
  map,
} from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { personName } from '../api/person';
import { saveRequest } from '../api/save-request';
import { LiveNews } from '../live/live-news';
import { SceneTrail } from '../planning/trail';
import { doStep, overOthers, redoStep, startHistory, undoStep, type History, type HistoryResult } from './history';
import { changedByBoth, changedLayers, putMineOver } from './merge';
import { OthersNews } from './others-news';

/** Milliseconds of rest after a change before it is saved. */
const SAVE_AFTER = 500;
/** Milliseconds until a save that got no answer is tried again. */
const RETRY_AFTER = 3_000;
/** Milliseconds after news of this scene until it is asked for; one's own save has been answered by then. */
const CATCH_UP_AFTER = 200;

/** A look is taken from a layer, not from the library. */
const NO_SHELF = createShelf([]);

/** Somebody saved this scene meanwhile: what they did, and where both changed the same. */
export interface Conflict {
  readonly changes: readonly SceneChange[];
  readonly theirs: StoredScene;
  readonly both: readonly string[];
}

/** How saving stands. */
export type SaveState =
  | { readonly type: 'saved'; readonly at: number }
  | { readonly type: 'waiting' }
  | { readonly type: 'saving' }
  | { readonly type: 'offline'; readonly message: string }
  | { readonly type: 'refused'; readonly message: string }
  | { readonly type: 'conflict'; readonly conflict: Conflict };

/** How opening a scene stands. */
export type LoadState =
  { readonly type: 'loading' } | { readonly type: 'ready' } | { readonly type: 'failed'; readonly message: string };

interface Standing {
  readonly version: number;
  readonly scene: Scene;
}

/** One open scene: its steps, undo and redo, and saving what changed. Provided once for each scene screen. */
@Injectable()
export class SceneStore implements OnDestroy {
  private readonly api = inject(ApiService);
  private readonly trail = inject(SceneTrail);
  private readonly historySubject = new BehaviorSubject<History | null>(null);
  private readonly saveSubject = new BehaviorSubject<SaveState>({ type: 'saved', at: Date.now() });
  private readonly loadSubject = new BehaviorSubject<LoadState>({ type: 'loading' });
  private readonly problemSubject = new Subject<string>();
  private readonly changes: Subscription;
  private readonly heard: Subscription;
  private readonly othersSubject = new Subject<string>();
  /** What the server has. */
  private standing: Standing | null = null;
  private isSaving = false;
  private readonly news = new OthersNews();
  private unsavedLabels: string[] = [];
  private retry: ReturnType<typeof setTimeout> | undefined;

  readonly history$ = this.historySubject.asObservable();
  readonly scene$ = this.history$.pipe(
    map((history) => history?.scene ?? null),
    distinctUntilChanged(),
  );
  readonly save$ = this.saveSubject.asObservable();
  readonly load$ = this.loadSubject.asObservable();
  /** Sentences about steps that were refused. */
  readonly problem$ = this.problemSubject.asObservable();
  /** Sentences about what others did in this scene while it was open here. */
  readonly others$ = this.othersSubject.asObservable();

  constructor() {
    this.changes = this.scene$.pipe(debounceTime(SAVE_AFTER)).subscribe(() => void this.save());
    this.heard = inject(LiveNews)
      .news$.pipe(
        filter((news) => this.news.hear(news, this.scene?.id)),
        debounceTime(CATCH_UP_AFTER),
      )
      .subscribe(() => void this.catchUp());
  }

  ngOnDestroy(): void {
    this.changes.unsubscribe();
    this.heard.unsubscribe();
    clearTimeout(this.retry);
    void this.save();
  }

  get scene(): Scene | null {
    return this.historySubject.value?.scene ?? null;
  }

  get hasUnsaved(): boolean {
    const { scene, standing } = this;
    return scene !== null && standing !== null && !isEmptyDifference(difference(standing.scene, scene));
  }

  async open(id: string): Promise<void> {
    this.loadSubject.next({ type: 'loading' });
    try {
      const stored = await firstValueFrom(this.api.scene(id));
      this.stand(stored);
      this.loadSubject.next({ type: 'ready' });
    } catch (error) {
      this.loadSubject.next({ type: 'failed', message: (error as ApiProblem).message });
    }
  }

  /** Does a named step; those with the same `merge` that follow each other are one. False when it was refused; then nothing changed and `problem$` says why. */
  do(label: string, edits: readonly Edit[], merge?: string): boolean {
    return this.advance((history) => doStep(history, label, this.withFollowers(history.scene, edits), merge), label);
  }

  /** Where a layer is changed that others follow in their look, they are changed in the same step. */
  private withFollowers(scene: Scene, edits: readonly Edit[]): readonly Edit[] {
    const context = { by: personName(), when: new Date().toISOString() };
    return withFollowers(
      scene,
      edits,
      NO_SHELF,
      context,
      (now, shelf, run, about) => replan(now, shelf, run.id, run.recipe, about).edits,
    );
  }

  undo(): void {
    const label = this.historySubject.value?.done.at(-1)?.label;
    if (label !== undefined) this.advance(undoStep, `Undo: ${label}`);
  }

  redo(): void {
    const label = this.historySubject.value?.undone.at(-1)?.label;
    if (label !== undefined) this.advance(redoStep, label);
  }

  /** Takes their scene and drops what I have not saved. */
  takeTheirs(conflict: Conflict): void {
    this.stand(conflict.theirs);
  }

  /** Puts my unsaved changes over their scene; my undo steps begin anew. */
  keepMine(conflict: Conflict): void {
    const { scene, standing } = this;
    if (!scene || !standing) return;
    const merged = putMineOver(standing.scene, scene, conflict.theirs.scene);
    this.standing = conflict.theirs;
    this.news.know(conflict.theirs.version);
    this.unsavedLabels = ['Keep mine over theirs'];
    this.saveSubject.next({ type: 'waiting' });
    this.historySubject.next(startHistory(merged));
    void this.save();
  }

  /** Saves my scene as a new one and gives its id; this window then shows theirs. */
  async saveAsNew(conflict: Conflict): Promise<string | null> {
    const { scene } = this;
    if (!scene) return null;
    const { id: _id, ...rest } = scene;
    const created = await firstValueFrom(
      this.api.createScene({ scene: { ...rest, name: `${scene.name} (mine)` }, by: personName() }),
    );
    this.stand(conflict.theirs);
    return created.scene.id;
  }

  /**
   * Takes in what others saved, where nothing of one's own waits to be saved; else the end of the next save looks again,
   * or it tells of a conflict. Undo goes on where it touches nothing of theirs.
   */
  private async catchUp(): Promise<void> {
    const { standing } = this;
    if (!standing || this.isSaving || this.hasUnsaved || this.saveSubject.value.type === 'conflict') return;
    if (this.news.isAheadOf(standing.version)) await this.takeIn(standing);
    const what = this.news.tell(this.standing?.version ?? standing.version);
    if (what !== null) this.othersSubject.next(what);
  }

  private async takeIn(standing: Standing): Promise<void> {
    try {
      const theirs = await firstValueFrom(this.api.scene(standing.scene.id));
      const history = this.historySubject.value;
      if (!history || this.hasUnsaved || this.standing !== standing) return;
      this.news.caughtUp();
      if (theirs.version <= standing.version) return;
      const changed = changedLayers(standing.scene, theirs.scene);
      this.standing = theirs;
      this.historySubject.next(overOthers(history, theirs.scene, changed));
    } catch {
      // Not reached now; the next news or the next save asks again.
    }
  }

  /** Saves now what has not been saved. */
  async save(): Promise<void> {
    const { scene, standing } = this;
    if (!scene || !standing || this.isSaving || this.saveSubject.value.type === 'conflict') return;
    clearTimeout(this.retry);
    if (!this.hasUnsaved) return this.saveSubject.next({ type: 'saved', at: Date.now() });
    this.isSaving = true;
    this.saveSubject.next({ type: 'saving' });
    const labels = this.unsavedLabels;
    this.unsavedLabels = [];
    try {
      await this.send(standing, scene, labels);
    } catch (error) {
      this.unsavedLabels = [...labels, ...this.unsavedLabels];
      await this.failed(error as ApiProblem, standing);
    } finally {
      this.isSaving = false;
    }
    if (this.saveSubject.value.type !== 'saved') return;
    if (this.hasUnsaved) void this.save();
    else void this.catchUp();
  }

  private async send(standing: Standing, scene: Scene, labels: readonly string[]): Promise<void> {
    const body = saveRequest(standing, scene, { by: personName(), what: labels.join('; ') });
    const { version } = await firstValueFrom(this.api.saveScene(scene.id, body));
    this.standing = { version, scene };
    this.news.know(version);
    this.saveSubject.next({ type: 'saved', at: Date.now() });
  }

  private async failed(problem: ApiProblem, standing: Standing): Promise<void> {
    if (problem.code === 'conflict') return this.meetConflict(problem, standing);
    const isOffline = problem.code === 'offline' || problem.code === 'broken';
    this.saveSubject.next({ type: isOffline ? 'offline' : 'refused', message: problem.message });
    if (isOffline) this.retry = setTimeout(() => void this.save(), RETRY_AFTER);
  }

  private async meetConflict(problem: ApiProblem, standing: Standing): Promise<void> {
    const { scene } = this;
    if (!scene) return;
    try {
      const theirs = await firstValueFrom(this.api.scene(scene.id));
      const both = changedByBoth(standing.scene, scene, theirs.scene);
      this.saveSubject.next({ type: 'conflict', conflict: { changes: problem.answer?.changes ?? [], theirs, both } });
    } catch (error) {
      await this.failed(error as ApiProblem, standing);
    }
  }

  private stand({ version, scene }: StoredScene): void {
    this.standing = { version, scene };
    this.news.know(version);
    this.unsavedLabels = [];
    this.saveSubject.next({ type: 'saved', at: Date.now() });
    this.historySubject.next(startHistory(scene));
  }

  private advance(step: (history: History) => HistoryResult, label: string): boolean {
    const history = this.historySubject.value;
    if (!history) return false;
    const result = step(history);
    if (!result.ok) {
      this.problemSubject.next(describeEditProblem(result.problem));
      return false;
    }
    this.unsavedLabels.push(label);
    if (result.edits) this.trail.note(history.scene, result.edits, result.history.scene);
    if (this.saveSubject.value.type === 'saved') this.saveSubject.next({ type: 'waiting' });
    this.historySubject.next(result.history);
    return true;
  }
}
