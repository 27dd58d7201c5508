import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  linkedSignal,
  model,
  output,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import {
  applyTimeEntry,
  copyKeys,
  countPicks,
  formatFrames,
  formatShort,
  frameTicks,
  movePicks,
  parseTimeEntry,
  pasteKeys,
  pasteWords,
  perUnit,
  poseAt,
  readKeyClip,
  removePicks,
  setPickedValues,
  toFrameGrid,
  type ChannelId,
  type Edit,
  type HandChange,
  type HandPicks,
  type KeyClip,
  type Layer,
  type PasteWay,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { rulerMarks } from '../sheet/ruler';
import { STRIP_HEIGHT, StripView } from '../sheet/strip-view';
import { withinScene, xIn, zoomed, type TimeWindow } from '../sheet/time-window';
import type { SheetRun } from '../sheet/rows';
import { firstOf, spanOf, stillThere, valueWords } from './picks';
import {
  allKeys,
  inverted,
  keyRows,
  keysIn,
  nearest,
  onlyChannel,
  pickedTimes,
  reached,
  REACHES,
  rowLabel,
  timesOf,
  withKeys,
  type KeyRow,
  type Reach,
} from './key-rows';

const NAMES = 200;
const PADDING = 14;
/** Pixels within which a press means a key, and a dragged one takes the time of something else. */
const REACH_PX = 6;
const COARSE = 10;
const WHEEL_ZOOM = 400;
const REACH_WORDS: Readonly<Record<Reach, string>> = {
  key: 'picks this key',
  moment: 'picks its moment on all',
  later: 'picks all from it on',
};

/** A named change of keys. */
export interface KeyStep {
  readonly label: string;
  readonly edits: readonly Edit[];
}

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
  imports: [Icon, MatMenuModule, ScrollingModule, StripView],
  templateUrl: './keys-view.html',
  styleUrl: './keys-view.scss',
  host: { '(copy)': 'copy($event)', '(cut)': 'cut($event)', '(paste)': 'paste($event)' },
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
  readonly window = model.required<TimeWindow | null>();
  readonly selectedChange = output<string>();
  readonly seek = output<number>();
  readonly step = output<KeyStep>();
  readonly told = output<string>();
  readonly adjustWanted = output<AdjustWanted>();
  readonly sheetWanted = output();
  /** The stretch of the picked keys is to be played alone. */
  readonly playWanted = output<{ readonly from: Ticks; readonly to: Ticks }>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroy = inject(DestroyRef);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  protected readonly rowHeight = STRIP_HEIGHT;
  protected readonly names = NAMES;
  protected readonly reaches = REACHES;
  protected readonly reachWords = REACH_WORDS;
  protected readonly width = signal(0);
  protected readonly closed = signal<ReadonlySet<string>>(new Set());
  protected readonly isTakingOnly = signal(false);
  protected readonly reach = signal<Reach>('key');
  /** Keys can be changed where no dry run covers them. */
  protected readonly canEdit = computed(() => this.plan() === null);
  protected readonly rows = computed(() =>
    keyRows(this.scene(), this.isTakingOnly() ? this.taking() : null, this.closed()),
  );
  protected readonly shown = computed((): TimeWindow =>
    this.window() === null
      ? { from: 0, span: this.scene().length }
      : withinScene(this.window() as TimeWindow, this.scene().length, frameTicks(this.scene().rate)),
  );
  protected readonly marks = computed(() => rulerMarks(this.shown(), this.width(), this.scene().rate));
  protected readonly playheadX = computed(() => Math.round(xIn(this.shown(), this.time(), this.width())));
  protected readonly runId = computed(() => this.plan()?.run?.id ?? null);
  private readonly standingLayers = computed(() => new Map(this.standing().layers.map((layer) => [layer.id, layer])));

  /** Picked keys; those that are gone are no longer picked. */
  protected readonly picks = linkedSignal<Scene, HandPicks>({
    source: this.standing,
    computation: (scene, before) => stillThere(scene, before?.value ?? new Map()),
  });
  protected readonly count = computed(() => countPicks(this.picks()));
  protected readonly total = computed(() => allKeys(this.rows()).length);
  protected readonly drag = signal<Drag | null>(null);
  protected readonly band = signal<Band | null>(null);
  protected readonly clip = signal<KeyClip | null>(null);
  protected readonly problem = signal<string | null>(null);
  /** What the picked keys are: the same value of all, or that they differ; in the channel's own words. */
  protected readonly valueText = computed(() => valueWords(this.standing(), this.picks()));
  protected readonly pasteTargets = computed(() => {
    const selected = this.selected();
    return { selected: this.standingLayers().get(selected ?? '') ?? null, taking: [...this.taking()] };
  });

  ngAfterViewInit(): void {
    this.element.addEventListener('wheel', (event) => this.wheel(event), { passive: false });
    const observer = new ResizeObserver(([entry]) =>
      this.width.set(Math.max(0, entry.contentRect.width - NAMES - PADDING)),
    );
    observer.observe(this.element);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  /** Rows stay the same elements, so that the focus stays where it is. */
  protected readonly trackRow = (_: number, { id }: KeyRow): string => id;

  protected label(row: KeyRow): string {
    return rowLabel(row);
  }

  protected layerOf(row: KeyRow): Layer {
    return row.channel === null ? row.layer : onlyChannel(row.layer, row.channel);
  }

  protected underOf({ layer, channel }: KeyRow): Layer | undefined {
    const standing = this.plan() === null ? undefined : this.standingLayers().get(layer.id);
    return standing && channel !== null ? onlyChannel(standing, channel) : standing;
  }

  /** Posts of picked keys, where a drag would put them. */
  protected pickedPath(row: KeyRow): string {
    const by = this.drag()?.by ?? 0;
    return [...pickedTimes(row, this.picks())]
      .map((at) => xIn(this.shown(), at + by, this.width()).toFixed(1))
      .map((x) => `M${x} 3V26`)
      .join('');
  }

  protected rowWords(row: KeyRow): string {
    const [all, picked] = [timesOf(row).length, pickedTimes(row, this.picks()).size];
    const keys = all === 1 ? '1 key' : `${all} keys`;
    return `${row.channel === null ? '' : `${row.layer.name}, `}${rowLabel(row)}: ${keys}, ${picked} picked`;
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
    this.closed.set(new Set(isFolded ? this.scene().layers.map(({ id }) => id) : []));
  }

  protected pickAll(): void {
    this.picks.set(withKeys(new Map(), allKeys(this.rows())));
  }

  protected invert(): void {
    this.picks.set(inverted(this.picks(), this.rows()));
  }

  protected unpick(): void {
    this.picks.set(new Map());
  }

  // Pointer.

  protected press(event: PointerEvent, row: KeyRow): void {
    if (event.button !== 0) return;
    this.selectedChange.emit(row.layer.id);
    const x = this.xOf(event);
    if (x < 0) return;
    event.preventDefault();
    (event.currentTarget as HTMLElement).closest<HTMLElement>('.row')?.focus();
    const at = nearest(timesOf(row), this.timeAt(x), this.ticksOf(REACH_PX));
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    const isMore = event.shiftKey || event.ctrlKey || event.metaKey;
    if (at === null) {
      if (!isMore) this.unpick();
      const y = this.yOf(event);
      this.band.set({ x0: x, y0: y, x1: x, y1: y });
      return;
    }
    const wanted = reached(row, at, event.altKey ? 'moment' : this.reach(), this.rows());
    const isPicked = pickedTimes(row, this.picks()).has(at);
    if (isMore) this.picks.set(withKeys(this.picks(), wanted, true));
    else if (!isPicked) this.picks.set(withKeys(new Map(), wanted));
    if (this.canEdit()) this.drag.set({ x, at, by: 0 });
  }

  protected move(event: PointerEvent): void {
    const x = this.xOf(event);
    const band = this.band();
    if (band) return this.band.set({ ...band, x1: x, y1: this.yOf(event) });
    const drag = this.drag();
    if (!drag) return;
    const wanted = drag.at + this.ticksOf(x - drag.x);
    this.drag.set({ ...drag, by: this.snapped(wanted, event.ctrlKey || event.metaKey) - drag.at });
  }

  protected release(): void {
    const [drag, band] = [this.drag(), this.band()];
    this.drag.set(null);
    this.band.set(null);
    if (band) this.pickBand(band);
    if (drag && drag.by !== 0) this.moveBy(drag.by);
  }

  private pickBand({ x0, y0, x1, y1 }: Band): void {
    const [from, to] = [Math.min(x0, x1), Math.max(x0, x1)].map((x) => this.timeAt(x));
    const [top, bottom] = [Math.min(y0, y1), Math.max(y0, y1)].map((y) => Math.floor(y / STRIP_HEIGHT));
    const rows = this.rows().slice(Math.max(0, top), bottom + 1);
    // A closed layer's row stands for its channels; an open one's are in the band by themselves.
    const meant = rows.filter(({ channel, isOpen }) => channel !== null || !isOpen);
    const keys = (meant.length > 0 ? meant : rows).flatMap((row) => keysIn(row, from, to));
    if (keys.length > 0) this.picks.set(withKeys(this.picks(), keys));
  }

  /** A dragged time on a frame; near a cue, the playhead, another key or an end of the scene on that; free with Ctrl. */
  private snapped(wanted: Ticks, isFree: boolean): Ticks {
    const { rate, length } = this.scene();
    if (isFree) return toFrameGrid(wanted, rate);
    const others = this.rows().flatMap((row) => {
      const picked = pickedTimes(row, this.picks());
      return row.channel === null ? timesOf(row).filter((at) => !picked.has(at)) : [];
    });
    const cues = this.standing().cues.map(({ at }) => at);
    const near = nearest([...cues, this.time(), 0, length, ...others], wanted, this.ticksOf(REACH_PX));
    return near ?? toFrameGrid(wanted, rate);
  }

  protected seekTo(event: PointerEvent): void {
    const x = this.xOf(event);
    if (x >= 0 && event.buttons === 1) this.seek.emit(Math.max(0, toFrameGrid(this.timeAt(x), this.scene().rate)));
  }

  protected wheel(event: WheelEvent): void {
    const { from, span } = this.shown();
    const sideways = event.shiftKey ? event.deltaY || event.deltaX : event.deltaX;
    if (event.ctrlKey || event.metaKey) {
      event.preventDefault();
      this.window.set(zoomed(this.shown(), Math.exp(-event.deltaY / WHEEL_ZOOM), this.timeAt(this.xOf(event))));
    } else if (sideways !== 0 && (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY))) {
      event.preventDefault();
      this.window.set({ from: from + (sideways / Math.max(1, this.width())) * span, span });
    }
  }

  // Keyboard.

  protected key(event: KeyboardEvent, row: KeyRow, index: number): void {
    const step = event.shiftKey ? COARSE : 1;
    const isCommand = event.ctrlKey || event.metaKey;
    const done = (action: () => void): void => {
      event.preventDefault();
      event.stopPropagation();
      action();
    };
    if (isCommand && event.key.toLowerCase() === 'a') return done(() => this.pickAll());
    if (isCommand || event.altKey) return;
    switch (event.key) {
      case 'ArrowDown':
        return done(() => this.goTo(index + 1));
      case 'ArrowUp':
        return done(() => this.goTo(index - 1));
      case 'ArrowRight':
        if (this.count() > 0) return done(() => this.moveBy(step * frameTicks(this.scene().rate)));
        return row.channel === null && !row.isOpen ? done(() => this.toggle(row.id)) : undefined;
      case 'ArrowLeft':
        if (this.count() > 0) return done(() => this.moveBy(-step * frameTicks(this.scene().rate)));
        return row.channel === null && row.isOpen ? done(() => this.toggle(row.id)) : undefined;
      case 'Enter':
      case ' ':
        return done(() => this.pickRow(row, event.shiftKey));
      case 'Delete':
      case 'Backspace':
        return this.count() > 0 ? done(() => this.remove()) : undefined;
      case 'Escape':
        return this.count() > 0 ? done(() => this.unpick()) : undefined;
    }
  }

  private pickRow(row: KeyRow, isMore: boolean): void {
    const keys = keysIn(row, -Infinity, Infinity);
    this.picks.set(isMore ? withKeys(this.picks(), keys, true) : withKeys(new Map(), keys));
  }

  private goTo(index: number): void {
    const row = this.rows()[index];
    if (!row) return;
    this.viewport()?.scrollToIndex(Math.max(0, index - 4));
    this.selectedChange.emit(row.layer.id);
    setTimeout(() => this.element.querySelector<HTMLElement>(`[data-key-row="${row.id}"]`)?.focus());
  }

  // Changes.

  private change(label: string, { edits, picks }: HandChange): void {
    if (edits.length === 0) return;
    this.step.emit({ label, edits });
    this.picks.set(picks);
  }

  protected moveBy(by: Ticks): void {
    if (!this.canEdit()) return;
    const words = `${by > 0 ? '+' : '−'}${formatFrames(Math.abs(by), this.scene().rate)}`;
    this.change(`Move ${this.words()} by ${words}`, movePicks(this.standing(), this.picks(), by));
  }

  protected remove(): void {
    if (this.canEdit()) this.change(`Remove ${this.words()}`, removePicks(this.standing(), this.picks()));
  }

  /** A time to move by (+8f, −1s), or to which the first picked key goes (1:10). */
  protected typeTime(event: Event): void {
    const field = event.target as HTMLInputElement;
    const text = field.value.trim();
    if (text === '') return;
    const read = parseTimeEntry(text, this.scene().rate);
    if (!read.ok) return this.problem.set('Write a time such as +8f, -1s or 1:10.');
    this.problem.set(null);
    const first = firstOf(this.picks());
    this.moveBy(applyTimeEntry(read.entry, first) - first);
    field.value = '';
  }

  /** A value for all picked keys, or by how much each changes (+20, −5). */
  protected typeValue(event: Event): void {
    const field = event.target as HTMLInputElement;
    const text = field.value
      .trim()
      .replace('−', '-')
      .replace(/\s*(px|%|°|deg)$/, '');
    if (text === '') return;
    const number = Number(text);
    if (!Number.isFinite(number)) return this.problem.set('Write a number such as 120, or +20 to change each by 20.');
    this.problem.set(null);
    const isRelative = /^[+-]/.test(text);
    const scene = this.standing();
    this.change(
      `${isRelative ? 'Change' : 'Set'} the values of ${this.words()}`,
      setPickedValues(scene, this.picks(), (value, channel) =>
        isRelative ? value + number / perUnit(channel) : number / perUnit(channel),
      ),
    );
    field.value = '';
  }

  /** Keys at the playhead of all layers with picked keys, or of those that take part. */
  protected pose(pose: 'as it is' | 'rest'): void {
    if (!this.canEdit()) return;
    const own = this.picks().size > 0 ? [...this.picks().keys()] : [...this.taking()];
    const label = pose === 'rest' ? 'Rest at the playhead' : 'Key the pose at the playhead';
    this.change(label, poseAt(this.standing(), new Set(own), Math.round(this.time()), pose));
  }

  protected playThese(): void {
    if (this.count() > 0) this.playWanted.emit(spanOf(this.picks()));
  }

  protected adjust(): void {
    const picks = this.picks();
    if (picks.size === 0) return;
    const channels = [...new Set([...picks.values()].flatMap((own) => [...own.keys()]))];
    this.adjustWanted.emit({ layers: [...picks.keys()], channels, ...spanOf(picks) });
  }

  // Clipboard.

  protected copy(event: ClipboardEvent): void {
    const clip = copyKeys(this.standing(), this.picks());
    if (!clip || isTyping(event)) return;
    event.clipboardData?.setData('text/plain', JSON.stringify(clip, null, 1));
    event.preventDefault();
    this.clip.set(clip);
    this.told.emit(`${this.words()} copied.`.replace(/^./, (letter) => letter.toUpperCase()));
  }

  protected cut(event: ClipboardEvent): void {
    if (isTyping(event) || this.count() === 0) return;
    this.copy(event);
    this.remove();
  }

  protected paste(event: ClipboardEvent): void {
    if (isTyping(event)) return;
    event.preventDefault();
    const read = readKeyClip(event.clipboardData?.getData('text/plain') ?? '');
    if (typeof read === 'string') return this.told.emit(read);
    this.clip.set(read);
    const { selected, taking } = this.pasteTargets();
    const onto = read.layers.length > 1 || !selected ? taking : [selected.id];
    this.pasteOnto(onto, { at: { by: 'time', time: Math.round(this.time()) }, values: 'absolute', channel: null });
  }

  protected copyPicked(): void {
    const clip = copyKeys(this.standing(), this.picks());
    if (!clip) return;
    this.clip.set(clip);
    // Where the browser does not let the page write, the keys are kept here all the same.
    void navigator.clipboard?.writeText(JSON.stringify(clip, null, 1)).catch(() => undefined);
    this.told.emit(`${this.words()} copied.`.replace(/^./, (letter) => letter.toUpperCase()));
  }

  protected pasteAs(target: 'selected' | 'taking', at: 'playhead' | 'offset', values: PasteWay['values']): void {
    const { selected, taking } = this.pasteTargets();
    const onto = target === 'selected' ? (selected ? [selected.id] : []) : taking;
    const where: PasteWay['at'] = at === 'offset' ? { by: 'offset' } : { by: 'time', time: Math.round(this.time()) };
    this.pasteOnto(onto, { at: where, values, channel: null });
  }

  private pasteOnto(targets: readonly string[], way: PasteWay): void {
    const clip = this.clip();
    if (!clip || !this.canEdit()) return;
    if (targets.length === 0) return this.told.emit('Select a layer, or pick some in the sentence, to paste onto.');
    const { edits, report } = pasteKeys(this.standing(), clip, targets, way);
    if (edits.length > 0) this.step.emit({ label: 'Paste keys', edits });
    this.told.emit(pasteWords(this.standing(), report));
  }

  protected words(): string {
    return this.count() === 1 ? '1 key' : `${this.count()} keys`;
  }

  protected timeWords(): string {
    const drag = this.drag();
    if (!drag) return '';
    const by = `${drag.by < 0 ? '−' : '+'}${formatFrames(Math.abs(drag.by), this.scene().rate)}`;
    return `${by}, to ${formatShort(drag.at + drag.by, this.scene().rate)}`;
  }

  /** Where the band begins on screen, in px below the first row that is seen. */
  protected bandTop(): number {
    const band = this.band();
    return band ? Math.min(band.y0, band.y1) - (this.viewport()?.measureScrollOffset('top') ?? 0) : 0;
  }

  private xOf({ clientX }: MouseEvent): number {
    return clientX - this.element.getBoundingClientRect().left - NAMES;
  }

  private yOf({ clientY }: MouseEvent): number {
    const viewport = this.viewport();
    const top = viewport?.elementRef.nativeElement.getBoundingClientRect().top ?? 0;
    return clientY - top + (viewport?.measureScrollOffset('top') ?? 0);
  }

  private timeAt(x: number): Ticks {
    const { from, span } = this.shown();
    return from + (x / Math.max(1, this.width())) * span;
  }

  private ticksOf(pixels: number): Ticks {
    return (pixels / Math.max(1, this.width())) * this.shown().span;
  }
}

function isTyping(event: Event): boolean {
  return event.target instanceof HTMLInputElement;
}
