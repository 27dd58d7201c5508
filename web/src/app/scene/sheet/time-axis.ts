import { computed, signal, type Signal } from '@angular/core';
import { frameTicks, toFrameGrid, type Rate, type Ticks } from '@wexikine/core';
import { rulerMarks } from './ruler';
import { withinScene, xIn, zoomed, type TimeWindow } from './time-window';

/** Pixels of the wheel that zoom by e. */
const WHEEL_ZOOM = 400;

/** What an axis is made of. */
export interface TimeAxisSource {
  /** The stretch that was asked for; null: the whole scene. */
  readonly wanted: Signal<TimeWindow | null>;
  /** Keeps another stretch that was asked for. */
  readonly want: (window: TimeWindow | null) => void;
  readonly scene: Signal<{ readonly length: Ticks; readonly rate: Rate }>;
  /** Of the playhead. */
  readonly time: Signal<Ticks>;
  /** Left edge of the axis in client pixels. */
  readonly left: () => number;
  /** Width of the axis in CSS pixels, where it is known from something else; else `width` is set. */
  readonly width?: Signal<number>;
}

/** Time across a width: the stretch that is seen, its marks, places of times and times of places, zoom and moving along. */
export class TimeAxis {
  private readonly ownWidth = signal(0);
  /** In CSS pixels. */
  readonly width = computed(() => this.source.width?.() ?? this.ownWidth());
  readonly window = computed((): TimeWindow => {
    const { length, rate } = this.source.scene();
    const wanted = this.source.wanted();
    return wanted ? withinScene(wanted, length, frameTicks(rate)) : { from: 0, span: length };
  });
  readonly isWhole = computed(() => this.window().span >= this.source.scene().length);
  readonly marks = computed(() => rulerMarks(this.window(), this.width(), this.source.scene().rate));
  readonly playheadX = computed(() => Math.round(this.xAt(this.source.time())));
  readonly isPlayheadSeen = computed(() => this.playheadX() >= 0 && this.playheadX() <= this.width());

  constructor(private readonly source: TimeAxisSource) {}

  setWidth(width: number): void {
    this.ownWidth.set(Math.max(0, width));
  }

  xAt(at: Ticks): number {
    return xIn(this.window(), at, this.width());
  }

  /** Pixels from the left edge of the axis. */
  xOf({ clientX }: Pick<MouseEvent, 'clientX'>): number {
    return clientX - this.source.left();
  }

  timeAt(x: number): Ticks {
    return this.window().from + this.ticksOf(x);
  }

  /** A stretch of the axis in ticks. */
  ticksOf(pixels: number): Ticks {
    return (pixels / Math.max(1, this.width())) * this.window().span;
  }

  /** The frame under a pointer, not before the scene. */
  frameUnder(event: MouseEvent): Ticks {
    return Math.max(0, toFrameGrid(this.timeAt(this.xOf(event)), this.source.scene().rate));
  }

  show(wanted: TimeWindow | null): void {
    const { length, rate } = this.source.scene();
    this.source.want(wanted && withinScene(wanted, length, frameTicks(rate)));
  }

  /** Closer or wider about the playhead where it is seen, else about the middle. */
  zoom(factor: number): void {
    const { from, span } = this.window();
    this.show(zoomed(this.window(), factor, this.isPlayheadSeen() ? this.source.time() : from + span / 2));
  }

  /** Moves along by a share of what is seen. */
  pan(share: number): void {
    const { from, span } = this.window();
    this.show({ from: from + span * share, span });
  }

  /** Ctrl and the wheel zoom at the pointer, Shift or a sideways wheel moves along; true where the wheel meant time. */
  wheel(event: WheelEvent): boolean {
    const sideways = event.shiftKey ? event.deltaY || event.deltaX : event.deltaX;
    if (event.ctrlKey || event.metaKey) {
      event.preventDefault();
      this.show(zoomed(this.window(), Math.exp(-event.deltaY / WHEEL_ZOOM), this.timeAt(this.xOf(event))));
      return true;
    }
    if (sideways === 0 || (!event.shiftKey && Math.abs(event.deltaX) < Math.abs(event.deltaY))) return false;
    event.preventDefault();
    this.pan(sideways / Math.max(1, this.width()));
    return true;
  }
}
