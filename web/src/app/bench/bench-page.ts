import {
  type AfterViewInit,
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  effect,
  inject,
  input,
  type OnDestroy,
  signal,
  type TemplateRef,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import {
  createShelf,
  isPreset,
  isRig,
  recipeWords,
  type Recipe,
  revisionOf,
  type CurveItem,
  type HouseItem,
  type LibraryItem,
  type LookItem,
  type PaletteItem,
  type PresetItem,
  type RigItem,
  type SceneSummary,
} from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { type ApiProblem } from '../api/api.service';
import { Icon } from '../icons/icon';
import { LibraryActions } from '../library/library-actions.service';
import { LibraryService } from '../library/library.service';
import { PersonalService } from '../library/personal.service';
import { TopBar } from '../top-bar';
import { UndoButtons } from '../undo-buttons';
import { BenchStore, type Working } from './bench.store';
import { BenchMore } from './bench-more';
import { BenchNote } from './bench-note';
import { CurveBench } from './curve-bench';
import { HouseBench } from './house-bench';
import { LookBench } from './look-bench';
import { moreSteps, type MoreStep } from './more-steps';
import { PaletteBench } from './palette-bench';
import { RecipeBench } from './recipe-bench';
import { RigBench } from './rig-bench';
import type { RigChange } from './rig-change';
import { PresetBench } from './preset-bench';
import type { PresetChange } from './parameter-table';
import { SceneMenu } from './scene-menu';
import { PublishDialog, type PublishQuestion } from './dialogs/publish-dialog';
import { ChoiceDialog, type ChoiceQuestion } from './dialogs/choice-dialog';

/** One library item on its bench: made, tried, compared, sent for review and published. */
@Component({
  selector: 'wx-bench-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    BenchMore,
    BenchNote,
    CurveBench,
    HouseBench,
    LookBench,
    PaletteBench,
    Icon,
    MatMenuModule,
    PresetBench,
    RecipeBench,
    RigBench,
    RouterLink,
    SceneMenu,
    UndoButtons,
  ],
  providers: [BenchStore],
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
  host: { role: 'main', '(document:keydown)': 'key($event)', '(window:beforeunload)': 'leave($event)' },
})
export class BenchPage implements AfterViewInit, OnDestroy {
  /** From the route. */
  readonly id = input.required<string>();

  protected readonly store = inject(BenchStore);
  private readonly actions = inject(LibraryActions);
  private readonly personal = inject(PersonalService);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly topBar = inject(TopBar);
  private readonly detector = inject(ChangeDetectorRef);
  private readonly bar = viewChild.required<TemplateRef<unknown>>('bar');
  private readonly presetBench = viewChild(PresetBench);

  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly load = toSignal(this.store.load$, { requireSync: true });
  protected readonly isComparing = signal(false);

  protected readonly bench = computed(() => {
    const load = this.load();
    return load.type === 'ready' ? load.bench : null;
  });
  private readonly entry = computed(() => this.bench()?.detail.entry ?? null);
  /** The item as it is worked on: what is not kept yet included. */
  protected readonly item = computed((): LibraryItem | null => {
    const [bench, entry] = [this.bench(), this.entry()];
    if (!bench || !entry) return null;
    return { ...(entry.draft ?? entry.item), ...bench.history.now } as LibraryItem;
  });
  protected readonly preset = computed((): PresetItem | null => {
    const item = this.item();
    return item && isPreset(item) ? item : null;
  });
  protected readonly rig = computed((): RigItem | null => {
    const item = this.item();
    return item && isRig(item) ? item : null;
  });
  protected readonly curve = computed((): CurveItem | null => {
    const item = this.item();
    return item?.kind === 'curve' ? item : null;
  });
  protected readonly house = computed((): HouseItem | null => {
    const item = this.item();
    return item?.kind === 'house' ? item : null;
  });
  protected readonly look = computed((): LookItem | null => {
    const item = this.item();
    return item?.kind === 'look' ? item : null;
  });
  protected readonly palette = computed((): PaletteItem | null => {
    const item = this.item();
    return item?.kind === 'palette' ? item : null;
  });
  /** What a recipe says. */
  protected readonly recipe = computed(() => {
    const item = this.item();
    return item?.kind === 'recipe' ? recipeWords(item.body as Recipe, this.shelf()) : null;
  });
  protected readonly revisions = computed((): readonly LibraryItem[] => {
    const record = this.bench()?.detail.record;
    if (!record) return [];
    return record.revisions.flatMap(({ revision }) => revisionOf(record, revision) ?? []).reverse();
  });
  protected readonly hasDraft = computed(() => {
    const entry = this.entry();
    return entry !== null && (entry.draft !== null || this.bench()?.save.type !== 'clean');
  });
  protected readonly isInReview = computed(() => {
    const entry = this.entry();
    return (entry?.draft ?? entry?.item)?.state === 'in review';
  });
  protected readonly isRetired = computed(() => this.entry()?.item.state === 'retired');
  protected readonly stateWords = computed(() => {
    const published = this.revisions()[0]?.revision ?? 0;
    if (this.isInReview()) return `r${published + 1} in review`;
    if (this.hasDraft()) return published === 0 ? 'draft' : `draft of r${published + 1}`;
    return this.isRetired() ? `retired r${published}` : `published r${published}`;
  });

  protected readonly steps = computed(() =>
    moreSteps({
      hasDraft: this.hasDraft(),
      isInReview: this.isInReview(),
      isRetired: this.isRetired(),
      isPublished: this.revisions().length > 0,
      isEntrance: this.preset()?.body.phase === 'entrance',
    }),
  );

  constructor() {
    effect(() => {
      const id = this.id();
      this.personal.touch(id);
      void this.store.open(id);
    });
    effect(() => {
      if (this.bench()?.save.type === 'conflict') this.askConflict();
    });
  }

  ngAfterViewInit(): void {
    this.topBar.content.set(this.bar());
  }

  ngOnDestroy(): void {
    this.topBar.content.set(null);
  }

  protected change(label: string, fields: Partial<Working>, merge: string | null = null): void {
    const { bench } = this.store;
    if (!bench) return;
    this.store.change(label, { ...bench.history.now, ...fields }, merge);
    // At once: a part of the bench changes what it was given, and what it was given must be the newest.
    this.detector.detectChanges();
  }

  protected changePreset({ label, preset, merge }: PresetChange): void {
    this.change(label, { body: preset }, merge ?? null);
  }

  protected changeRig({ label, rig, merge }: RigChange): void {
    this.change(label, { body: rig }, merge ?? null);
  }

  protected setName(event: Event): void {
    this.change('Rename', { name: (event.target as HTMLInputElement).value }, 'name');
  }

  protected setNote(event: Event): void {
    this.change('Change the note', { note: (event.target as HTMLInputElement).value }, 'note');
  }

  protected async sendForReview(): Promise<void> {
    if (await this.done(() => this.store.move('in review'))) this.actions.tell('Sent for review.');
  }

  protected async takeBack(): Promise<void> {
    await this.done(() => this.store.move('draft'));
  }

  protected async publish(): Promise<void> {
    const [item, bench] = [this.item(), this.bench()];
    if (!item || !bench) return;
    const data: PublishQuestion = { item, published: this.revisions()[0] ?? null, uses: bench.detail.uses };
    const reference = this.dialog.open<PublishDialog, PublishQuestion, string>(PublishDialog, {
      data,
      width: '640px',
      maxWidth: '94vw',
    });
    const summary = await firstValueFrom(reference.afterClosed());
    if (summary === undefined) return;
    if (await this.done(() => this.store.move('published', summary))) {
      this.isComparing.set(false);
      this.actions.tell(`Published as r${this.revisions()[0]?.revision ?? 1}. It never changes from now on.`);
    }
  }

  protected take(step: MoreStep): void {
    switch (step) {
      case 'publish':
        return void this.publish();
      case 'duplicate':
        return void this.duplicate();
      case 'exit':
        return void this.makeExit();
      case 'discard':
        return void this.discard();
      case 'retire':
        return void this.retire(true);
      case 'bring back':
        return void this.retire(false);
    }
  }

  private async discard(): Promise<void> {
    const [item, published] = [this.item(), this.revisions()[0]];
    if (!item) return;
    const question: ChoiceQuestion = {
      title: published ? `Discard the draft of r${published.revision + 1}?` : `Discard “${item.name}”?`,
      text: published
        ? `r${published.revision} stays as it is. What was changed since is thrown away.`
        : 'It was never published, so it goes altogether.',
      choices: [{ value: 'discard', label: 'Discard', isMain: true }],
    };
    if ((await this.ask(question)) !== 'discard') return;
    const { name, note, tags, collection } = item;
    let isGone = false;
    const content = { kind: item.kind, body: item.body } as never;
    if (!(await this.done(async () => void (isGone = await this.store.discard())))) return;
    if (!isGone) return this.actions.tell('The draft was discarded.');
    await this.router.navigate(['/library']);
    this.actions.offer(`“${name}” was discarded.`, 'Undo', () =>
      this.actions.createAndOpen({ id: item.id, name, note, tags: [...tags], collection, content }),
    );
  }

  private async duplicate(): Promise<void> {
    const item = this.item();
    if (item) await this.actions.duplicate(item);
  }

  private async makeExit(): Promise<void> {
    const item = this.preset();
    if (item) await this.actions.makeExit(item);
  }

  private async retire(retired: boolean): Promise<void> {
    const item = this.item();
    if (item && (await this.actions.retire([item], retired))) await this.store.open(item.id);
  }

  /** The scene's own screen with this draft in the sentence: a dry run on real layers. */
  protected async tryOn({ id }: SceneSummary): Promise<void> {
    const item = this.item();
    if (!item) return;
    const queryParams = this.hasDraft() ? { draftOf: item.id } : { preset: item.id };
    await this.router.navigate(['/scenes', id], { queryParams });
  }

  /** A scene's own screen with this recipe in the sentence. */
  protected useIn({ id }: SceneSummary): void {
    void this.router.navigate(['/scenes', id], { queryParams: { recipe: this.id() } });
  }

  /** Before another screen is shown: what is not kept yet is kept, or it is asked whether to go without. */
  async canLeave(): Promise<boolean> {
    if (await this.store.flush()) return true;
    const save = this.bench()?.save;
    const choice = await this.ask({
      title: 'The draft is not kept',
      text: save?.type === 'failed' || save?.type === 'conflict' ? save.message : 'It could not be saved.',
      choices: [
        { value: 'leave', label: 'Leave without it' },
        { value: 'stay', label: 'Stay', isMain: true },
      ],
    });
    return choice === 'leave';
  }

  protected leave(event: BeforeUnloadEvent): void {
    if (this.store.hasUnsaved) event.preventDefault();
  }

  /** Shortcuts of the bench; keys typed into a field are left to it. */
  protected key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (
      target.closest('input:not([type=checkbox]):not([type=range]), textarea, select, .cm-editor, mat-dialog-container')
    )
      return;
    const isCommand = event.ctrlKey || event.metaKey;
    const letter = event.key.toLowerCase();
    if (isCommand && letter === 'z') {
      if (event.shiftKey) this.store.redo();
      else this.store.undo();
    } else if (isCommand && letter === 'y') this.store.redo();
    else if (event.key === ' ' && !target.closest('button, a, [role=gridcell], [role=slider]'))
      this.presetBench()?.togglePlay();
    else if (event.key === '?' && !target.closest('[role=gridcell]')) void this.router.navigate(['/shortcuts']);
    else return;
    event.preventDefault();
  }

  private async ask(question: ChoiceQuestion): Promise<string | undefined> {
    const reference = this.dialog.open<ChoiceDialog, ChoiceQuestion, string>(ChoiceDialog, {
      data: question,
      width: '460px',
    });
    return firstValueFrom(reference.afterClosed());
  }

  private askConflict(): void {
    const save = this.bench()?.save;
    const question: ChoiceQuestion = {
      title: 'Changed in another window',
      text: save?.type === 'conflict' ? save.message : '',
      choices: [
        { value: 'theirs', label: 'Take theirs (mine is one undo away)' },
        { value: 'mine', label: 'Keep mine', isMain: true },
      ],
      mustChoose: true,
    };
    void this.ask(question).then((choice) =>
      this.done(() => this.store.resolve(choice === 'theirs' ? 'theirs' : 'mine')),
    );
  }

  /** Does something; a failure is told as its sentence. */
  private async done(work: () => Promise<void>): Promise<boolean> {
    try {
      await work();
      return true;
    } catch (error) {
      this.actions.tell((error as ApiProblem).message);
      return false;
    }
  }
}
