import { differenceWords, updateDifferences, updateWords } from '../update-words';
import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
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
  describeFinding,
  formatShort,
  severityOf,
  waitingUpdate,
  type LayerUpdate,
  type RunRecord,
  type RunUpdate,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { personName } from '../../api/person';
import { Icon } from '../../icons/icon';
import { createPlanWorker } from '../../planning/plan-worker.factory';
import { Updater } from '../../planning/planner';
import type { Step } from '../actions/run-steps';

/** The scene whose runs have updates waiting. */
export interface UpdatesSource {
  readonly scene: Scene;
  readonly shelf: Shelf;
}

/** What was chosen: to update some runs in one step, or to look at one of them in the sentence. */
export type UpdatesChoice =
  { readonly type: 'step'; readonly step: Step } | { readonly type: 'look'; readonly run: RunRecord };

type Change = 'same' | 'changed';

/** Before and after of one figure. */
interface Figure {
  readonly before: string;
  readonly after: string;
  readonly change: Change;
}

function figure(before: string | undefined, after: string | undefined): Figure {
  const [was, is] = [before ?? '–', after ?? '–'];
  return { before: was, after: is, change: was === is ? 'same' : 'changed' };
}

/** Differences that are told before one looks at the run itself. */
const MOST_DIFFERENCES = 5;

/** The updates that wait in a scene, with what each would change layer by layer; some or all are done in one step. */
@Component({
  selector: 'wx-updates-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkVirtualScrollViewport, Icon, MatDialogModule, ScrollingModule],
  templateUrl: './updates-dialog.html',
  styleUrl: './updates-dialog.scss',
})
export class UpdatesDialog {
  private readonly data = inject<UpdatesSource>(MAT_DIALOG_DATA);
  private readonly ref = inject<MatDialogRef<UpdatesDialog, UpdatesChoice>>(MatDialogRef);
  private readonly updater = new Updater(createPlanWorker);
  private readonly waiting = this.data.scene.runs.flatMap((run, index) => {
    const update = run.off === true ? null : waitingUpdate(run, this.data.shelf);
    return update ? [{ run, update, number: index + 1 }] : [];
  });

  protected readonly ticked = signal<ReadonlySet<string>>(new Set(this.waiting.map(({ run }) => run.id)));
  protected readonly opened = signal<string | null>(this.waiting[0]?.run.id ?? null);
  private readonly done = signal<{ readonly runs: ReadonlySet<string>; readonly updates: readonly RunUpdate[] } | null>(
    null,
  );
  protected readonly isPlanning = computed(() => this.done()?.runs !== this.ticked());

  protected readonly rows = computed(() => {
    const planned = new Map(this.done()?.updates.map((update) => [update.run, update]));
    return this.waiting.map(({ run, update, number }) => {
      const found = this.ticked().has(run.id) ? planned.get(run.id) : undefined;
      const problem = found?.findings.find((finding) => severityOf(finding) === 'error');
      return {
        run,
        number,
        isTicked: this.ticked().has(run.id),
        step: update.to > update.from ? `revision ${update.from} to ${update.to}` : 'what it takes from the library',
        says: this.says(run, found),
        news: updateWords(run, this.data.shelf),
        differences: updateDifferences(run, this.data.shelf).slice(0, MOST_DIFFERENCES).map(differenceWords),
        problem: problem ? describeFinding(problem, this.data.scene) : null,
        notes: problem ? [] : (found?.findings ?? []).map((finding) => describeFinding(finding, this.data.scene)),
        layers: found?.layers ?? [],
      };
    });
  });
  /** Runs that would be updated. */
  protected readonly ready = computed(() => (this.done()?.updates ?? []).filter(({ edits }) => edits.length > 0));

  constructor() {
    this.updater.setLibrary([...this.data.shelf.items.values()]);
    this.updater.done$.subscribe(({ task, result }) => {
      if (task.runs.join() === [...this.ticked()].join()) this.done.set({ runs: this.ticked(), updates: result ?? [] });
    });
    effect(() => {
      const runs = [...this.ticked()];
      const context = { by: personName(), when: new Date().toISOString() };
      untracked(() => this.updater.request({ scene: this.data.scene, task: { runs, context } }));
    });
    inject(DestroyRef).onDestroy(() => this.updater.close());
  }

  protected tick(run: string): void {
    this.ticked.update((ticked) => {
      const next = new Set(ticked);
      if (!next.delete(run)) next.add(run);
      return next;
    });
  }

  protected open(run: string): void {
    this.opened.update((opened) => (opened === run ? null : run));
  }

  protected figures({ before, after }: LayerUpdate): readonly Figure[] {
    const time = (ticks: number | undefined): string | undefined =>
      ticks === undefined ? undefined : formatShort(ticks, this.data.scene.rate);
    return [
      figure(time(before?.starts), time(after?.starts)),
      figure(time(before?.ends), time(after?.ends)),
      figure(before?.keys.toString(), after?.keys.toString()),
    ];
  }

  protected look(run: RunRecord): void {
    this.ref.close({ type: 'look', run });
  }

  protected update(): void {
    const ready = this.ready();
    const label = ready.length === 1 ? 'Update a run' : `Update ${ready.length} runs`;
    this.ref.close({ type: 'step', step: { label, edits: ready.flatMap(({ edits }) => edits) } });
  }

  private says(run: RunRecord, found: RunUpdate | undefined): string {
    if (!this.ticked().has(run.id)) return 'stays at the old revision';
    if (this.isPlanning()) return 'planning…';
    if (!found || found.edits.length === 0) return 'cannot be updated';
    const count = found.layers.length;
    if (count === 0) return 'no layer changes';
    return count === 1 ? '1 layer changes' : `${count} layers change`;
  }
}
