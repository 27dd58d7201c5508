import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  DestroyRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import {
  frameTicks,
  nearestFrame,
  snapToCue,
  toFrameGrid,
  type Layer,
  type Parameter,
  type Recipe,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { MatMenuModule } from '@angular/material/menu';
import { Icon } from '../../icons/icon';
import { rulerMarks } from './ruler';
import { cellChecks, cellsOf, type Cell, type CellField } from './cells';
import { sheetColumns, sheetRows, swatch, type SheetRow, type SheetRun } from './rows';
import { layerUnder } from './strip';
import { STRIP_HEIGHT, StripView } from './strip-view';

const STRIP_PADDING = 14;
const NUMBER_WIDTH = 58;
const DIGIT_WIDTH = 9;
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
  imports: [Icon, MatMenuModule, ScrollingModule, StripView],
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
  readonly dataWanted = output();
  readonly cueMoved = output<{ cue: string; at: number }>();
  readonly seek = output<number>();
  readonly addLayers = output();
  readonly removed = output<string>();

  protected readonly rowHeight = STRIP_HEIGHT;
  protected readonly expanded = signal<ReadonlySet<string>>(new Set());
  protected readonly query = signal('');
  protected readonly stripWidth = signal(0);
  private readonly head = viewChild.required<ElementRef<HTMLElement>>('head');
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly destroy = inject(DestroyRef);
  private isSeeking = false;

  protected readonly isSorted = signal(false);
  /** Rows in the order of the run: asked for, or because it was set by hand. */
  protected readonly isByPlace = computed(() => this.isSorted() || this.recipe()?.order.by === 'hand');
  protected readonly rows = computed(() =>
    sheetRows(this.scene(), this.plan(), this.expanded(), this.query(), this.isByPlace()),
  );
  private readonly standingLayers = computed(() => new Map(this.standing().layers.map((layer) => [layer.id, layer])));
  /** Layers as the run of the dry run found them, worked out for the rows that are seen. */
  private readonly layersUnder = computed(() => {
    const standing = this.standingLayers();
    const run = this.standing().runs.find(({ id }) => id === this.runId());
    const steps = new Map(run?.steps.map((step) => [step.layer, step]));
    const known = new Map<string, Layer>();
    return (id: string): Layer | undefined => {
      const layer = standing.get(id);
      if (!layer || known.has(id)) return known.get(id);
      known.set(id, layerUnder(layer, steps.get(id)));
      return known.get(id);
    };
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
      x: Math.round(((dragged?.id === id ? dragged.at : at) / this.scene().length) * this.stripWidth()),
    }));
  });
  /** Parameters that one asked to see or not, over those that the run varies. */
  private readonly chosenColumns = signal<ReadonlyMap<string, boolean>>(new Map());
  protected readonly columns = computed(() => sheetColumns(this.plan(), this.parameters(), this.chosenColumns()));
  protected readonly runId = computed(() => this.plan()?.run?.id ?? null);
  protected readonly marks = computed(() => rulerMarks(this.scene().length, this.stripWidth(), this.scene().rate));
  protected readonly playheadX = computed(() => Math.round((this.time() / this.scene().length) * this.stripWidth()));
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

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(([entry]) =>
      this.stripWidth.set(Math.max(0, entry.contentRect.width - STRIP_PADDING)),
    );
    observer.observe(this.head().nativeElement);
    this.destroy.onDestroy(() => observer.disconnect());
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

  protected checkCell({ field }: Cell, event: Event): void {
    const text = (event.target as HTMLInputElement).value;
    const check = cellChecks(field, this.parameters(), this.shelf(), this.scene().rate);
    this.cellProblem.set(text.trim() === '' ? null : check(text));
  }

  protected keyCell(event: KeyboardEvent, row: SheetRow, cell: Cell): void {
    event.stopPropagation();
    if (event.key === 'Escape') this.closeCell();
    if (event.key !== 'Enter' || this.cellProblem() !== null) return;
    const text = (event.target as HTMLInputElement).value.trim();
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

  protected pressCue(event: PointerEvent, id: string): void {
    event.stopPropagation();
    (event.target as Element).setPointerCapture(event.pointerId);
    const cue = this.standing().cues.find((standing) => standing.id === id);
    if (cue) this.draggedCue.set({ id, at: cue.at });
  }

  protected dragCue(event: PointerEvent): void {
    const dragged = this.draggedCue();
    if (!dragged) return;
    const time = this.timeAt(event, this.head().nativeElement);
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
        if (row.isGroup && !row.isExpanded) this.toggle(id);
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
    const { rate, cues, length } = this.scene();
    const time = snapToCue(
      cues,
      this.timeAt(event, event.currentTarget as HTMLElement),
      (CUE_REACH / this.stripWidth()) * length,
    );
    this.seek.emit(nearestFrame(time, rate) * frameTicks(rate));
  }

  private timeAt(event: PointerEvent, over: HTMLElement): number {
    const { left } = over.getBoundingClientRect();
    const { length } = this.scene();
    return Math.min(length, Math.max(0, ((event.clientX - left) / this.stripWidth()) * length));
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
