import {
  afterNextRender,
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  effect,
  ElementRef,
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
import { MatMenuModule } from '@angular/material/menu';
import { Router, RouterLink } from '@angular/router';
import { keyTimes, leftOut, type DragSets, type Layer, type Point, type Recipe, type Scene } from '@wexikine/core';
import { GuideCard } from '../guide/guide-card';
import type { GuideState } from '../guide/guide-steps';
import { Icon } from '../icons/icon';
import { LayoutService, USUAL } from '../layout/layout.service';
import { Splitter } from '../layout/splitter';
import { LibraryService } from '../library/library.service';
import { TopBar } from '../top-bar';
import { StageActions } from './stage/stage-actions';
import { ArtworkActions, MOST_AT_ONCE } from './artwork/artwork-actions';
import { droppedFiles } from './artwork/dropped-files';
import { ConflictActions } from './actions/conflict-actions';
import { DialActions } from './actions/dial-actions';
import { LayerActions } from './actions/layer-actions';
import { RecipeActions } from './actions/recipe-actions';
import { RunActions } from './actions/run-actions';
import { TableActions } from './actions/table-actions';
import { Teller } from './actions/teller';
import { commandFor, isMainKey, neighbourKey, type SceneCommand } from './scene-keys';
import { downloadScene, downloadPage } from './download';
import { DraftStore } from './draft.store';
import { CopiesPanel } from './panels/copies-panel';
import { CuesPanel } from './panels/cues-panel';
import { CurvePanel } from './curve/curve-panel';
import { DialsPanel } from './panels/dials-panel';
import { FindingsPanel, type Place } from './panels/findings-panel';
import { HistoryPanel } from './panels/history-panel';
import { LayerPanel } from './panels/layer-panel';
import { PANEL_LABELS, PANELS, PANELS_BY_KEY, type Panel } from './panels/panels';
import { RunsPanel } from './panels/runs-panel';
import { firstLook } from './first-recipe';
import { PlayerStore } from './player.store';
import { Preview, type PreviewOptions } from './preview/preview';
import { Transport } from './preview/transport';
import { SCENE_PROVIDERS } from './scene-providers';
import { SceneStore } from './scene.store';
import type { StageStep } from './stage/stage-handles';
import { SaveNote } from './save-note';
import { SentenceBar } from './sentence/sentence-bar';
import { KeysView } from './keys/keys-view';
import { KeyEdits } from './keys/key-edits';
import type { TimeWindow } from './sheet/time-window';
import type { SheetView } from './sheet/view-switch';
import { TimingPanel } from './timing/timing-panel';
import { RunState } from './run-state';
import { SoundPlayer } from './sound/sound-player';
import type { Placed } from './sheet/row-drop';
import { RunSheet } from './sheet/run-sheet';

const BAKED =
  'What rigs drive, and motion along paths, stands in the page as keys, at most 0.25 px off: it cannot carry formulas.';

/** One scene: the sentence, the run sheet, the preview and the panels below it. */
@Component({
  selector: 'wx-scene-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CopiesPanel,
    CuesPanel,
    CurvePanel,
    DialsPanel,
    FindingsPanel,
    GuideCard,
    HistoryPanel,
    Icon,
    KeysView,
    LayerPanel,
    MatMenuModule,
    Preview,
    RouterLink,
    RunsPanel,
    RunSheet,
    SaveNote,
    SentenceBar,
    Splitter,
    TimingPanel,
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
  protected readonly shelf = this.run.shelf;
  protected readonly player = inject(PlayerStore);
  protected readonly teller = inject(Teller);
  protected readonly said = inject(RecipeActions);
  protected readonly runs = inject(RunActions);
  protected readonly tables = inject(TableActions);
  protected readonly layers = inject(LayerActions);
  protected readonly dials = inject(DialActions);
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
  private readonly sentence = viewChild(SentenceBar);
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
  protected readonly history = toSignal(this.store.history$, { requireSync: true });
  protected readonly save = toSignal(this.store.save$, { requireSync: true });
  protected readonly libraryState = toSignal(this.library.state$, { requireSync: true });
  protected readonly presets = toSignal(this.library.offered$, { initialValue: [] });
  protected readonly time = toSignal(this.player.time$, { initialValue: 0 });
  protected readonly isPlaying = toSignal(this.player.isPlaying$, { requireSync: true });
  protected readonly isLooping = toSignal(this.player.isLooping$, { requireSync: true });
  protected readonly way = toSignal(this.player.way$, { requireSync: true });
  protected readonly realRate = toSignal(this.player.rate$, { requireSync: true });

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private staged: string | null = null;
  protected readonly panels = PANELS;
  protected readonly panel = signal<Panel>('curve');
  protected readonly selected = signal<string | null>(null);
  /** Layers that are selected besides it; selecting another one alone forgets them. */
  private readonly also = linkedSignal<string | null, ReadonlySet<string>>({
    source: this.selected,
    computation: () => new Set(),
  });
  protected readonly selection = computed((): ReadonlySet<string> => {
    const selected = this.selected();
    return new Set([...(selected === null ? [] : [selected]), ...this.also()]);
  });
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
  });

  protected readonly selectedLayer = computed((): Layer | null => {
    const layers = this.shown()?.drawn.layers ?? [];
    return layers.find(({ id }) => id === this.selected()) ?? null;
  });

  protected readonly dataColumns = computed(() => [
    ...new Set(this.run.standing()?.layers.flatMap(({ data }) => Object.keys(data))),
  ]);

  protected readonly selectedLayers = computed(() => {
    const selection = this.selection();
    return (this.shown()?.standing.layers ?? []).filter(({ id }) => selection.has(id));
  });

  protected readonly standingLayer = computed((): Layer | null => {
    const layers = this.shown()?.standing.layers ?? [];
    return layers.find(({ id }) => id === this.selected()) ?? null;
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
    effect(() => {
      if (this.run.isCopying()) this.panel.set('timing');
    });
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

  protected change(recipe: Recipe): void {
    this.draftStore.change(recipe);
    // At once: a field of the sentence changes the recipe that it was given, and that must be the newest.
    this.detector.detectChanges();
  }

  /** The main button, or its keys: first a dry run, then applying it. */
  protected act(): void {
    if (this.run.isWaiting()) this.draftStore.setLive(true);
    else void this.apply();
  }

  protected async apply(): Promise<void> {
    const count = this.run.count();
    const isChange = this.run.changing() !== null;
    const applied = await this.draftStore.apply();
    if (applied === 'changed')
      this.teller.tell('Nothing was applied: the sentence or the scene was changed meanwhile.');
    if (applied === 'failed')
      this.teller.tell('Nothing was applied: it could not be planned. Change a field and try again.');
    if (applied !== 'done') return;
    // Whatever field was open is done with; the keys now belong to the preview, so that Space plays. The editor gives
    // the focus back to its field as it goes, so the preview takes it after that.
    this.sentence()?.shut();
    afterNextRender(() => this.preview()?.focus(), { injector: this.injector });
    const isCopied = this.draft()?.recipe.operation === 'multiply';
    const done = isCopied
      ? `Made ${count === 1 ? '1 copy' : `${count} copies`}.`
      : `Applied to ${count === 1 ? '1 layer' : `${count} layers`}.`;
    this.teller.tell(isChange ? 'The run was changed.' : done);
  }

  protected readonly isGuided = linkedSignal(() => this.guide() !== undefined);
  private runsAtFirst: number | null = null;
  protected readonly guideState = computed((): GuideState => {
    const draft = this.draft();
    const runs = this.run.standing()?.runs.length ?? 0;
    this.runsAtFirst ??= this.run.standing() ? runs : null;
    return {
      recipe: draft?.recipe ?? null,
      isLive: draft?.isLive === true,
      isPlaying: this.isPlaying(),
      isApplied: draft?.isApplied === true,
      runsAtFirst: this.runsAtFirst ?? runs,
      runs,
    };
  });
  private pointedAt: Element | null = null;

  /** Rings what the guide speaks of. */
  protected pointAt(selector: string | null): void {
    this.pointedAt?.classList.remove('guided');
    this.pointedAt = null;
    if (selector === null) return;
    setTimeout(() => {
      this.pointedAt = this.element.querySelector(selector);
      this.pointedAt?.classList.add('guided');
    });
  }

  protected readonly panelLabels = PANEL_LABELS;

  protected fold(): void {
    this.layout.set({ isPanelFolded: !this.layout.layout().isPanelFolded });
  }

  protected openPanel(panel: Panel): void {
    this.panel.set(panel);
    if (this.layout.layout().isPanelFolded) this.fold();
  }

  protected badge(panel: Panel): number | null {
    const scene = this.shown()?.standing;
    const counts = {
      findings: this.run.findings().length,
      runs: scene?.runs.length,
      cues: scene?.cues.length,
    } as const;
    return panel in counts ? counts[panel as keyof typeof counts] || null : null;
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
    const selected = await this.tables.openData(new Set([...this.run.picked(), ...this.selection()]));
    if (selected) this.selectOnly(selected);
  }

  /** A layer put elsewhere in the sheet, with all that are selected where it is one of them. */
  protected placeLayer({ layer, ...to }: Placed): void {
    this.stageActions.place(this.selection().has(layer) ? this.selection() : new Set([layer]), to);
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
  protected selectOnly([first, ...others]: readonly string[]): void {
    this.selected.set(first ?? null);
    this.also.set(new Set(others));
    // The next key may come within the same frame, and is about what is selected now.
    this.detector.detectChanges();
  }

  protected async bring(files: readonly File[], at: Point | null): Promise<void> {
    const [first, ...others] = await this.artwork.bring(files, at);
    if (first) this.selectOnly([first, ...others].map(({ id }) => id));
  }

  /** Selects one more layer, or one less. */
  protected selectAlso(id: string): void {
    if (this.selected() === null) return this.selectOnly([id]);
    if (this.selected() === id) return;
    this.also.update((also) =>
      also.has(id) ? new Set([...also].filter((one) => one !== id)) : new Set([...also, id]),
    );
    this.detector.detectChanges();
  }

  protected goTo({ layer, time }: Place): void {
    if (layer !== null) this.selected.set(layer);
    if (time !== null) this.player.go(time);
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

  protected exportJson(): void {
    if (this.store.scene) void downloadScene(this.store.scene);
  }

  protected async exportPage(): Promise<void> {
    const { scene } = this.store;
    if (!scene) return;
    await downloadPage(scene);
    const isBaked = scene.runs.some(({ rig, off }) => rig && off !== true) || scene.layers.some(({ path }) => path);
    const told = [...(isBaked ? [BAKED] : []), ...[leftOut(scene)].filter((sentence) => sentence !== null)];
    if (told.length > 0) this.teller.tell(told.join(' '));
  }

  /** Shows a view beside the preview; asked for once more, the run sheet again. */
  private showView(view: SheetView): void {
    this.sheetView.update((shown) => (shown === view ? 'sheet' : view));
  }

  protected zoomBy(factor: number): void {
    this.preview()?.zoomBy(factor);
  }

  protected readonly rateText = computed(() => {
    const real = this.realRate();
    return real === null ? 'Paused' : `Playing, ${real.toFixed(1)} frames a second drawn`;
  });

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
      return this.act();
    }
    if (target.closest('input:not([type=checkbox]):not([type=radio]), textarea, select, .cdk-overlay-container'))
      return;
    const command = commandFor(event, target.closest('button, a, [role=row]') !== null);
    const action = command && this.actionFor(command);
    if (!action) return;
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
    if (this.selected() !== null) return;
    const [first] = [...(plan?.layers ?? [])].sort((a, b) => a.place - b.place).map(({ layer }) => layer);
    const picked = first ?? [...this.run.picked()][0];
    if (picked !== undefined) this.selected.set(picked);
  }
}
