import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { mapNodes, pathOfNodes, type NodePath, type Point } from '@wexikine/core';
import { closes, penPath, straightened, withCorner, withRound, type PenNodes } from './pen-path';
import type { StagePlace } from './handle-marks';

/** Pixels around the first point within which a press closes the path. */
const REACH = 9;
/** Scene pixels by which the arrow keys move the pen; with Shift. */
const STEP = 10;
const FAR = 100;

const ARROWS: Readonly<Record<string, Point>> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/**
 * Lies over the preview while a path is drawn: a press sets a corner, a drag a round point; the first point again closes
 * it, Enter ends it, Escape gives it up. By keys the arrows move the pen and Space sets a corner.
 */
@Component({
  selector: 'wx-pen',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      #over
      class="over"
      role="application"
      tabindex="0"
      aria-label="Pen. Arrow keys move it, Space sets a corner, C closes the path, Enter ends it, Escape gives it up."
      (pointerdown)="press($event)"
      (pointermove)="move($event)"
      (pointerup)="isRounding.set(false)"
      (keydown)="key($event)"
    >
      <svg aria-hidden="true">
        <path class="line" [attr.d]="line()" />
        @for (arm of arms(); track $index) {
          <path class="arm" [attr.d]="arm" />
        }
        @for (dot of dots(); track $index) {
          <rect
            width="9"
            height="9"
            rx="2"
            [class.closing]="$first && isClosing()"
            [attr.x]="dot.x - 4.5"
            [attr.y]="dot.y - 4.5"
          />
        }
        @if (cross(); as at) {
          <path class="cross" [attr.d]="'M' + (at.x - 7) + ' ' + at.y + 'h14M' + at.x + ' ' + (at.y - 7) + 'v14'" />
        }
      </svg>
    </div>
    <p role="status">{{ hint() }}</p>
  `,
  styleUrl: './pen.scss',
})
export class Pen {
  readonly place = input.required<StagePlace>();
  /** Where the pen stands when it is moved by keys first, in scene pixels. */
  readonly begins = input.required<Point>();
  /** The path that was drawn; null where it was given up. */
  readonly done = output<NodePath | null>();

  private readonly over = viewChild.required<ElementRef<HTMLElement>>('over');
  private readonly nodes = signal<PenNodes>([]);
  private readonly pointer = signal<Point | null>(null);
  private readonly isByKeys = signal(false);
  protected readonly isRounding = signal(false);

  protected readonly isClosing = computed(() => {
    const pointer = this.pointer();
    return pointer !== null && closes(this.nodes(), pointer, REACH / this.place().zoom);
  });
  protected readonly line = computed(() =>
    pathOfNodes(this.onPage(penPath(this.nodes(), this.isRounding() ? null : this.pointer(), this.isClosing()))),
  );
  protected readonly dots = computed(() => this.onPage({ nodes: this.nodes(), isClosed: false }).nodes);
  protected readonly arms = computed(() =>
    this.dots().flatMap(({ before, after }) =>
      before && after ? [`M${before.x} ${before.y}L${after.x} ${after.y}`] : [],
    ),
  );
  protected readonly cross = computed(() => {
    const pointer = this.pointer();
    return this.isByKeys() && pointer ? this.pageOf(pointer) : null;
  });
  protected readonly hint = computed(() => {
    const count = this.nodes().length;
    if (count === 0) return 'Press for a corner, drag for a round point. Escape gives up.';
    if (this.isClosing()) return 'Press to close the path.';
    const said = count === 1 ? '1 point' : `${count} points`;
    return `${said}. Enter ends the path${count > 2 ? ', the first point or C closes it' : ''}; Backspace takes one back.`;
  });

  constructor() {
    effect(() => this.over().nativeElement.focus({ preventScroll: true }));
  }

  protected press(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    this.over().nativeElement.setPointerCapture(event.pointerId);
    this.isByKeys.set(false);
    this.pointer.set(this.sceneAt(event));
    this.isRounding.set(!this.isClosing());
    this.set();
  }

  protected move(event: PointerEvent): void {
    const at = this.sceneAt(event);
    this.pointer.set(at);
    this.isByKeys.set(false);
    const last = this.nodes()[this.nodes().length - 1];
    // A hand that trembles sets a corner all the same.
    if (!this.isRounding() || !last || Math.hypot(at.x - last.x, at.y - last.y) * this.place().zoom < 3) return;
    this.nodes.set(withRound(this.nodes(), at));
  }

  protected key(event: KeyboardEvent): void {
    if (!this.does(event)) return;
    event.preventDefault();
    event.stopPropagation();
  }

  private does({ key, shiftKey }: KeyboardEvent): boolean {
    const arrow = ARROWS[key];
    if (arrow) {
      const { x, y } = this.pointer() ?? this.begins();
      const step = shiftKey ? FAR : STEP;
      this.pointer.set({ x: x + arrow.x * step, y: y + arrow.y * step });
      this.isByKeys.set(true);
    } else if (key === ' ') {
      this.pointer.update((at) => at ?? this.begins());
      this.set();
    } else if (key === 'Backspace' || key === 'Delete') this.nodes.update((nodes) => nodes.slice(0, -1));
    else if (key === 'Enter') this.end(false);
    else if (key === 'c' || key === 'C') this.end(true);
    else if (key === 'Escape') this.done.emit(null);
    else return false;
    return true;
  }

  /** A corner where the pen is, or the path closed. */
  private set(): void {
    const at = this.pointer();
    if (!at) return;
    if (this.isClosing()) this.end(true);
    else this.nodes.set(withCorner(this.nodes(), at));
  }

  private end(isClosed: boolean): void {
    const nodes = this.nodes();
    if (nodes.length < (isClosed ? 3 : 2)) return;
    this.done.emit({ nodes, isClosed });
  }

  /** Where the pointer is in the scene; with Shift in line with the last point. */
  private sceneAt({ clientX, clientY, shiftKey }: PointerEvent): Point {
    const { left, top } = this.over().nativeElement.getBoundingClientRect();
    const { x, y, zoom } = this.place();
    const at = { x: Math.round((clientX - left - x) / zoom), y: Math.round((clientY - top - y) / zoom) };
    const last = this.nodes()[this.nodes().length - 1];
    return shiftKey && last ? straightened(last, at) : at;
  }

  private pageOf({ x, y }: Point): Point {
    const { x: left, y: top, zoom } = this.place();
    return { x: left + x * zoom, y: top + y * zoom };
  }

  private onPage(path: NodePath): NodePath {
    return mapNodes(path, (place) => this.pageOf(place));
  }
}
