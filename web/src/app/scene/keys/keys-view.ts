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
  keysIn,
  nearest,
  pickedTimes,
  reached,
  REACHES,
  rigRowId,
  rowLabel,
  timesOf,
  withKeys,
  type KeyRow,
  type Reach,
} from './key-rows';
import { KeysCanvas } from './keys-canvas';
import { KeysMenu } from './keys-menu';
import { otherTimes, type RowsShown } from './paint-rows';
import { PickedFields } from './picked-fields';
import { spanOf } from './picks';
import { snapTime } from './snap';

const NAMES = 200;
const PADDING = 14;
/** Pixels within which a press means a key, and a dragged one takes the time of something else. */
const REACH_PX = 6;
const COARSE = 10;
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

interface Drag {
  readonly x: number;
  readonly at: Ticks;
  readonly by: Ticks;
}

interface Band {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
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
  protected readonly drag = signal<Drag | null>(null);
  protected readonly band = signal<Band | null>(null);
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
    const [all, picked] = [timesOf(row).length, this.picked(row).size];
    const keys = all === 1 ? '1 key' : `${all} keys`;
    const whose =
      row.kind === 'channel' ? `${row.layers[0].name}, ` : row.kind === 'dial' ? `${this.rigName(row)}, ` : '';
    return `${whose}${rowLabel(row)}: ${keys}, ${picked} picked`;
  }

  private rigName({ dials: [{ run }] }: KeyRow): string {
    return run.rig?.name ?? '';
  }

  private picked(row: KeyRow): ReadonlySet<Ticks> {
    return pickedTimes(row, this.picks());
  }

  protected isOf(row: KeyRow, layer: string | null): boolean {
    return (row.kind === 'layer' || row.kind === 'channel') && row.layers[0].id === layer;
  }

  protected canFold({ kind }: KeyRow): boolean {
    return kind === 'layer' || kind === 'rig';
  }

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
    const x = this.axis.xOf(event);
    if (x < 0) return;
    event.preventDefault();
    (event.currentTarget as HTMLElement).closest<HTMLElement>('.row')?.focus();
    const at = nearest(timesOf(row), this.axis.timeAt(x), this.axis.ticksOf(REACH_PX));
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    const isMore = event.shiftKey || event.ctrlKey || event.metaKey;
    if (at === null) {
      if (!isMore) this.edits.unpick();
      const y = this.yOf(event);
      this.band.set({ x0: x, y0: y, x1: x, y1: y });
      return;
    }
    const reach = event.altKey ? 'moment' : this.reach();
    if (isMore || !this.picked(row).has(at)) {
      this.take(reached(row, at, reach, this.rows()), isMore ? 'flip' : 'only');
    }
    if (this.canEdit()) this.drag.set({ x, at, by: 0 });
  }

  protected move(event: PointerEvent): void {
    const x = this.axis.xOf(event);
    const band = this.band();
    if (band) return this.band.set({ ...band, x1: x, y1: this.yOf(event) });
    const drag = this.drag();
    if (!drag) return;
    const wanted = drag.at + this.axis.ticksOf(x - drag.x);
    this.drag.set({ ...drag, by: this.snapped(wanted, event.ctrlKey || event.metaKey) - drag.at });
  }

  protected release(): void {
    const [drag, band] = [this.drag(), this.band()];
    this.drag.set(null);
    this.band.set(null);
    if (band) this.pickBand(band);
    if (drag && drag.by !== 0) this.edits.moveBy(drag.by);
  }

  private pickBand({ x0, y0, x1, y1 }: Band): void {
    const [from, to] = [Math.min(x0, x1), Math.max(x0, x1)].map((x) => this.axis.timeAt(x));
    const [top, bottom] = [Math.min(y0, y1), Math.max(y0, y1)].map((y) => Math.floor(y / STRIP_HEIGHT));
    const rows = this.rows().slice(Math.max(0, top), bottom + 1);
    // A closed layer's row stands for its channels; an open one's are in the band by themselves.
    const isWhole = ({ kind, isOpen }: KeyRow): boolean => (kind === 'layer' || kind === 'rig') && !isOpen;
    const meant = rows.filter((row) => row.kind === 'channel' || row.kind === 'dial' || isWhole(row));
    const among = meant.length > 0 ? meant : rows;
    this.take(
      among.flatMap((row) => keysIn(row, from, to)),
      'more',
    );
  }

  /** Picks keys: these only, more, or those away that all were picked. */
  private take(keys: ReturnType<typeof keysIn>, how: 'only' | 'more' | 'flip'): void {
    this.edits.pick(withKeys(how === 'only' ? new Map() : this.picks(), keys, how === 'flip'));
  }

  private snapped(wanted: Ticks, isFree: boolean): Ticks {
    const { rate, length, layers } = this.standing();
    const ends = layers.filter(({ id }) => this.picks().has(id)).flatMap(({ span }) => [span.in, span.out]);
    const cues = this.standing().cues.map(({ at }) => at);
    const targets = isFree ? [] : [...cues, this.time(), 0, length, ...ends, ...otherTimes(this.rows(), this.picks())];
    return snapTime(wanted, targets, this.axis.ticksOf(REACH_PX), rate);
  }

  protected seekTo(event: PointerEvent): void {
    if (this.axis.xOf(event) >= 0 && event.buttons === 1) this.seek.emit(this.axis.frameUnder(event));
  }

  // Keyboard.

  protected key(event: KeyboardEvent, row: KeyRow): void {
    // The row that was gone to last: its element may not have the focus yet.
    const index = this.rows().findIndex(({ id }) => id === (this.current() ?? row.id));
    const frames = (event.shiftKey ? COARSE : 1) * frameTicks(this.scene().rate);
    const isCommand = event.ctrlKey || event.metaKey;
    const done = (action: () => void): void => {
      event.preventDefault();
      event.stopPropagation();
      action();
    };
    if (isCommand || event.altKey) return;
    const hasPicks = this.count() > 0;
    const canFold = this.canFold(row);
    switch (event.key) {
      case 'ArrowDown':
        return done(() => this.goTo(index + 1));
      case 'ArrowUp':
        return done(() => this.goTo(index - 1));
      case 'ArrowRight':
        if (hasPicks) return done(() => this.moveBy(frames));
        return canFold && !row.isOpen ? done(() => this.toggle(row.id)) : undefined;
      case 'ArrowLeft':
        if (hasPicks) return done(() => this.moveBy(-frames));
        return canFold && row.isOpen ? done(() => this.toggle(row.id)) : undefined;
      case 'Enter':
      case ' ':
        return done(() => this.pickRow(row, event.shiftKey));
      case 'Delete':
      case 'Backspace':
        return hasPicks ? done(() => this.remove()) : undefined;
      case 'Escape':
        return hasPicks ? done(() => this.edits.unpick()) : undefined;
    }
  }

  private pickRow(row: KeyRow, isMore: boolean): void {
    this.take(keysIn(row, -Infinity, Infinity), isMore ? 'flip' : 'only');
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

  protected timeWords({ by, at }: Drag): string {
    return `${this.edits.timeWords(by)}, to ${formatShort(at + by, this.scene().rate)}`;
  }

  private yOf({ clientY }: MouseEvent): number {
    const top = this.viewport()?.elementRef.nativeElement.getBoundingClientRect().top ?? 0;
    return clientY - top + this.scrolled();
  }
}
