import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal } from '@angular/core';
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
import { motionPaths } from './motion-path';
import type { StagePlace, StageStep } from './stage-handles';

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
    <svg aria-hidden="true" (pointermove)="move($event)" (pointerup)="release()" (pointercancel)="cancel()">
      @for (path of shown(); track path.layer) {
        <polyline class="way" [attr.points]="path.line" />
        <path class="dots" [attr.d]="path.dots" />
        @if (canEdit()) {
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
    svg {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
    .way {
      fill: none;
      stroke: rgb(224 165 38 / 45%);
    }
    .dots {
      fill: none;
      stroke: #e0a526;
      stroke-width: 3;
      stroke-linecap: round;
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
  readonly canEdit = input.required<boolean>();
  readonly tried = output<Scene | null>();
  readonly step = output<StageStep>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly drag = signal<PathDrag | null>(null);
  private edits: readonly Edit[] = [];

  private readonly ids = computed(() => new Set([...this.selection()].slice(0, MOST_PATHS)));
  private readonly paths = computed(() =>
    motionPaths(this.compiled(), this.standing().rate, this.ids(), Math.round(this.time())),
  );
  protected readonly shown = computed(() => {
    const { zoom, x: left, y: top } = this.place();
    const onPage = ({ x, y }: Point): Point => ({ x: left + x * zoom, y: top + y * zoom });
    const text = ({ x, y }: Point): string => `${x.toFixed(1)} ${y.toFixed(1)}`;
    return this.paths().map(({ layer, now, dots, keys }) => {
      const points = dots.map(onPage);
      const here = onPage(now);
      return {
        layer,
        line: points.map(text).join(' '),
        dots: points.map((point) => `M${text(point)}h0`).join(''),
        // Where the layer is now it is the layer that is taken hold of.
        keys: keys
          .map(({ at, point }) => ({ at, ...onPage(point) }))
          .filter(({ x, y }) => Math.hypot(x - here.x, y - here.y) > HERE),
      };
    });
  });

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
