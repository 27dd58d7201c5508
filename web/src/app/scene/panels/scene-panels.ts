import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  effect,
  inject,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Layer, Recipe, Scene } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { LayoutService } from '../../layout/layout.service';
import type { LayerStep } from '../../looks/layer-step';
import { DialActions, type DialChange } from '../actions/dial-actions';
import { LayerActions } from '../actions/layer-actions';
import { RecipeActions } from '../actions/recipe-actions';
import { RunActions } from '../actions/run-actions';
import { TableActions } from '../actions/table-actions';
import { Teller } from '../actions/teller';
import { CurvePanel } from '../curve/curve-panel';
import { DraftStore } from '../draft.store';
import { PlayerStore } from '../player.store';
import { RunState } from '../run-state';
import { SceneStore } from '../scene.store';
import { Selection } from '../selection';
import { TimingPanel } from '../timing/timing-panel';
import { CopiesPanel } from './copies-panel';
import { CuesPanel, type CueChange } from './cues-panel';
import { DialsPanel } from './dials-panel';
import { FindingsPanel, type Place } from './findings-panel';
import { HistoryPanel } from './history-panel';
import { LayerPanel } from './layer-panel';
import { PANEL_LABELS, PANELS, PANELS_BY_KEY, type Panel } from './panels';
import { RunsPanel } from './runs-panel';

/** The panels below the preview, one of them open, under their tabs. */
@Component({
  selector: 'wx-scene-panels',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    CopiesPanel,
    CuesPanel,
    CurvePanel,
    DialsPanel,
    FindingsPanel,
    HistoryPanel,
    Icon,
    LayerPanel,
    RunsPanel,
    TimingPanel,
  ],
  templateUrl: './scene-panels.html',
  styleUrl: './scene-panels.scss',
})
export class ScenePanels {
  /** What the scene would be while a curve is dragged; null: as it is. */
  readonly tried = output<Scene | null>();

  private readonly detector = inject(ChangeDetectorRef);
  protected readonly store = inject(SceneStore);
  protected readonly draftStore = inject(DraftStore);
  protected readonly run = inject(RunState);
  protected readonly selection = inject(Selection);
  protected readonly player = inject(PlayerStore);
  protected readonly teller = inject(Teller);
  protected readonly said = inject(RecipeActions);
  protected readonly runs = inject(RunActions);
  protected readonly tables = inject(TableActions);
  protected readonly layers = inject(LayerActions);
  protected readonly dials = inject(DialActions);
  protected readonly layout = inject(LayoutService);
  protected readonly time = toSignal(this.player.time$, { initialValue: 0 });
  protected readonly history = toSignal(this.store.history$, { requireSync: true });
  protected readonly panels = PANELS;
  protected readonly panelLabels = PANEL_LABELS;
  protected readonly panel = signal<Panel>('curve');

  protected readonly selectedLayer = computed((): Layer | null => {
    const layers = this.run.shown()?.drawn.layers ?? [];
    return layers.find(({ id }) => id === this.selection.lead()) ?? null;
  });
  protected readonly selectedLayers = computed(() => {
    const selection = this.selection.all();
    return (this.run.standing()?.layers ?? []).filter(({ id }) => selection.has(id));
  });
  protected readonly standingLayer = computed((): Layer | null => {
    const layers = this.run.standing()?.layers ?? [];
    return layers.find(({ id }) => id === this.selection.lead()) ?? null;
  });
  protected readonly dataColumns = computed(() => [
    ...new Set(this.run.standing()?.layers.flatMap(({ data }) => Object.keys(data))),
  ]);

  constructor() {
    effect(() => {
      if (this.run.isCopying()) this.panel.set('timing');
    });
  }

  protected stepLayers(step: LayerStep): void {
    this.atOnce(() => this.layers.step(step));
  }

  protected setCues(change: CueChange): void {
    this.atOnce(() => this.tables.setCues(change));
  }

  protected setDial(change: DialChange): void {
    this.atOnce(() => this.dials.set(change));
  }

  protected changeCopies(recipe: Recipe): void {
    this.atOnce(() => this.draftStore.change(recipe));
  }

  /** Fields change what they were given, and the next one may be set before the page is drawn: it is given what came of this one. */
  private atOnce(change: () => void): void {
    change();
    this.detector.detectChanges();
  }

  protected fold(): void {
    this.layout.set({ isPanelFolded: !this.layout.layout().isPanelFolded });
  }

  /** The key that opens a panel. */
  protected keyOf(panel: Panel): number {
    return PANELS_BY_KEY.indexOf(panel) + 1;
  }

  openPanel(panel: Panel): void {
    this.panel.set(panel);
    if (this.layout.layout().isPanelFolded) this.fold();
  }

  protected badge(panel: Panel): number | null {
    const scene = this.run.standing();
    const counts = {
      findings: this.run.findings().length,
      runs: scene?.runs.length,
      cues: scene?.cues.length,
    } as const;
    return panel in counts ? counts[panel as keyof typeof counts] || null : null;
  }

  protected goTo({ layer, time }: Place): void {
    if (layer !== null) this.selection.lead.set(layer);
    if (time !== null) this.player.go(time);
  }
}
