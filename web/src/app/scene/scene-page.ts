import {
  afterNextRender,
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  effect,
  inject,
  Injector,
  input,
  linkedSignal,
  signal,
  type AfterViewInit,
  type OnDestroy,
  type TemplateRef,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { keyTimes, type DragSets, type Layer, type Point, type Scene } from '@wexikine/core';
import { Icon } from '../icons/icon';
import { LayoutService, USUAL } from '../layout/layout.service';
import { Splitter } from '../layout/splitter';
import { LibraryService } from '../library/library.service';
import { TopBar } from '../top-bar';
import { StageActions } from './stage/stage-actions';
import { ArtworkActions, MOST_AT_ONCE } from './artwork/artwork-actions';
import { droppedFiles } from './artwork/dropped-files';
import { ConflictActions } from './actions/conflict-actions';
import { LayerActions } from './actions/layer-actions';
import { RecipeActions } from './actions/recipe-actions';
import { TableActions } from './actions/table-actions';
import { Teller } from './actions/teller';
import { commandFor, isMainKey, neighbourKey, type SceneCommand } from './scene-keys';
import { DraftStore } from './draft.store';
import { GuidedBatch } from './guided-batch';
import { CurvePanel } from './curve/curve-panel';
import { PANELS_BY_KEY, type Panel } from './panels/panels';
import { ScenePanels } from './panels/scene-panels';
import { firstLook } from './first-recipe';
import { PlayerStore } from './player.store';
import { Preview, type PreviewOptions } from './preview/preview';
import { Transport } from './preview/transport';
import { SCENE_PROVIDERS } from './scene-providers';
import { SceneStore } from './scene.store';
import type { StageStep } from './stage/stage-handles';
import { Say } from './sentence/say';
import { SceneBar } from './scene-bar';
import { SceneFoot } from './scene-foot';
import { Selection } from './selection';
import { KeysView } from './keys/keys-view';
import { KeyEdits } from './keys/key-edits';
import type { TimeWindow } from './sheet/time-window';
import type { SheetView } from './sheet/view-switch';
import { RunState } from './run-state';
import { SoundPlayer } from './sound/sound-player';
import type { Placed } from './sheet/row-drop';
import { RunSheet } from './sheet/run-sheet';

/** One scene: the sentence, the run sheet, the preview and the panels below it. */
@Component({
  selector: 'wx-scene-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CurvePanel,
    GuidedBatch,
    Icon,
    KeysView,
    Preview,
    RouterLink,
    RunSheet,
    Say,
    SceneBar,
    SceneFoot,
    ScenePanels,
    Splitter,
    Transport,
  ],
  providers: SCENE_PROVIDERS,
  templateUrl: './scene-page.html',
  styleUrl: './scene-page.scss',
  host: {
    role: 'main',
    '[class.alone]': 'isPreviewAlone()',
    '(document:keydown)': 'key($event)',
    '(window:beforeunload)': 'leave($event)',
    '(dragover)': 'hover($event)',
    '(drop)': 'dropFiles($event)',
    '(document:paste)': 'pasteFiles($event)',
  },
})
export class ScenePage implements AfterViewInit, OnDestroy {
  /** From the route. */
  readonly id = input.required<string>();
  /** A preset to begin with, from the address. */
  readonly preset = input<string>();
  /** A recipe of the library to begin with, from the address. */
  readonly recipe = input<string>();
  /** Set where the guided first batch is wanted. */
  readonly guide = input<string>();
  /** Set where its draft is to be tried. */
  readonly draftOf = input<string>();

  protected readonly store = inject(SceneStore);
  protected readonly draftStore = inject(DraftStore);
  protected readonly run = inject(RunState);
  protected readonly shown = this.run.shown;
  protected readonly draft = this.run.draft;
  protected readonly player = inject(PlayerStore);
  protected readonly teller = inject(Teller);
  protected readonly said = inject(RecipeActions);
  protected readonly tables = inject(TableActions);
  protected readonly layers = inject(LayerActions);
  private readonly conflicts = inject(ConflictActions);
  private readonly artwork = inject(ArtworkActions);
  private readonly stageActions = inject(StageActions);
  private readonly router = inject(Router);
  private readonly injector = inject(Injector);
  private readonly topBar = inject(TopBar);
  private readonly detector = inject(ChangeDetectorRef);
  private readonly library = inject(LibraryService);
  private readonly bar = viewChild.required<TemplateRef<unknown>>('bar');
  private readonly preview = viewChild(Preview);
  private readonly say = viewChild(Say);
  private readonly panels = viewChild(ScenePanels);
  private readonly sheet = viewChild(RunSheet);
  /** What stands beside the preview; whichever it is, it shows the same stretch of time. */
  protected readonly sheetView = signal<SheetView>('sheet');
  protected readonly timeWindow = signal<TimeWindow | null>(null);
  /** What the scene would be while something is dragged; the preview shows it at once. */
  protected readonly tried = signal<Scene | null>(null);
  protected readonly layout = inject(LayoutService);
  protected readonly usual = USUAL;
  /** The preview has the whole window. */
  protected readonly isPreviewAlone = signal(false);

  protected readonly load = toSignal(this.store.load$, { requireSync: true });
  private readonly save = toSignal(this.store.save$, { requireSync: true });
  protected readonly time = toSignal(this.player.time$, { initialValue: 0 });
  protected readonly isPlaying = toSignal(this.player.isPlaying$, { requireSync: true });
  protected readonly isLooping = toSignal(this.player.isLooping$, { requireSync: true });
  protected readonly way = toSignal(this.player.way$, { requireSync: true });

  private staged: string | null = null;
  protected readonly selection = inject(Selection);
  /** What a drag on the stage sets. */
  protected readonly dragSets = signal<DragSets>('along');
  protected readonly zoom = signal(1);
  protected readonly options = signal<PreviewOptions>({
    safeAreas: true,
    checks: false,
    outside: false,
    paths: true,
    sight: null,
    grid: null,
    ghosts: null,
  });

  protected readonly selectedLayer = computed((): Layer | null => {
    const layers = this.shown()?.drawn.layers ?? [];
    return layers.find(({ id }) => id === this.selection.lead()) ?? null;
  });

  constructor() {
    effect(() => {
      this.library.tryDraft(this.draftOf() ?? null);
      this.draftStore.wantedPreset = this.draftOf() ?? this.preset() ?? null;
      this.draftStore.wantedRecipe = this.recipe() ?? null;
      void this.store.open(this.id());
    });
    effect(() => {
      const scene = this.shown()?.standing;
      if (scene) this.showStage(scene);
    });
    effect(() => {
      const save = this.save();
      if (save.type === 'conflict') this.conflicts.ask(save.conflict);
    });
    const sound = inject(SoundPlayer);
    effect(() => sound.setLayers(this.run.standing()?.layers ?? []));
    effect(() => this.selectFirst());
    // Keys are changed as fast as they are typed: views have the scene of after before the next one comes.
    inject(KeyEdits).changed$.subscribe(() => this.detector.detectChanges());
    this.store.problem$.subscribe((message) => this.teller.tell(message));
    this.store.others$.subscribe((message) => this.teller.tell(message));
  }

  ngAfterViewInit(): void {
    this.topBar.content.set(this.bar());
  }

  ngOnDestroy(): void {
    this.topBar.content.set(null);
    this.library.tryDraft(null);
  }

  /** The preview takes the keys, so that Space plays; the field that was open gives the focus back as it goes, so after that. */
  protected focusPreview(): void {
    afterNextRender(() => this.preview()?.focus(), { injector: this.injector });
  }

  protected readonly isGuided = linkedSignal(() => this.guide() !== undefined);
  protected openPanel(panel: Panel): void {
    this.panels()?.openPanel(panel);
  }

  /** A change by hand on the preview: arrow keys come fast, and the next one must find the scene of after. */
  protected stageStep(step: StageStep): void {
    this.layers.step(step);
    this.detector.detectChanges();
  }

  protected addLayers(): void {
    this.layers.add((files) => void this.bring(files, null));
  }

  protected async openData(): Promise<void> {
    const selected = await this.tables.openData(new Set([...this.run.picked(), ...this.selection.all()]));
    if (selected) this.selectOnly(selected);
  }

  /** A layer put elsewhere in the sheet, with all that are selected where it is one of them. */
  protected placeLayer({ layer, ...to }: Placed): void {
    this.stageActions.place(this.selection.all().has(layer) ? this.selection.all() : new Set([layer]), to);
  }

  /** Files may be dropped anywhere on the scene. */
  protected hover(event: DragEvent): void {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }

  protected dropFiles(event: DragEvent): void {
    if (!event.dataTransfer || event.dataTransfer.files.length === 0) return;
    event.preventDefault();
    const at = this.preview()?.sceneAt(event) ?? null;
    void droppedFiles(event.dataTransfer, MOST_AT_ONCE).then((files) => this.bring(files, at));
  }

  protected pasteFiles(event: ClipboardEvent): void {
    const files = [...(event.clipboardData?.files ?? [])];
    if (files.length > 0) return void this.bring(files, null);
    if ((event.target as HTMLElement).closest('input, textarea, [contenteditable]')) return;
    const pasted = this.stageActions.paste(event.clipboardData?.getData('text/plain') ?? '');
    if (pasted) this.selectOnly(pasted);
  }

  /** Selects these alone. */
  protected selectOnly(ids: readonly string[]): void {
    this.selection.only(ids);
    // The next key may come within the same frame, and is about what is selected now.
    this.detector.detectChanges();
  }

  protected async bring(files: readonly File[], at: Point | null): Promise<void> {
    const [first, ...others] = await this.artwork.bring(files, at);
    if (!first) return;
    // Thousands may have come: they are drawn in one frame and selected in the next.
    await new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
    this.selectOnly([first, ...others].map(({ id }) => id));
  }

  /** Selects one more layer, or one less. */
  protected selectAlso(id: string): void {
    this.selection.flip(id);
    this.detector.detectChanges();
  }

  /** To the next or previous key: of the selected layer if it has any, else of the whole scene. */
  protected jump(direction: 1 | -1): void {
    const layer = this.selectedLayer();
    const own = layer ? keyTimes(layer) : [];
    const all = own.length > 0 ? own : (this.shown()?.drawn.layers ?? []).flatMap(keyTimes);
    const next = neighbourKey(all, this.player.time, direction);
    if (next === null) return;
    this.player.pause();
    this.player.go(next);
  }

  /** Shows a view beside the preview; asked for once more, the run sheet again. */
  private showView(view: SheetView): void {
    this.sheetView.update((shown) => (shown === view ? 'sheet' : view));
  }

  protected zoomBy(factor: number): void {
    this.preview()?.zoomBy(factor);
  }

  protected fit(): void {
    this.preview()?.fit();
  }

  protected leave(event: BeforeUnloadEvent): void {
    if (this.store.hasUnsaved) event.preventDefault();
  }

  /** Shortcuts of this screen; keys typed into a field are left to it. */
  protected key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (isMainKey(event) && !target.closest('mat-dialog-container')) {
      event.preventDefault();
      return this.say()?.act();
    }
    if (target.closest('input:not([type=checkbox]):not([type=radio]), textarea, select, .cdk-overlay-container'))
      return;
    const command = commandFor(event, target.closest('button, a, [role=row]') !== null);
    const action = command && this.actionFor(command);
    // Among keys it picked those.
    if (!action || (command === 'select-all' && event.defaultPrevented)) return;
    event.preventDefault();
    action();
  }

  private actionFor(command: SceneCommand): (() => unknown) | null {
    if (typeof command === 'object') {
      const panel = PANELS_BY_KEY[command.panel];
      return panel ? () => this.openPanel(panel) : null;
    }
    switch (command) {
      case 'undo':
        return () => this.store.undo();
      case 'redo':
        return () => this.store.redo();
      case 'next-key':
        return () => this.jump(1);
      case 'previous-key':
        return () => this.jump(-1);
      case 'next-frame':
        return () => this.player.step(1);
      case 'previous-frame':
        return () => this.player.step(-1);
      case 'play':
        return () => this.player.toggle();
      case 'begin':
        return () => this.player.go(0);
      case 'loop':
        return () => this.player.toggleLoop();
      case 'fit':
        return () => this.fit();
      case 'dry-run':
        return () => this.draftStore.setLive(!this.draft()?.isLive);
      case 'keys':
        return () => this.showView('keys');
      case 'curves':
        return () => this.showView('curves');
      case 'preview-alone':
        return () => this.isPreviewAlone.update((isAlone) => !isAlone);
      case 'leave-alone':
        return this.isPreviewAlone() ? () => this.isPreviewAlone.set(false) : null;
      case 'zoom-in':
        return () => this.sheet()?.axis.zoom(1.5);
      case 'zoom-out':
        return () => this.sheet()?.axis.zoom(1 / 1.5);
      case 'show-run':
        return () => this.sheet()?.showRun();
      case 'show-all':
        return () => this.timeWindow.set(null);
      case 'select-all':
        return () => this.selectOnly(this.stageActions.all());
      case 'shortcuts':
        return () => this.router.navigate(['/shortcuts']);
    }
  }

  /** Tells the player about the scene; a scene just opened is shown a little way in, where runs can be seen. */
  private showStage(scene: Scene): void {
    this.player.setStage(scene);
    if (this.staged === scene.id) return;
    this.staged = scene.id;
    this.player.go(firstLook(scene));
  }

  private selectFirst(): void {
    const plan = this.shown()?.plan;
    if (this.selection.lead() !== null) return;
    const [first] = [...(plan?.layers ?? [])].sort((a, b) => a.place - b.place).map(({ layer }) => layer);
    const picked = first ?? [...this.run.picked()][0];
    if (picked !== undefined) this.selection.lead.set(picked);
  }
}
