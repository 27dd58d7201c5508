import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import type { Layer, Ticks } from '@wexikine/core';
import { giveUpOnEscape } from '../../give-up';
import { keyedPixels } from './keyed-pixels';
import { xIn, zoomed, type TimeWindow } from './time-window';

const HEIGHT = 16;
const HANDLE = 6;

type Part = 'from' | 'to' | 'whole';

/**
 * The whole scene in one line: where its layers have keys, and which stretch the strips show. The stretch is dragged, by
 * its ends made longer or shorter, and moved with the arrow keys.
 */
@Component({
  selector: 'wx-time-overview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      aria-hidden="true"
      [attr.width]="width()"
      [attr.height]="height"
      (pointerdown)="press($event)"
      (pointermove)="drag($event)"
      (pointerup)="release()"
      (pointercancel)="giveUp()"
    >
      <rect class="all" [attr.width]="width()" y="5" height="6" rx="3" />
      <path class="keys" [attr.d]="keys()" />
      <rect class="shown" [attr.x]="left()" [attr.width]="shownWidth()" y="1" [attr.height]="height - 2" rx="3" />
      <path class="head" [attr.d]="'M' + playhead() + ' 0V' + height" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
      height: 16px;
      cursor: grab;
      touch-action: none;
    }
    .all {
      fill: var(--line);
    }
    .keys {
      stroke: var(--ink-soft);
      fill: none;
    }
    .shown {
      fill: var(--pine);
      fill-opacity: 0.16;
      stroke: var(--pine);
      stroke-width: 1.5;
    }
    .head {
      stroke: var(--rose);
      stroke-width: 1.5;
    }
  `,
  host: {
    role: 'scrollbar',
    tabindex: '0',
    'aria-orientation': 'horizontal',
    'aria-controls': 'sheet-rows',
    'aria-label': 'Stretch of the scene that is shown',
    'aria-valuemin': '0',
    'aria-valuemax': '100',
    '[attr.aria-valuenow]': 'percent()',
    '(keydown)': 'key($event)',
  },
})
export class TimeOverview {
  readonly layers = input.required<readonly Layer[]>();
  readonly length = input.required<Ticks>();
  readonly time = input.required<Ticks>();
  readonly shown = input.required<TimeWindow>();
  readonly width = input.required<number>();
  readonly shownChange = output<TimeWindow>();

  protected readonly height = HEIGHT;
  private readonly whole = computed((): TimeWindow => ({ from: 0, span: this.length() }));
  protected readonly left = computed(() => xIn(this.whole(), this.shown().from, this.width()));
  protected readonly shownWidth = computed(() => Math.max(2, (this.shown().span / this.length()) * this.width()));
  protected readonly playhead = computed(() => xIn(this.whole(), this.time(), this.width()).toFixed(1));
  protected readonly percent = computed(() => {
    const room = this.length() - this.shown().span;
    return room <= 0 ? 0 : Math.round((this.shown().from / room) * 100);
  });
  /** A short line for each pixel in which a layer has a key. */
  protected readonly keys = computed(() => {
    const xs = keyedPixels(this.layers(), this.whole(), this.width());
    return xs.map((x) => `M${x} 5V11`).join('');
  });

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  /** What keys that follow one another quickly go on from: the screen may not have taken up the last one yet. */
  private readonly latest = linkedSignal(() => this.shown());
  private held: {
    readonly part: Part;
    readonly at: number;
    readonly shown: TimeWindow;
    readonly before: TimeWindow;
  } | null = null;

  constructor() {
    giveUpOnEscape(
      () => this.held !== null,
      () => this.giveUp(),
    );
  }

  protected press(event: PointerEvent): void {
    const at = this.timeAt(event);
    const [left, right] = [this.left(), this.left() + this.shownWidth()];
    const x = xIn(this.whole(), at, this.width());
    const { span } = this.shown();
    const isInside = x > left - HANDLE && x < right + HANDLE;
    const part: Part = Math.abs(x - left) <= HANDLE ? 'from' : Math.abs(x - right) <= HANDLE ? 'to' : 'whole';
    const before = this.shown();
    const shown = isInside ? before : { from: at - span / 2, span };
    if (!isInside) this.shownChange.emit(shown);
    this.held = { part: isInside ? part : 'whole', at, shown, before };
    (event.target as Element).setPointerCapture(event.pointerId);
  }

  protected drag(event: PointerEvent): void {
    if (!this.held) return;
    const { part, at, shown } = this.held;
    const by = this.timeAt(event) - at;
    const end = shown.from + shown.span;
    if (part === 'whole') this.shownChange.emit({ from: shown.from + by, span: shown.span });
    else if (part === 'to') this.shownChange.emit({ from: shown.from, span: shown.span + by });
    else this.shownChange.emit({ from: Math.min(end, shown.from + by), span: end - Math.min(end, shown.from + by) });
  }

  protected release(): void {
    this.held = null;
  }

  /** The stretch that was shown when it was taken hold of. */
  protected giveUp(): void {
    if (this.held) this.shownChange.emit(this.held.before);
    this.held = null;
  }

  protected key(event: KeyboardEvent): void {
    if (event.altKey || event.ctrlKey || event.metaKey) return;
    const { from, span } = this.latest();
    const next: TimeWindow | null =
      event.key === 'ArrowLeft'
        ? { from: from - span / 10, span }
        : event.key === 'ArrowRight'
          ? { from: from + span / 10, span }
          : event.key === 'ArrowUp'
            ? zoomed(this.latest(), 1.25, from + span / 2)
            : event.key === 'ArrowDown'
              ? zoomed(this.latest(), 0.8, from + span / 2)
              : null;
    if (!next) return;
    event.preventDefault();
    event.stopPropagation();
    this.latest.set(next);
    this.shownChange.emit(next);
  }

  private timeAt(event: PointerEvent): Ticks {
    const { left } = this.element.getBoundingClientRect();
    return ((event.clientX - left) / this.width()) * this.length();
  }
}
