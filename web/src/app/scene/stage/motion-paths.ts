import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import {
  apply,
  moveLayers,
  stageMoment,
  type CompiledScene,
  type Edit,
  type Point,
  type Scene,
  type StageMoment,
  type Ticks,
} from '@wexikine/core';
import { giveUpOnEscape } from '../../give-up';
import { prepareCanvas, type CanvasSize } from '../../drawing/canvas';
import { drawPaths, motionPaths, onPage } from './motion-path';
import type { StagePlace } from './handle-marks';
import type { StageStep } from './stage-handles';

/** Ways that are drawn at most; more would hide the picture. */
const MOST_PATHS = 40;

/** Page pixels around the layer's own place in which no key of its way can be taken. */
const HERE = 14;

interface PathDrag {
  readonly layer: string;
  readonly at: Ticks;
  readonly from: Point;
  readonly moment: StageMoment;
}

/** The ways along which the selected layers go: a dot for each frame, and the keyed places, which can be dragged. */
@Component({
  selector: 'wx-motion-paths',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas #canvas aria-hidden="true"></canvas>
    <svg aria-hidden="true" (pointermove)="move($event)" (pointerup)="release()" (pointercancel)="cancel()">
      @if (canEdit()) {
        @for (path of keyed(); track path.layer) {
          @for (key of path.keys; track key.at) {
            <rect
              class="key"
              width="9"
              height="9"
              [attr.x]="key.x - 4.5"
              [attr.y]="key.y - 4.5"
              [attr.transform]="'rotate(45 ' + key.x + ' ' + key.y + ')'"
              (pointerdown)="start($event, path.layer, key.at)"
            >
              <title>Where it is keyed. Drag to move this key</title>
            </rect>
          }
        }
      }
    </svg>
  `,
  styles: `
    :host,
    canvas,
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
    .key {
      fill: #fffdf6;
      stroke: #8a5a12;
      stroke-width: 1.5;
      pointer-events: all;
      cursor: move;
    }
    .key:hover {
      fill: #e0a526;
    }
  `,
})
export class MotionPaths {
  /** The scene as it is drawn. */
  readonly compiled = input.required<CompiledScene>();
  readonly standing = input.required<Scene>();
  readonly selection = input.required<ReadonlySet<string>>();
  readonly time = input.required<Ticks>();
  readonly place = input.required<StagePlace>();
  /** Of the preview, CSS px. */
  readonly size = input.required<CanvasSize>();
  readonly canEdit = input.required<boolean>();
  readonly tried = output<Scene | null>();
  readonly step = output<StageStep>();

  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly drag = signal<PathDrag | null>(null);
  private edits: readonly Edit[] = [];

  private readonly ids = computed(() => new Set([...this.selection()].slice(0, MOST_PATHS)));
  private readonly paths = computed(() =>
    motionPaths(this.compiled(), this.standing().rate, this.ids(), Math.round(this.time())),
  );
  /** What can be taken hold of. */
  protected readonly keyed = computed(() => {
    const place = this.place();
    return this.paths().map(({ layer, now, keys }) => {
      const here = onPage(now, place);
      return {
        layer,
        // Where the layer is now it is the layer that is taken hold of.
        keys: keys
          .map(({ at, point }) => ({ at, ...onPage(point, place) }))
          .filter(({ x, y }) => Math.hypot(x - here.x, y - here.y) > HERE),
      };
    });
  });

  constructor() {
    giveUpOnEscape(
      () => this.drag() !== null,
      () => this.cancel(),
    );
    effect(() => {
      const context = prepareCanvas(this.canvas().nativeElement, this.size());
      if (context) drawPaths(context, this.paths(), this.place());
    });
  }

  protected start(event: PointerEvent, layer: string, at: Ticks): void {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    (event.target as Element).closest('svg')?.setPointerCapture(event.pointerId);
    this.drag.set({ layer, at, from: this.pointOf(event), moment: stageMoment(this.standing(), 'key', at) });
  }

  protected move(event: PointerEvent): void {
    const drag = this.drag();
    if (!drag) return;
    const to = this.pointOf(event);
    this.edits = moveLayers(drag.moment, new Set([drag.layer]), {
      x: Math.round(to.x - drag.from.x),
      y: Math.round(to.y - drag.from.y),
    });
    const result = apply(drag.moment.scene, this.edits);
    this.tried.emit(result.ok ? result.scene : null);
  }

  protected release(): void {
    const [drag, edits] = [this.drag(), this.edits];
    this.cancel();
    const name = drag?.moment.scene.layers.find(({ id }) => id === drag.layer)?.name ?? 'a layer';
    if (drag && edits.length > 0) this.step.emit({ label: `Move a key of “${name}”`, edits });
  }

  protected cancel(): void {
    if (!this.drag()) return;
    this.drag.set(null);
    this.edits = [];
    this.tried.emit(null);
  }

  private pointOf({ clientX, clientY }: MouseEvent): Point {
    const { left, top } = this.element.getBoundingClientRect();
    const { zoom, x, y } = this.place();
    return { x: (clientX - left - x) / zoom, y: (clientY - top - y) / zoom };
  }
}
