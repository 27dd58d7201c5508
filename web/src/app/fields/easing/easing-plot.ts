import { ChangeDetectionStrategy, Component, computed, type ElementRef, input, output, viewChild } from '@angular/core';
import { createProgress, type Easing } from '@wexikine/core';
import { giveUpOnEscape } from '../../give-up';
import { curvePath, curveRange } from '../../drawing/curve-shape';

const WIDTH = 340;
const HEIGHT = 196;
const PADDING = 26;
const BOX = { width: WIDTH, height: HEIGHT, padding: PADDING };
const SAMPLES = 120;
/** Share of the height that the fastest moment takes. */
const SPEED_HEIGHT = 0.42;
const STEP = 0.01;

interface Handle {
  readonly which: 1 | 2;
  readonly x: number;
  readonly y: number;
  readonly fromX: number;
  readonly fromY: number;
}

/** Speed over time as a path along the bottom, and the greatest, in ways per segment. */
function speedPath(easing: Easing): string {
  if (easing.type === 'handles') return '';
  const progress = createProgress(easing);
  const h = 1 / SAMPLES;
  const speeds = Array.from({ length: SAMPLES }, (_, i) => Math.abs(progress((i + 1) * h) - progress(i * h)) / h);
  const fastest = Math.max(...speeds, 1e-9);
  const points = speeds.map((speed, i) => {
    const x = PADDING + (i + 0.5) * h * (WIDTH - 2 * PADDING);
    const y = HEIGHT - PADDING - (speed / fastest) * SPEED_HEIGHT * (HEIGHT - 2 * PADDING);
    return `${x.toFixed(1)} ${y.toFixed(1)}`;
  });
  return `M${points.join('L')}`;
}

function rounded(value: number): number {
  return Number(value.toFixed(3));
}

/** An easing drawn: value and speed together, what was before behind it, and a Bézier's handles to drag. */
@Component({
  selector: 'wx-easing-plot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg #svg [attr.viewBox]="box" role="group" aria-label="The curve, value and speed">
      <path class="frame" [attr.d]="frame()" />
      <path class="speed" [attr.d]="speed()" />
      @if (behindPath(); as line) {
        <path class="behind" [attr.d]="line" />
      }
      <path class="value" [attr.d]="path()" />
      @for (handle of handles(); track handle.which) {
        <line [attr.x1]="handle.fromX" [attr.y1]="handle.fromY" [attr.x2]="handle.x" [attr.y2]="handle.y" />
        <circle
          tabindex="0"
          role="slider"
          r="7"
          [attr.aria-label]="handle.which === 1 ? 'Departure handle' : 'Arrival handle'"
          [attr.aria-valuenow]="valueOf(handle.which)"
          [attr.aria-valuetext]="wordsOf(handle.which)"
          aria-valuemin="0"
          aria-valuemax="1"
          [attr.cx]="handle.x"
          [attr.cy]="handle.y"
          (pointerdown)="press($event)"
          (pointermove)="drag($event, handle.which)"
          (pointerup)="held = null"
          (pointercancel)="giveUp()"
          (keydown)="key($event, handle.which)"
        />
      }
    </svg>
    <p>
      <span class="of-value">value</span><span class="of-speed">speed</span>
      @if (behind()) {
        <span class="of-behind">published</span>
      }
    </p>
  `,
  styleUrl: './easing-plot.scss',
})
export class EasingPlot {
  readonly easing = input.required<Easing>();
  readonly behind = input<Easing | null>(null);
  readonly changed = output<Easing>();

  protected readonly box = `0 0 ${WIDTH} ${HEIGHT}`;
  private readonly svg = viewChild.required<ElementRef<SVGSVGElement>>('svg');
  private readonly range = computed((): readonly [number, number] => {
    const behind = this.behind();
    const [low, high] = curveRange(this.easing());
    const [under, over] = behind ? curveRange(behind) : [0, 1];
    const bezier = this.bezier();
    const ys = bezier ? [bezier.y1, bezier.y2].map((y) => Math.min(2, Math.max(-1, y))) : [];
    return [Math.min(low, under, ...ys), Math.max(high, over, ...ys)];
  });
  protected readonly path = computed(() => curvePath(this.easing(), BOX, this.range()));
  protected readonly behindPath = computed(() => {
    const behind = this.behind();
    return behind && curvePath(behind, BOX, this.range());
  });
  protected readonly speed = computed(() => speedPath(this.easing()));
  protected readonly frame = computed(
    () => `M${PADDING} ${this.y(0)}H${WIDTH - PADDING}M${PADDING} ${this.y(1)}H${WIDTH - PADDING}`,
  );
  private readonly bezier = computed(() => {
    const easing = this.easing();
    return easing.type === 'bezier' ? easing : null;
  });
  protected readonly handles = computed((): Handle[] => {
    const bezier = this.bezier();
    if (!bezier) return [];
    const { x1, y1, x2, y2 } = bezier;
    return [
      { which: 1, x: this.x(x1), y: this.y(y1), fromX: this.x(0), fromY: this.y(0) },
      { which: 2, x: this.x(x2), y: this.y(y2), fromX: this.x(1), fromY: this.y(1) },
    ];
  });

  /** What stood when a handle was taken hold of; null while none is. */
  protected held: Easing | null = null;

  constructor() {
    giveUpOnEscape(
      () => this.held !== null,
      () => this.giveUp(),
    );
  }

  protected valueOf(which: 1 | 2): number {
    const bezier = this.bezier();
    return bezier ? (which === 1 ? bezier.x1 : bezier.x2) : 0;
  }

  protected wordsOf(which: 1 | 2): string {
    const bezier = this.bezier();
    if (!bezier) return '';
    return which === 1 ? `time ${bezier.x1}, value ${bezier.y1}` : `time ${bezier.x2}, value ${bezier.y2}`;
  }

  protected press(event: PointerEvent): void {
    (event.target as Element).setPointerCapture(event.pointerId);
    event.preventDefault();
    (event.target as SVGElement).focus();
    this.held = this.easing();
  }

  /** The curve as it was before a handle was dragged. */
  protected giveUp(): void {
    if (this.held) this.changed.emit(this.held);
    this.held = null;
  }

  protected drag(event: PointerEvent, which: 1 | 2): void {
    if (!this.held) return;
    const { left, top, width, height } = this.svg().nativeElement.getBoundingClientRect();
    const [low, high] = this.range();
    const u = (((event.clientX - left) / width) * WIDTH - PADDING) / (WIDTH - 2 * PADDING);
    const up = (HEIGHT - PADDING - ((event.clientY - top) / height) * HEIGHT) / (HEIGHT - 2 * PADDING);
    this.place(which, u, low + up * (high - low));
  }

  /** Arrows move a handle by a hundredth, with Shift by a tenth. */
  protected key(event: KeyboardEvent, which: 1 | 2): void {
    const bezier = this.bezier();
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const move = moves[event.key];
    if (!bezier || !move) return;
    event.preventDefault();
    const step = STEP * (event.shiftKey ? 10 : 1);
    const [x, y] = which === 1 ? [bezier.x1, bezier.y1] : [bezier.x2, bezier.y2];
    this.place(which, x + move[0] * step, y + move[1] * step);
  }

  private place(which: 1 | 2, time: number, value: number): void {
    const bezier = this.bezier();
    if (!bezier) return;
    const x = rounded(Math.min(1, Math.max(0, time)));
    const y = rounded(Math.min(3, Math.max(-2, value)));
    this.changed.emit(which === 1 ? { ...bezier, x1: x, y1: y } : { ...bezier, x2: x, y2: y });
  }

  private x(u: number): number {
    return PADDING + u * (WIDTH - 2 * PADDING);
  }

  private y(value: number): number {
    const [low, high] = this.range();
    return HEIGHT - PADDING - ((value - low) / (high - low)) * (HEIGHT - 2 * PADDING);
  }
}
