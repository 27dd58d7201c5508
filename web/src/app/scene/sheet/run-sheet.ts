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
  type AfterViewChecked,
  type AfterViewInit,
} from '@angular/core';
import { frameTicks, isSeen, type Parameter, type Recipe, type Scene, type Shelf, type Ticks } from '@wexikine/core';
import { WholeText } from '../../fields/whole-text';
import { giveUpOnEscape } from '../../give-up';
import { Icon } from '../../icons/icon';
import { KeyEdits } from '../keys/key-edits';
import { NONE_PICKED, pickedByLayer } from '../keys/picks';
import { Sounds, type SoundState } from '../sound/sounds';
import { sheetWaves } from '../sound/sheet-waves';
import { SheetRuler } from './sheet-ruler';
import { SheetTimes } from './sheet-times';
import { SheetTools, type SheetScope } from './sheet-tools';
import { TimeAxis } from './time-axis';
import { around, type TimeWindow } from './time-window';
import type { SheetView } from './view-switch';
import { CellEditor, type HandValue } from './cell-editor';
import { cellChecks, cellsOf, type Cell } from './cells';
import { rowShowing, sheetColumns, sheetRows, swatch, type SheetRow, type SheetRun } from './rows';
import { RowCarrier } from './row-carrier';
import type { Placed } from './row-drop';
import { rowKey, type RowActions } from './row-keys';
import { RowLayers } from './row-layers';
import { hasPlace, reorderedBy, RowOrder, type Reorder } from './row-order';
import { RowPresses } from './row-presses';
import { SheetEmpty } from './sheet-empty';
import { STRIP_HEIGHT } from './strip-paths';
import { StripView } from './strip-view';

const STRIP_PADDING = 14;
const NUMBER_WIDTH = 58;
const DIGIT_WIDTH = 9;
/** Pixels by which what is in a group stands further in. */
const NESTED = 14;

/** The table of a scene's layers with what the run gives to each, and their keys in time. */
@Component({
  selector: 'wx-run-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ScrollingModule, SheetEmpty, SheetRuler, SheetTimes, SheetTools, StripView, WholeText],
  templateUrl: './run-sheet.html',
  styleUrl: './run-sheet.scss',
  host: { '[style.--columns]': 'columnTemplate()' },
})
export class RunSheet implements AfterViewInit, AfterViewChecked {
  readonly scene = input.required<Scene>();
  /** The scene without the dry run. */
  readonly standing = input.required<Scene>();
  readonly plan = input.required<SheetRun | null>();
  /** The recipe of the dry run; null where there is none. */
  readonly recipe = input.required<Recipe | null>();
  readonly shelf = input.required<Shelf>();
  readonly parameters = input.required<readonly Parameter[]>();
  readonly time = input.required<number>();
  /** The layer that leads. */
  readonly selected = input.required<string | null>();
  /** It and those that are selected besides it. */
  readonly selection = input.required<ReadonlySet<string>>();
  /** Ids of the layers that the pick catches. */
  readonly picked = input.required<ReadonlySet<string>>();
  readonly selectedChange = output<string>();
  /** One more layer to select, or one less. */
  readonly alsoSelected = output<string>();
  /** Layers to select together, the one that leads first. */
  readonly manySelected = output<readonly string[]>();
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
  private readonly head = viewChild.required('head', { read: ElementRef<HTMLElement> });
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly destroy = inject(DestroyRef);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  protected readonly isSorted = signal(false);
  /** Rows in the order of the run: asked for, or because it was set by hand. */
  protected readonly isByPlace = computed(() => this.isSorted() || this.recipe()?.order.by === 'hand');
  /** Which rows were asked for; null: in a dry run those that take part, else all. */
  private readonly wantedScope = signal<SheetScope | null>(null);
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
  protected readonly layers = new RowLayers({
    scene: this.scene,
    standing: this.standing,
    plan: this.plan,
    recipe: this.recipe,
  });
  /** Rows lie as layers do, back to front, so that one can be put elsewhere among them. */
  protected readonly isInDepth = computed(() => !this.isByPlace() && !this.isTakingOnly() && this.query() === '');
  protected readonly carrier = new RowCarrier({
    rows: this.rows,
    heightOf: (clientY) => (clientY - this.seenRows()[0] + this.scrolledBy()) / STRIP_HEIGHT,
    seen: () => this.seenRows(),
    scrollBy: (px) => this.viewport()?.elementRef.nativeElement.scrollBy(0, px),
    placed: (placed) => this.placed.emit(placed),
  });
  protected readonly editor = new CellEditor(
    () => {
      const [parameters, shelf, { rate }] = [this.parameters(), this.shelf(), this.scene()];
      return { rate, check: (field) => cellChecks(field, parameters, shelf, rate) };
    },
    (value) => this.overridden.emit(value),
  );
  protected readonly presses = new RowPresses({
    rows: this.rows,
    lead: this.selected,
    select: (id) => this.selectedChange.emit(id),
    also: (id) => this.alsoSelected.emit(id),
    many: (ids) => this.manySelected.emit(ids),
    ticked: (tick) => this.ticked.emit(tick),
  });
  protected readonly order = new RowOrder((reorder) => this.reordered.emit(reorder));
  /** The layer of the row that has the focus. */
  protected focused: string | null = null;
  /** Parameters that one asked to see or not, over those that the run varies. */
  private readonly chosenColumns = signal<ReadonlyMap<string, boolean>>(new Map());
  protected readonly columns = computed(() => sheetColumns(this.plan(), this.parameters(), this.chosenColumns()));
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
    giveUpOnEscape(() => this.carrier.carried() !== null, this.carrier.cancel);
    giveUpOnEscape(
      () => this.order.isCarrying(),
      () => this.order.cancel(),
    );
    // What is selected elsewhere, or has just come in, is brought into view; of what is in a closed group, the group.
    effect(() => {
      const selected = this.selected();
      if (selected !== null) setTimeout(() => this.reveal(selected));
    });
  }

  /** Rows stay where they are and show other layers when these change places; the focus goes with its layer. */
  ngAfterViewChecked(): void {
    const row = document.activeElement as HTMLElement | null;
    const shown = row?.dataset['layer'];
    if (shown !== undefined && shown !== this.focused && this.element.contains(row)) this.focusRow(this.focused);
  }

  private reveal(id: string): void {
    const viewport = this.viewport();
    const index = rowShowing(this.rows(), this.layers.standing(), id);
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
    this.destroy.onDestroy(this.carrier.cancel);
  }

  protected showScope(scope: SheetScope): void {
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

  protected readonly shownColumns = computed(() => new Set(this.columns().map(({ name }) => name)));

  protected showColumn(name: string, isOn: boolean): void {
    this.chosenColumns.update((chosen) => new Map(chosen).set(name, isOn));
  }

  protected tick(event: MouseEvent, id: string): void {
    event.stopPropagation();
    this.presses.tick(event, id, (event.target as HTMLInputElement).checked);
  }

  protected canReorder(row: SheetRow): boolean {
    return hasPlace(row, this.recipe());
  }

  /** Top and bottom of the rows that are seen, px of the page. */
  private seenRows(): readonly [number, number] {
    const { top = 0, bottom = 0 } = this.viewport()?.elementRef.nativeElement.getBoundingClientRect() ?? {};
    return [top, bottom];
  }

  /** How far the rows are scrolled, px. */
  protected scrolledBy(): number {
    return this.viewport()?.measureScrollOffset('top') ?? 0;
  }

  /** Where the line of a drop begins: with the names at its depth. */
  protected dropLeft(depth: number): number {
    return this.numberWidth() + depth * NESTED;
  }

  protected swatch({ layer }: SheetRow): string {
    return swatch(layer);
  }

  /** Rows go by their place on screen: in another order, each shows another layer, and nothing is taken out or put in. */
  protected trackRow(index: number): number {
    return index;
  }

  protected setOpen(id: string, isOpen: boolean): void {
    this.expanded.update((expanded) => {
      const next = new Set(expanded);
      if (isOpen) next.add(id);
      else next.delete(id);
      return next;
    });
  }

  private readonly actions: RowActions = {
    rows: this.rows,
    isInDepth: this.isInDepth,
    placed: (placed) => {
      this.placed.emit(placed);
      setTimeout(() => this.focusRow(placed.layer));
    },
    reorderBy: (row, step) => this.reorderBy(row, step),
    goBy: (row, step) => this.goBy(row, step),
    setOpen: ({ layer }, isOpen) => this.setOpen(layer.id, isOpen),
    openGroup: (id) => this.setOpen(id, true),
    tick: ({ layer }) => this.ticked.emit({ layers: [layer.id], isOn: !this.picked().has(layer.id) }),
    edit: (row) => {
      const cell = this.cells(row).find(({ canEdit }) => canEdit);
      if (cell) this.editor.open(row, cell);
    },
    remove: ({ layer }) => this.removed.emit(layer.id),
  };

  protected key(event: KeyboardEvent, row: SheetRow): void {
    if (!rowKey(event, row, this.actions)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Moves a row one place up or down in the order of the run. */
  private reorderBy(row: SheetRow, step: 1 | -1): void {
    const reorder = this.canReorder(row) ? reorderedBy(this.plan()?.layers ?? [], row.layer.id, step) : null;
    if (reorder) this.reordered.emit(reorder);
    setTimeout(() => this.focusRow(row.layer.id));
  }

  private goBy({ layer }: SheetRow, step: 1 | -1): void {
    const rows = this.rows();
    const index = rows.findIndex((entry) => entry.layer.id === layer.id) + step;
    const next = rows[index];
    if (!next) return;
    this.selectedChange.emit(next.layer.id);
    // At once where the row is drawn, so that the next key, however soon, is that row's.
    this.focusRow(next.layer.id);
    this.viewport()?.scrollToIndex(Math.max(0, index - 5));
    setTimeout(() => this.focusRow(next.layer.id));
  }

  private focusRow(id: string | null): void {
    document.getElementById(`row-${id}`)?.focus();
  }
}
