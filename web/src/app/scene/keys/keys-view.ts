import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  model,
  output,
  signal,
  untracked,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  countPicks,
  formatShort,
  frameTicks,
  isDialLayer,
  type ChannelId,
  type HandPicks,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { giveUpOnEscape } from '../../give-up';
import { Icon } from '../../icons/icon';
import type { SheetRun } from '../sheet/rows';
import { STRIP_HEIGHT } from '../sheet/strip-paths';
import { TimeAxis } from '../sheet/time-axis';
import type { TimeWindow } from '../sheet/time-window';
import { ViewSwitch, type SheetView } from '../sheet/view-switch';
import { KeyEdits } from './key-edits';
import {
  countKeys,
  keyRows,
  pickedTimes,
  REACHES,
  rigRowId,
  rowLabel,
  timesOf,
  type KeyRow,
  type Reach,
} from './key-rows';
import { KeysCanvas } from './keys-canvas';
import { KeysMenu } from './keys-menu';
import type { RowsShown } from './paint-rows';
import { PickedFields } from './picked-fields';
import { spanOf } from './picks';
import { canFold, rowsKey } from './rows-key';
import { RowsPointer, type KeysDrag } from './rows-pointer';

const NAMES = 200;
const PADDING = 14;
const REACH_WORDS: Readonly<Record<Reach, string>> = {
  key: 'picks this key',
  moment: 'picks its moment on all',
  later: 'picks all from it on',
};

/** What keys an adjustment shall begin with: of these layers and channels, between these times. */
export interface AdjustWanted {
  readonly layers: readonly string[];
  readonly channels: readonly ChannelId[];
  readonly from: Ticks;
  readonly to: Ticks;
}

/** The keys of many layers as rows of channels: picked by press, band, moment or keyboard, moved, set, copied and pasted. */
@Component({
  selector: 'wx-keys-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, KeysCanvas, KeysMenu, PickedFields, ScrollingModule, ViewSwitch],
  templateUrl: './keys-view.html',
  styleUrl: './keys-view.scss',
  host: { '(copy)': 'menu().copy($event)', '(cut)': 'menu().cut($event)', '(paste)': 'menu().paste($event)' },
})
export class KeysView implements AfterViewInit {
  /** As it is drawn, with a dry run. */
  readonly scene = input.required<Scene>();
  readonly standing = input.required<Scene>();
  readonly plan = input.required<SheetRun | null>();
  readonly time = input.required<number>();
  readonly selected = input.required<string | null>();
  /** Ids of the layers that take part. */
  readonly taking = input.required<ReadonlySet<string>>();
  /** The stretch that is played; null: the whole scene. */
  readonly played = input<RowsShown['played']>(null);
  readonly window = model.required<TimeWindow | null>();
  readonly selectedChange = output<string>();
  readonly seek = output<number>();
  readonly adjustWanted = output<AdjustWanted>();
  readonly viewWanted = output<SheetView>();
  /** The stretch of the picked keys is to be played alone. */
  readonly playWanted = output<{ readonly from: Ticks; readonly to: Ticks }>();

  protected readonly edits = inject(KeyEdits);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroy = inject(DestroyRef);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  protected readonly menu = viewChild.required(KeysMenu);
  protected readonly rowHeight = STRIP_HEIGHT;
  protected readonly names = NAMES;
  protected readonly reaches = REACHES;
  protected readonly reachWords = REACH_WORDS;
  protected readonly scrolled = signal(0);
  protected readonly closed = signal<ReadonlySet<string>>(new Set());
  protected readonly isTakingOnly = signal(false);
  protected readonly reach = signal<Reach>('key');
  /** Keys can be changed where no dry run covers them. */
  protected readonly canEdit = computed(() => this.plan() === null);
  protected readonly rows = computed(() =>
    keyRows(this.scene(), this.isTakingOnly() ? this.taking() : null, this.closed()),
  );
  protected readonly axis = new TimeAxis({
    wanted: this.window,
    want: (window) => this.window.set(window),
    scene: this.scene,
    time: this.time,
    left: () => this.element.getBoundingClientRect().left + NAMES,
  });
  private readonly standingLayers = computed(() => new Map(this.standing().layers.map((layer) => [layer.id, layer])));

  protected readonly picks = toSignal(this.edits.picks$, { requireSync: true });
  protected readonly count = computed(() => countPicks(this.picks()));
  protected readonly total = computed(() => countKeys(this.rows()));
  protected readonly pointer = new RowsPointer({
    rows: this.rows,
    standing: this.standing,
    picks: this.picks,
    reach: this.reach,
    canEdit: this.canEdit,
    time: this.time,
    axis: this.axis,
    yOf: ({ clientY }) => {
      const top = this.viewport()?.elementRef.nativeElement.getBoundingClientRect().top ?? 0;
      return clientY - top + this.scrolled();
    },
    pick: (picks) => this.edits.pick(picks),
    moveBy: (by) => this.edits.moveBy(by),
  });
  protected readonly drag = this.pointer.drag;
  protected readonly band = this.pointer.band;
  protected readonly painted = computed((): RowsShown => ({
    rows: this.rows(),
    window: this.axis.window(),
    width: this.axis.width(),
    runs: this.scene().runs,
    picks: this.picks(),
    dragged: this.drag()?.by ?? 0,
    dryRun: this.canEdit() ? null : { id: this.plan()?.run?.id ?? null, layers: this.standingLayers() },
    cues: this.standing().cues.map(({ at }) => at),
    played: this.played(),
  }));
  protected readonly selectedLayer = computed(() => this.standingLayers().get(this.selected() ?? '') ?? null);
  /** The row that has the focus, or would have it. */
  protected readonly current = signal<string | null>(null);
  protected readonly stop = computed(() => {
    const [rows, current] = [this.rows(), this.current()];
    const own =
      rows.find(({ id }) => id === current) ?? rows.find(({ kind, id }) => kind === 'layer' && id === this.selected());
    return own?.id ?? rows[0]?.id ?? null;
  });

  constructor() {
    giveUpOnEscape(
      () => this.drag() !== null || this.band() !== null,
      () => this.pointer.cancel(),
    );
    // A row that is drawn anew after it was scrolled away takes the focus back that it had.
    effect(() => {
      this.scrolled();
      const wanted = untracked(this.current);
      if (wanted === null || document.activeElement !== document.body) return;
      setTimeout(() => this.rowElement(wanted)?.focus({ preventScroll: true }));
    });
  }

  ngAfterViewInit(): void {
    this.element.addEventListener('wheel', (event) => this.axis.wheel(event), { passive: false });
    const observer = new ResizeObserver(([entry]) => this.axis.setWidth(entry.contentRect.width - NAMES - PADDING));
    observer.observe(this.element);
    this.destroy.onDestroy(() => observer.disconnect());
    this.viewport()
      ?.elementScrolled()
      .subscribe(() => this.scrolled.set(this.viewport()?.measureScrollOffset('top') ?? 0));
  }

  /** Rows stay the same elements, so that the focus stays where it is. */
  protected readonly trackRow = (_: number, { id }: KeyRow): string => id;

  protected label(row: KeyRow): string {
    return rowLabel(row);
  }

  protected rowWords(row: KeyRow): string {
    const [all, picked] = [timesOf(row).length, pickedTimes(row, this.picks()).size];
    const keys = all === 1 ? '1 key' : `${all} keys`;
    const whose =
      row.kind === 'channel' ? `${row.layers[0].name}, ` : row.kind === 'dial' ? `${this.rigName(row)}, ` : '';
    return `${whose}${rowLabel(row)}: ${keys}, ${picked} picked`;
  }

  private rigName({ dials: [{ run }] }: KeyRow): string {
    return run.rig?.name ?? '';
  }

  protected isOf(row: KeyRow, layer: string | null): boolean {
    return (row.kind === 'layer' || row.kind === 'channel') && row.layers[0].id === layer;
  }

  protected readonly canFold = canFold;

  protected toggle(id: string): void {
    this.closed.update((closed) => {
      const next = new Set(closed);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  /** All layers one row each, or all of them open. */
  protected fold(isFolded: boolean): void {
    const { layers, runs } = this.scene();
    this.closed.set(new Set(isFolded ? [...layers.map(({ id }) => id), ...runs.map(({ id }) => rigRowId(id))] : []));
  }

  // Pointer.

  protected press(event: PointerEvent, row: KeyRow): void {
    if (event.button !== 0) return;
    this.select(row);
    if (this.axis.xOf(event) < 0) return;
    event.preventDefault();
    const strip = event.currentTarget as HTMLElement;
    strip.closest<HTMLElement>('.row')?.focus();
    strip.setPointerCapture(event.pointerId);
    this.pointer.press(event, row);
  }

  protected seekTo(event: PointerEvent): void {
    if (this.axis.xOf(event) >= 0 && event.buttons === 1) this.seek.emit(this.axis.frameUnder(event));
  }

  // Keyboard.

  protected key(event: KeyboardEvent, row: KeyRow): void {
    const isMeant = rowsKey(event, row, {
      hasPicks: () => this.count() > 0,
      // From the row that was gone to last: its element may not have the focus yet.
      goBy: (step) => this.goTo(this.rows().findIndex(({ id }) => id === (this.current() ?? row.id)) + step),
      moveBy: (frames) => this.moveBy(frames * frameTicks(this.scene().rate)),
      toggle: ({ id }) => this.toggle(id),
      pick: (one, isMore) => this.pointer.pickRow(one, isMore),
      remove: () => this.remove(),
      unpick: () => this.edits.unpick(),
    });
    if (!isMeant) return;
    event.preventDefault();
    event.stopPropagation();
  }

  private goTo(index: number): void {
    const row = this.rows()[index];
    if (!row) return;
    this.viewport()?.scrollToIndex(Math.max(0, index - 4));
    this.select(row);
    setTimeout(() => this.rowElement(row.id)?.focus());
  }

  private select(row: KeyRow): void {
    this.current.set(row.id);
    if (row.kind === 'layer' || row.kind === 'channel') this.selectedChange.emit(row.layers[0].id);
  }

  private rowElement(id: string): HTMLElement | null {
    return this.element.querySelector<HTMLElement>(`[data-key-row="${id}"]`);
  }

  // Changes.

  protected moveBy(by: Ticks): void {
    if (this.canEdit()) this.edits.moveBy(by);
  }

  protected remove(): void {
    if (this.canEdit()) this.edits.remove();
  }

  /** Picked keys of layers; a sentence cannot say those of dials. */
  protected readonly adjustable = computed(
    (): HandPicks => new Map([...this.picks()].filter(([id]) => !isDialLayer(id))),
  );

  protected adjust(): void {
    const picks = this.adjustable();
    if (picks.size === 0) return;
    const channels = [...new Set([...picks.values()].flatMap((own) => [...own.keys()]))];
    this.adjustWanted.emit({ layers: [...picks.keys()], channels, ...spanOf(picks) });
  }

  protected timeWords({ by, at }: KeysDrag): string {
    return `${this.edits.timeWords(by)}, to ${formatShort(at + by, this.scene().rate)}`;
  }
}
