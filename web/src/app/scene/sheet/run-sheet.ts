import { toSignal } from '@angular/core/rxjs-interop';
import { map } from 'rxjs';
import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  model,
  output,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import {
  compileRigs,
  frameTicks,
  isSeen,
  layersUnder,
  nearestFrame,
  snapToCue,
  toFrameGrid,
  type Layer,
  type Parameter,
  type Recipe,
  type Scene,
  type Shelf,
  type Ticks,
} from '@wexikine/core';
import { MatMenuModule } from '@angular/material/menu';
import { enter } from '../../fields/entry';
import { WholeText } from '../../fields/whole-text';
import { Icon } from '../../icons/icon';
import { KeyEdits } from '../keys/key-edits';
import { NONE_PICKED, pickedByLayer } from '../keys/picks';
import { Sounds, type SoundState } from '../sound/sounds';
import { sheetWaves } from '../sound/sheet-waves';
import { TimeOverview } from './overview';
import { TimeAxis } from './time-axis';
import { around, type TimeWindow } from './time-window';
import { ViewSwitch, type SheetView } from './view-switch';
import { cellChecks, cellsOf, type Cell, type CellField } from './cells';
import { rowShowing, sheetColumns, sheetRows, swatch, type SheetRow, type SheetRun } from './rows';
import { RowCarrier, stepOf, type Placed } from './row-drop';
import { drivenLayer } from './driven';
import type { DrivenLayer } from './strip';
import { STRIP_HEIGHT } from './strip-paths';
import { StripView } from './strip-view';

const STRIP_PADDING = 14;
const NUMBER_WIDTH = 58;
const DIGIT_WIDTH = 9;
/** Pixels by which what is in a group stands further in. */
const NESTED = 14;
/** Pixels within which a dragged time takes that of a cue. */
const CUE_REACH = 6;

/** A value that was set by hand for one layer; null releases it. */
export interface HandValue {
  readonly layer: string;
  readonly field: CellField;
  readonly text: string | null;
}

/** A layer that is to come before another in the order; null puts it last. */
export interface Reorder {
  readonly layer: string;
  readonly before: string | null;
}

/** The table of a scene's layers with what the run gives to each, and their keys in time. */
@Component({
  selector: 'wx-run-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, ScrollingModule, StripView, TimeOverview, ViewSwitch, WholeText],
  templateUrl: './run-sheet.html',
  styleUrl: './run-sheet.scss',
  host: { '[style.--columns]': 'columnTemplate()' },
})
export class RunSheet implements AfterViewInit {
  readonly scene = input.required<Scene>();
  /** The scene without the dry run. */
  readonly standing = input.required<Scene>();
  readonly plan = input.required<SheetRun | null>();
  /** The recipe of the dry run; null where there is none. */
  readonly recipe = input.required<Recipe | null>();
  readonly shelf = input.required<Shelf>();
  readonly parameters = input.required<readonly Parameter[]>();
  readonly time = input.required<number>();
  readonly selected = input.required<string | null>();
  /** Ids of the layers that the pick catches. */
  readonly picked = input.required<ReadonlySet<string>>();
  readonly selectedChange = output<string>();
  /** Layers to be ticked or not; several where Shift was held. */
  readonly ticked = output<{ layers: readonly string[]; isOn: boolean }>();
  readonly overridden = output<HandValue>();
  readonly reordered = output<Reorder>();
  /** A layer is to be put elsewhere in depth, into a group or out of one. */
  readonly placed = output<Placed>();
  readonly dataWanted = output();
  readonly cueMoved = output<{ cue: string; at: number }>();
  readonly seek = output<number>();
  readonly addLayers = output();
  readonly removed = output<string>();
  /** The keys or the curves are wanted instead. */
  readonly viewWanted = output<SheetView>();

  protected readonly isSeen = isSeen;
  protected readonly rowHeight = STRIP_HEIGHT;
  protected readonly expanded = signal<ReadonlySet<string>>(new Set());
  protected readonly query = signal('');
  private readonly head = viewChild.required<ElementRef<HTMLElement>>('head');
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly destroy = inject(DestroyRef);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private isSeeking = false;

  protected readonly isSorted = signal(false);
  /** Rows in the order of the run: asked for, or because it was set by hand. */
  protected readonly isByPlace = computed(() => this.isSorted() || this.recipe()?.order.by === 'hand');
  /** Which rows were asked for; null: in a dry run those that take part, else all. */
  private readonly wantedScope = signal<'taking' | 'all' | null>(null);
  protected readonly takingCount = computed(() => this.plan()?.layers.length ?? 0);
  protected readonly isTakingOnly = computed(() => this.takingCount() > 0 && this.wantedScope() !== 'all');
  protected readonly rows = computed(() =>
    sheetRows(this.scene(), this.plan(), this.expanded(), this.query(), this.isByPlace(), this.isTakingOnly()),
  );
  /** The stretch of time that was asked for; null: the whole scene. */
  readonly wantedWindow = model<TimeWindow | null>(null);
  readonly axis = new TimeAxis({
    wanted: this.wantedWindow,
    want: (window) => this.wantedWindow.set(window),
    scene: this.scene,
    time: this.time,
    left: () => this.head().nativeElement.getBoundingClientRect().left,
  });
  protected readonly layersShown = computed(() => this.rows().map(({ layer }) => layer));
  private readonly standingLayers = computed(() => new Map(this.standing().layers.map((layer) => [layer.id, layer])));
  /** Layers as the run of the dry run found them, worked out for the rows that are seen. */
  private readonly layersUnder = computed(() => {
    const standing = this.standingLayers();
    const runId = this.runId();
    const layerUnder = runId === null ? (layer: Layer) => layer : layersUnder(this.standing(), runId);
    const known = new Map<string, Layer>();
    return (id: string): Layer | undefined => {
      const layer = standing.get(id);
      if (!layer || known.has(id)) return known.get(id);
      known.set(id, layerUnder(layer));
      return known.get(id);
    };
  });
  /** Rows lie as layers do, back to front, so that one can be put elsewhere among them. */
  protected readonly isInDepth = computed(() => !this.isByPlace() && !this.isTakingOnly() && this.query() === '');
  protected readonly carrier = new RowCarrier(this.rows, ({ clientY }) => {
    const viewport = this.viewport();
    if (!viewport) return 0;
    const { top } = viewport.elementRef.nativeElement.getBoundingClientRect();
    return (clientY - top + viewport.measureScrollOffset('top')) / STRIP_HEIGHT;
  });
  private readonly editing = signal<{ layer: string; field: CellField } | null>(null);
  protected readonly cellProblem = signal<string | null>(null);
  protected readonly dropTarget = signal<string | null>(null);
  private carried: string | null = null;
  private lastTicked: string | null = null;
  private readonly draggedCue = signal<{ id: string; at: number } | null>(null);
  protected readonly cueMarks = computed(() => {
    const dragged = this.draggedCue();
    return this.standing().cues.map(({ id, name, at }) => ({
      id,
      name,
      x: Math.round(this.axis.xAt(dragged?.id === id ? dragged.at : at)),
    }));
  });
  /** Parameters that one asked to see or not, over those that the run varies. */
  private readonly chosenColumns = signal<ReadonlyMap<string, boolean>>(new Map());
  protected readonly columns = computed(() => sheetColumns(this.plan(), this.parameters(), this.chosenColumns()));
  protected readonly runId = computed(() => this.plan()?.run?.id ?? null);
  protected readonly isPlayheadShown = computed(() => this.rows().length > 0 && this.axis.isPlayheadSeen());
  /** Room for the box to tick and the digits of the last place. */
  private readonly numberWidth = computed(() => {
    const digits = String(this.plan()?.layers.length ?? 0).length;
    return NUMBER_WIDTH + Math.max(0, digits - 2) * DIGIT_WIDTH;
  });
  protected readonly columnTemplate = computed(
    () =>
      `${this.numberWidth()}px minmax(120px, 168px) 56px 52px ${this.columns()
        .map(() => '54px')
        .join(' ')} minmax(0, 1fr)`,
  );

  constructor() {
    // What is selected elsewhere, or has just come in, is brought into view; of what is in a closed group, the group.
    effect(() => {
      const selected = this.selected();
      if (selected !== null) setTimeout(() => this.reveal(selected));
    });
  }

  private reveal(id: string): void {
    const viewport = this.viewport();
    const index = rowShowing(this.rows(), this.standingLayers(), id);
    if (!viewport || index < 0) return;
    const [top, size] = [viewport.measureScrollOffset('top'), viewport.getViewportSize()];
    const isSeen = index * STRIP_HEIGHT >= top && (index + 1) * STRIP_HEIGHT <= top + size;
    if (!isSeen) viewport.scrollToIndex(Math.max(0, index - 5));
  }

  ngAfterViewInit(): void {
    // Not passive, so that the page does not zoom as well.
    this.element.addEventListener('wheel', (event) => this.axis.wheel(event), { passive: false });
    const observer = new ResizeObserver(([entry]) => this.axis.setWidth(entry.contentRect.width - STRIP_PADDING));
    observer.observe(this.head().nativeElement);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  protected showScope(scope: 'taking' | 'all'): void {
    const top = this.topRow();
    this.wantedScope.set(scope);
    // The row that stood on top, or the selected one, stays where the eye is.
    setTimeout(() => {
      const rows = this.rows().map(({ layer }) => layer.id);
      const selected = this.selected();
      const kept = [selected ?? '', ...top].find((id) => rows.includes(id));
      if (kept !== undefined)
        this.viewport()?.scrollToIndex(Math.max(0, rows.indexOf(kept) - (kept === selected ? 3 : 0)));
    });
  }

  /** Ids of the rows from the first that is seen on. */
  private topRow(): string[] {
    const offset = this.viewport()?.measureScrollOffset('top') ?? 0;
    const first = Math.floor(offset / STRIP_HEIGHT);
    return this.rows()
      .slice(first, first + 40)
      .map(({ layer }) => layer.id);
  }

  /** The stretch in which the run does something; without one the whole scene. */
  showRun(): void {
    const layers = this.plan()?.layers ?? [];
    if (layers.length === 0) return this.axis.show(null);
    const first = layers.reduce((least, { starts }) => Math.min(least, starts), Infinity);
    const last = layers.reduce((most, { starts, lasts }) => Math.max(most, starts + lasts), -Infinity);
    this.axis.show(around(first, last, frameTicks(this.scene().rate)));
  }

  protected cells(row: SheetRow): readonly Cell[] {
    return cellsOf(row, this.columns(), this.recipe(), this.scene().rate);
  }

  /** The layer without the dry run, where there is one. */
  protected standingOf(id: string): Layer | undefined {
    return this.plan() === null ? undefined : this.standingLayers().get(id);
  }

  /** The layer as the run found it, to show which keys it replaces and which go; lining up only moves them. */
  protected underOf(id: string): Layer | undefined {
    return this.plan() === null || this.recipe()?.operation === 'line-up' ? undefined : this.layersUnder()(id);
  }

  /** The rigs of the scene as it is drawn. */
  protected readonly rigs = computed(() => compileRigs(this.scene()));
  private readonly indexOfLayer = computed(() => new Map(this.scene().layers.map(({ id }, index) => [id, index])));
  /** What rigs do to each layer that was asked for; the same answer as long as the scene is. */
  private readonly driven = computed(() => {
    const [rigs, indices] = [this.rigs(), this.indexOfLayer()];
    const known = new Map<string, DrivenLayer | null>();
    return (id: string): DrivenLayer | null => {
      if (!known.has(id)) known.set(id, rigs && drivenLayer(rigs, indices.get(id) ?? 0));
      return known.get(id) ?? null;
    };
  });

  protected drivenOf(id: string): DrivenLayer | null {
    return this.driven()(id);
  }

  private readonly keyEdits = inject(KeyEdits);
  private readonly picks = toSignal(this.keyEdits.picks$.pipe(map(pickedByLayer)), { initialValue: NONE_PICKED });

  /** Times at which keys of the layer are picked, in whatever view. */
  protected pickedIn(id: string): ReadonlySet<Ticks> | null {
    return this.picks().get(id) ?? null;
  }

  private readonly sounds = toSignal(inject(Sounds).states$, { initialValue: new Map<string, SoundState>() });
  /** Sounds that are at hand: their loudness across the ruler, and in rows of their own. */
  protected readonly waves = computed(() =>
    sheetWaves(this.scene().layers, this.sounds(), this.axis.window(), this.axis.width()),
  );

  protected waveOf(id: string): string | null {
    return this.waves().find((wave) => wave.id === id)?.row ?? null;
  }

  protected isShown(name: string): boolean {
    return this.columns().some((column) => column.name === name);
  }

  protected showColumn(name: string, isOn: boolean): void {
    this.chosenColumns.update((chosen) => new Map(chosen).set(name, isOn));
  }

  protected isEditing(layer: string, field: CellField): boolean {
    const editing = this.editing();
    return editing?.layer === layer && editing.field === field;
  }

  protected openCell({ layer }: SheetRow, { field }: Cell): void {
    this.cellProblem.set(null);
    this.editing.set({ layer: layer.id, field });
    setTimeout(() => document.querySelector<HTMLInputElement>(`#row-${layer.id} input.cell`)?.select());
  }

  protected checkCell(cell: Cell, event: Event): void {
    const { text, problem } = this.enteredIn(cell, (event.target as HTMLInputElement).value);
    this.cellProblem.set(text === '' ? null : problem);
  }

  /** What typing in a cell comes to, over what stands in it. */
  private enteredIn({ field, text: standing }: Cell, typed: string): { text: string; problem: string | null } {
    const { rate } = this.scene();
    const entered = enter(typed, standing.replace(/\s/g, ''), rate);
    if (entered?.ok === false) return { text: typed, problem: entered.message };
    const text = (entered?.text ?? typed).trim();
    return { text, problem: cellChecks(field, this.parameters(), this.shelf(), rate)(text) };
  }

  protected keyCell(event: KeyboardEvent, row: SheetRow, cell: Cell): void {
    event.stopPropagation();
    if (event.key === 'Escape') this.closeCell();
    if (event.key !== 'Enter' || this.cellProblem() !== null) return;
    const { text } = this.enteredIn(cell, (event.target as HTMLInputElement).value);
    this.closeCell();
    this.overridden.emit({ layer: row.layer.id, field: cell.field, text: text === '' ? null : text });
    setTimeout(() => document.getElementById(`row-${row.layer.id}`)?.focus());
  }

  protected closeCell(): void {
    this.editing.set(null);
  }

  /** Ticks a row; with Shift all rows from the one that was ticked before. */
  protected tickTo(event: MouseEvent, id: string): void {
    event.stopPropagation();
    const isOn = (event.target as HTMLInputElement).checked;
    const ids = this.rows().map(({ layer }) => layer.id);
    const [from, to] = [ids.indexOf(this.lastTicked ?? id), ids.indexOf(id)].sort((a, b) => a - b);
    const layers = event.shiftKey && from >= 0 ? ids.slice(from, to + 1) : [id];
    this.lastTicked = id;
    this.ticked.emit({ layers, isOn });
  }

  protected canReorder({ plan }: SheetRow): boolean {
    const recipe = this.recipe();
    return plan !== null && recipe !== null && recipe.operation !== 'clear';
  }

  protected grip(event: PointerEvent, row: SheetRow): void {
    if (!this.canReorder(row)) return;
    event.preventDefault();
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.carried = row.layer.id;
  }

  protected carry(event: PointerEvent): void {
    if (this.carried === null) return;
    const under = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-layer]');
    this.dropTarget.set(under?.dataset['layer'] ?? null);
  }

  protected drop(): void {
    const [layer, before] = [this.carried, this.dropTarget()];
    this.carried = null;
    this.dropTarget.set(null);
    if (layer !== null && before !== null && layer !== before) this.reordered.emit({ layer, before });
  }

  /** How far the rows are scrolled, px. */
  protected scrolledBy(): number {
    return this.viewport()?.measureScrollOffset('top') ?? 0;
  }

  /** Where the line of a drop begins: with the names at its depth. */
  protected dropLeft(depth: number): number {
    return this.numberWidth() + depth * NESTED;
  }

  protected letGo(): void {
    const placed = this.carrier.release();
    if (placed) this.placed.emit(placed);
  }

  protected pressCue(event: PointerEvent, id: string): void {
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    const cue = this.standing().cues.find((standing) => standing.id === id);
    if (cue) this.draggedCue.set({ id, at: cue.at });
  }

  protected dragCue(event: PointerEvent): void {
    const dragged = this.draggedCue();
    if (!dragged) return;
    const time = this.timeUnder(event);
    this.draggedCue.set({ id: dragged.id, at: toFrameGrid(Math.round(time), this.scene().rate) });
  }

  protected releaseCue(): void {
    const dragged = this.draggedCue();
    this.draggedCue.set(null);
    const standing = this.standing().cues.find(({ id }) => id === dragged?.id);
    if (dragged && standing && standing.at !== dragged.at) this.cueMoved.emit({ cue: dragged.id, at: dragged.at });
  }

  protected swatch({ layer }: SheetRow): string {
    return swatch(layer);
  }

  protected trackRow(_index: number, { layer }: SheetRow): string {
    return layer.id;
  }

  protected search(event: Event): void {
    this.query.set((event.target as HTMLInputElement).value);
  }

  protected toggle(id: string): void {
    this.expanded.update((expanded) => {
      const next = new Set(expanded);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  /** Arrows move between rows and open groups, Space ticks, Delete removes: as in any tree table. */
  protected key(event: KeyboardEvent, row: SheetRow): void {
    const { id } = row.layer;
    if ((event.ctrlKey || event.metaKey) && event.shiftKey && this.isInDepth()) {
      const place = stepOf(this.rows(), id, event.key);
      if (!place) return;
      event.preventDefault();
      event.stopPropagation();
      this.placed.emit({ layer: id, ...place });
      if (place.parent !== null) this.expanded.update((expanded) => new Set(expanded).add(place.parent as string));
      return void setTimeout(() => document.getElementById(`row-${id}`)?.focus());
    }
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      event.stopPropagation();
      return this.reorderBy(row, event.key === 'ArrowUp' ? -1 : 1);
    }
    switch (event.key) {
      case 'ArrowDown':
        this.focusRow(id, 1);
        break;
      case 'ArrowUp':
        this.focusRow(id, -1);
        break;
      case 'ArrowRight':
        if (row.canOpen && !row.isExpanded) this.toggle(id);
        break;
      case 'ArrowLeft':
        if (row.isExpanded) this.toggle(id);
        break;
      case ' ':
        this.ticked.emit({ layers: [id], isOn: !this.picked().has(id) });
        break;
      case 'F2': {
        const cell = this.cells(row).find(({ canEdit }) => canEdit);
        if (cell) this.openCell(row, cell);
        break;
      }
      case 'Delete':
        this.removed.emit(id);
        break;
      default:
        return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  protected press(event: PointerEvent): void {
    this.isSeeking = true;
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    this.drag(event);
  }

  protected drag(event: PointerEvent): void {
    if (!this.isSeeking) return;
    const { rate, cues } = this.scene();
    const time = snapToCue(cues, this.timeUnder(event), this.axis.ticksOf(CUE_REACH));
    this.seek.emit(nearestFrame(time, rate) * frameTicks(rate));
  }

  private timeUnder(event: MouseEvent): number {
    return Math.min(this.scene().length, Math.max(0, this.axis.timeAt(this.axis.xOf(event))));
  }

  /** Moves a row one place up or down in the order of the run. */
  private reorderBy(row: SheetRow, step: 1 | -1): void {
    if (!this.canReorder(row) || !row.plan) return;
    const inOrder = [...(this.plan()?.layers ?? [])].sort((a, b) => a.place - b.place).map(({ layer }) => layer);
    const at = inOrder.indexOf(row.layer.id);
    const before = step < 0 ? inOrder[at - 1] : (inOrder[at + 2] ?? null);
    if (at + step >= 0 && at + step < inOrder.length) this.reordered.emit({ layer: row.layer.id, before });
    setTimeout(() => document.getElementById(`row-${row.layer.id}`)?.focus());
  }

  protected release(): void {
    this.isSeeking = false;
  }

  private focusRow(id: string, step: number): void {
    const rows = this.rows();
    const index = rows.findIndex(({ layer }) => layer.id === id) + step;
    const row = rows[index];
    if (!row) return;
    this.selectedChange.emit(row.layer.id);
    this.viewport()?.scrollToIndex(Math.max(0, index - 5));
    setTimeout(() => document.getElementById(`row-${row.layer.id}`)?.focus());
  }
}
