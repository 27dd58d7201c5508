import {
  ChangeDetectionStrategy,
  ChangeDetectorRef,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  model,
  output,
  signal,
  type AfterViewInit,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  apply,
  channelOf,
  drawHandle,
  formatChannelValue,
  frameTicks,
  perUnit,
  withDialLayers,
  type ChannelId,
  type CompiledRigs,
  type HandChange,
  type Point,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { observedSize } from '../../drawing/observed-size';
import { giveUpOnEscape } from '../../give-up';
import { KeyEdits } from '../keys/key-edits';
import { withKeys } from '../keys/key-rows';
import { TimeAxis } from '../sheet/time-axis';
import type { TimeWindow } from '../sheet/time-window';
import { curveKey } from './curve-keys';
import { lineWords } from './curve-lines';
import { CurveModel, ROOM, type CurveShow, type KeyMark, type Tried } from './curve-model';
import { draggedBy, marksWithin, movedPicks, type KeyMove } from './curve-moves';
import { fittedRange, type HandleMark, type ValueRange } from './curve-shape';

const WHEEL_ZOOM = 400;

/** The stretch and the values that were asked for; null: all of it, fitted. */
interface Room {
  readonly window: TimeWindow | null;
  readonly range: ValueRange | null;
}

/** What is being dragged, from where. */
type Drag =
  | ({ readonly of: 'keys'; readonly mark: KeyMark } & Point)
  | { readonly of: 'handle'; readonly mark: HandleMark }
  | ({ readonly of: 'band' } & Point)
  | ({ readonly of: 'room'; readonly window: TimeWindow; readonly range: ValueRange; readonly before: Room } & Point);

/** Curves of one or many channels over each other, with keys and handles to drag; what is dragged is seen at once. */
@Component({
  selector: 'wx-curve-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './curve-editor.html',
  styleUrl: './curve-editor.scss',
})
export class CurveEditor implements AfterViewInit {
  readonly scene = input.required<Scene>();
  readonly selected = input.required<string | null>();
  readonly channels = input.required<readonly ChannelId[]>();
  readonly rigs = input.required<CompiledRigs | null>();
  readonly runId = input.required<string | null>();
  readonly time = input.required<Ticks>();
  readonly canEdit = input.required<boolean>();
  readonly hasOthers = input(false);
  readonly show = input.required<CurveShow>();
  /** Each line on a scale of its own; lines of different units are always. */
  readonly isEach = input.required<boolean>();
  /** Both sides of a key keep one line while a handle is dragged. */
  readonly isJoined = input.required<boolean>();
  readonly window = model.required<TimeWindow | null>();
  readonly range = model.required<ValueRange | null>();
  /** The scene as it would be, while the pointer is down. */
  readonly tried = output<Scene | null>();
  readonly seek = output<number>();

  protected readonly edits = inject(KeyEdits);
  private readonly detector = inject(ChangeDetectorRef);
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly left = ROOM.left;
  protected readonly size = observedSize();
  protected readonly axis = new TimeAxis({
    wanted: this.window,
    want: (window) => this.window.set(window),
    scene: this.scene,
    time: this.time,
    left: () => this.element.getBoundingClientRect().left + ROOM.left,
    width: computed(() => Math.max(0, this.size().width - ROOM.left - ROOM.right)),
  });
  protected readonly picks = toSignal(this.edits.told$, { requireSync: true });
  protected readonly trial = signal<Tried | null>(null);
  protected readonly drag = signal<Drag | null>(null);
  protected readonly bandTo = signal({ x: 0, y: 0 });
  readonly model = new CurveModel({
    scene: this.scene,
    selected: this.selected,
    channels: this.channels,
    rigs: this.rigs,
    runId: this.runId,
    show: this.show,
    isEach: this.isEach,
    canEdit: this.canEdit,
    hasOthers: this.hasOthers,
    range: this.range,
    picks: this.picks,
    trial: this.trial,
    size: this.size,
    axis: this.axis,
  });
  /** The key that has the focus, or would have it. */
  protected readonly current = signal<string | null>(null);
  protected readonly stop = computed(() => {
    const own = this.model.marks();
    return (own.find(({ id }) => id === this.current()) ?? own[0])?.id ?? null;
  });
  protected readonly band = computed(() => {
    const [drag, to] = [this.drag(), this.bandTo()];
    if (drag?.of !== 'band') return null;
    return {
      x: Math.min(drag.x, to.x),
      y: Math.min(drag.y, to.y),
      width: Math.abs(to.x - drag.x),
      height: Math.abs(to.y - drag.y),
    };
  });
  /** What a drag comes to, in words at the pointer. */
  protected readonly words = computed(() => {
    const [drag, trial] = [this.drag(), this.trial()];
    if (!trial || (drag?.of !== 'keys' && drag?.of !== 'handle')) return null;
    return trial.label;
  });

  constructor() {
    giveUpOnEscape(
      () => this.drag() !== null,
      () => this.cancel(),
    );
  }

  ngAfterViewInit(): void {
    this.element.addEventListener('wheel', (event) => this.wheel(event), { passive: false });
  }

  /** All of what is seen, fitted; the time of the keys that are shown. */
  fit(): void {
    this.range.set(null);
    const times = this.model.lines().flatMap(({ keys }) => keys.map(({ at }) => at));
    if (times.length < 2) return this.axis.show(null);
    const [first, last] = times.reduce(([a, b], at) => [Math.min(a, at), Math.max(b, at)], [Infinity, -Infinity]);
    const air = Math.max((last - first) * 0.08, 4 * frameTicks(this.scene().rate));
    this.axis.show({ from: first - air, span: last - first + 2 * air });
  }

  // Pointer.

  protected press(event: PointerEvent): void {
    const { x, y } = this.place(event);
    if (y > this.model.room().height) return this.seek.emit(this.axis.frameUnder(event));
    this.capture(event);
    if (event.button === 1 || event.altKey) {
      const range = this.range() ?? fittedRange(this.model.lines(), this.model.room());
      const before = { window: this.window(), range: this.range() };
      this.drag.set({ of: 'room', x, y, window: this.axis.window(), range, before });
    } else if (event.button === 0) {
      if (!event.shiftKey) this.edits.unpick();
      this.bandTo.set({ x, y });
      this.drag.set({ of: 'band', x, y });
    }
  }

  protected pressKey(event: PointerEvent, mark: KeyMark): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    (event.target as HTMLElement | SVGElement).focus();
    this.capture(event);
    const isMore = event.shiftKey || event.ctrlKey || event.metaKey;
    if (isMore || !mark.isPicked) this.pickMark(mark, isMore);
    if (this.canEdit()) this.drag.set({ of: 'keys', mark, ...this.place(event) });
  }

  protected pressHandle(event: PointerEvent, mark: HandleMark): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    this.capture(event);
    this.drag.set({ of: 'handle', mark });
  }

  protected move(event: PointerEvent): void {
    const drag = this.drag();
    if (!drag) return;
    const place = this.place(event);
    switch (drag.of) {
      case 'band':
        return this.bandTo.set(place);
      case 'room':
        return this.moveRoom(drag, place);
      case 'handle':
        return this.moveHandle(drag.mark, place, event);
      case 'keys':
        return this.moveKeys(drag, place, event);
    }
  }

  protected release(): void {
    const [drag, trial, band] = [this.drag(), this.trial(), this.band()];
    this.drag.set(null);
    this.try(null);
    if (drag?.of === 'band' && band) this.pickBand(band);
    if (trial) this.edits.change(trial.label, trial.change);
  }

  /** A drag that was given up, or taken away by the system, changes nothing; a view that was moved is where it was. */
  protected cancel(): void {
    const drag = this.drag();
    this.drag.set(null);
    this.try(null);
    if (drag?.of !== 'room') return;
    this.window.set(drag.before.window);
    this.range.set(drag.before.range);
  }

  private moveRoom({ x, y, window, range }: Extract<Drag, { of: 'room' }>, to: Point): void {
    this.axis.show({ from: window.from - this.axis.ticksOf(to.x - x), span: window.span });
    const lead = this.model.lead();
    const isDown = lead !== null && this.model.scales().get(lead.id)?.isDown === true;
    const by = ((to.y - y) / this.model.room().height) * (range.high - range.low) * (isDown ? -1 : 1);
    this.range.set({ low: range.low + by, high: range.high + by });
  }

  private moveHandle({ line, at, side }: HandleMark, to: Point, event: PointerEvent): void {
    const scale = this.model.scales().get(line.id);
    const key = line.keys.find((one) => one.at === at);
    if (!scale || !key) return;
    // Shift keeps the handle level with its key: at rest there.
    const value = event.shiftKey ? key.value : scale.valueAt(to.y);
    const change = drawHandle(this.edits.keyScene, {
      layer: line.layer.id,
      channel: line.channel,
      key: at,
      side,
      to: { at: this.axis.timeAt(to.x), value },
      isJoined: this.isJoined() !== event.altKey,
    });
    const words = side === 'leave' ? 'How it leaves' : 'How it arrives';
    this.try(change, `${words}: ${lineWords(line)}`, true);
  }

  private moveKeys({ mark, x, y }: Extract<Drag, { of: 'keys' }>, to: Point, event: PointerEvent): void {
    const scale = this.model.scales().get(mark.line.id);
    if (!scale) return;
    const { rate, cues, length } = this.scene();
    const targets = event.ctrlKey || event.metaKey ? [] : [...cues.map(({ at }) => at), this.time(), 0, length];
    const ground = { scale, rate, targets, ticksOf: (px: number) => this.axis.ticksOf(px) };
    const move = draggedBy(mark, [{ x, y }, to], event.shiftKey, ground);
    this.try(this.moved(move, mark.line.channel), this.movedWords(move, mark.line.channel));
  }

  private moved(move: KeyMove, channel: ChannelId): HandChange {
    return movedPicks(this.edits.scene, this.edits.picks, move, channelOf(channel).unit);
  }

  private movedWords({ by, more }: KeyMove, channel: ChannelId): string {
    const time = by === 0 ? '' : ` by ${this.edits.timeWords(by)}`;
    const value =
      more === 0 ? '' : `${by === 0 ? ' by ' : ', '}${more > 0 ? '+' : ''}${formatChannelValue(channel, more)}`;
    return `Move ${this.edits.words()}${time}${value}`;
  }

  /** Shows what a change would be, without doing it. */
  private try(change: HandChange | null, label = '', isPickKept = false): void {
    const result = change && change.edits.length > 0 ? apply(this.edits.scene, this.edits.editsOf(change)) : null;
    const trial =
      change && result?.ok === true
        ? {
            label,
            change: isPickKept ? { ...change, picks: this.edits.picks } : change,
            scene: withDialLayers(result.scene),
          }
        : null;
    this.trial.set(trial);
    this.tried.emit(result?.ok === true ? result.scene : null);
  }

  private pickBand(band: Point & { readonly width: number; readonly height: number }): void {
    const inside = marksWithin(this.model.marks(), band);
    this.edits.pick(
      withKeys(
        this.edits.picks,
        inside.map(({ line, at }) => [line.layer.id, line.channel, at] as const),
      ),
    );
  }

  private pickMark({ line, at }: KeyMark, isMore: boolean): void {
    const keys = [[line.layer.id, line.channel, at] as const];
    this.edits.pick(isMore ? withKeys(this.edits.picks, keys, true) : withKeys(new Map(), keys));
  }

  private wheel(event: WheelEvent): void {
    if (this.axis.wheel(event)) return;
    if (!event.altKey) return;
    event.preventDefault();
    const { low, high } = this.range() ?? fittedRange(this.model.lines(), this.model.room());
    const lead = this.model.lead();
    const about = (lead && this.model.scales().get(lead.id)?.valueAt(this.place(event).y)) ?? (low + high) / 2;
    const factor = Math.exp(event.deltaY / WHEEL_ZOOM);
    this.range.set({ low: about + (low - about) * factor, high: about + (high - about) * factor });
  }

  // Keyboard.

  protected key(event: KeyboardEvent, mark: KeyMark): void {
    const isMeant = curveKey(event, {
      canEdit: this.canEdit,
      hasPicks: () => this.edits.picks.size > 0,
      move: (frames, steps) => this.step(mark, frames, steps),
      goBy: (step) => this.goTo(mark, step),
      pick: (isMore) => this.pickMark(mark, isMore),
      remove: () => this.edits.remove(),
      unpick: () => this.edits.unpick(),
    });
    if (!isMeant) return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** Moves what is picked; a key that is not among it is picked alone first. Steps go up as they are seen. */
  private step(mark: KeyMark, frames: number, steps: number): void {
    const { line, at, isPicked } = mark;
    if (!isPicked) this.pickMark(mark, false);
    const isDown = this.model.scales().get(line.id)?.isDown === true;
    const by = frames * frameTicks(this.scene().rate);
    const move = { by, more: (steps / perUnit(line.channel)) * (isDown ? -1 : 1) };
    this.edits.change(this.movedWords(move, line.channel), this.moved(move, line.channel));
    this.current.set(`${line.id} ${at + by}`);
    this.focusCurrent();
  }

  private goTo({ id }: KeyMark, step: 1 | -1): void {
    const own = this.model.marks();
    const next = own[own.findIndex((mark) => mark.id === id) + step];
    if (!next) return;
    this.current.set(next.id);
    this.focusCurrent();
  }

  /** At once, so that the next key that is pressed finds it. */
  private focusCurrent(): void {
    this.detector.detectChanges();
    this.element.querySelector<SVGElement>('[data-key][tabindex="0"]')?.focus();
  }

  private place(event: MouseEvent): Point {
    const { left, top } = this.element.getBoundingClientRect();
    return { x: event.clientX - left - ROOM.left, y: event.clientY - top };
  }

  private capture(event: PointerEvent): void {
    this.element.querySelector('svg')?.setPointerCapture(event.pointerId);
  }
}
