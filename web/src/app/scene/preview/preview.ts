import {
  ChangeDetectionStrategy,
  Component,
  type AfterViewInit,
  type ElementRef,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { boundsAt, compileScene, createFrame, sampleFrame, type Scene } from '@wexikine/core';
import type { View } from '@wexikine/paint';
import { prepareCanvas } from '../../drawing/canvas';
import { PainterService } from '../../drawing/painter.service';

export interface PreviewOptions {
  readonly safeAreas: boolean;
  readonly checks: boolean;
  readonly outside: boolean;
}

/** Safe action and safe title areas as shares of the frame. Source: SMPTE ST 2046-1. */
const SAFE_AREAS = [0.93, 0.9];
const MARGIN = 16;
const CHECK = 8;
const OUTSIDE_DIM = 'rgb(60 60 58 / 72%)';
const LEAST_ZOOM = 0.02;
const MOST_ZOOM = 16;
const SELECTION = '#58b79c';

interface Camera {
  /** CSS pixels per scene pixel; null fits the frame into its place. */
  readonly zoom: number | null;
  readonly panX: number;
  readonly panY: number;
}

const FIT: Camera = { zoom: null, panX: 0, panY: 0 };

/** The scene at one time, with what lies outside the frame dimmed. Wheel zooms, dragging moves, a click selects. */
@Component({
  selector: 'wx-preview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas
    #canvas
    role="img"
    [attr.aria-label]="'Preview of ' + scene().name"
    (wheel)="wheel($event)"
    (pointerdown)="press($event)"
    (pointermove)="drag($event)"
    (pointerup)="release($event)"
  ></canvas>`,
  styles: `
    :host {
      display: block;
      min-height: 0;
      background: #3c3c3a;
      overflow: hidden;
    }
    canvas {
      display: block;
      width: 100%;
      height: 100%;
      touch-action: none;
    }
  `,
})
export class Preview implements AfterViewInit {
  readonly scene = input.required<Scene>();
  readonly time = input.required<number>();
  readonly options = input.required<PreviewOptions>();
  readonly selected = input.required<string | null>();
  readonly drawn = output();
  readonly zoomed = output<number>();
  readonly picked = output<string | null>();

  private readonly service = inject(PainterService);
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly destroy = inject(DestroyRef);
  private readonly camera = signal(FIT);
  private readonly size = signal({ width: 0, height: 0 });
  private pressed: { x: number; y: number; camera: Camera; isDrag: boolean } | null = null;

  private readonly prepared = computed(() => {
    const compiled = compileScene(this.scene());
    return { compiled, frame: createFrame(compiled) };
  });

  /** CSS pixels per scene pixel. */
  private readonly zoom = computed(() => {
    const { width, height } = this.size();
    const scene = this.scene();
    const fit = Math.min((width - 2 * MARGIN) / scene.width, (height - 2 * MARGIN) / scene.height);
    return this.camera().zoom ?? Math.max(LEAST_ZOOM, fit);
  });

  constructor() {
    effect(() => this.zoomed.emit(this.zoom()));
    effect(() => {
      this.arrived();
      this.size();
      this.draw(this.time(), this.options(), this.selected());
      this.drawn.emit();
    });
  }

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(([{ contentRect }]) =>
      this.size.set({ width: contentRect.width, height: contentRect.height }),
    );
    observer.observe(this.canvas().nativeElement);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  fit(): void {
    this.camera.set(FIT);
  }

  /** Zooms about the middle by a factor. */
  zoomBy(factor: number): void {
    const { width, height } = this.size();
    this.zoomAbout(factor, width / 2, height / 2);
  }

  protected wheel(event: WheelEvent): void {
    event.preventDefault();
    this.zoomAbout(Math.exp(-event.deltaY / 400), event.offsetX, event.offsetY);
  }

  protected press(event: PointerEvent): void {
    (event.target as HTMLElement).setPointerCapture(event.pointerId);
    this.pressed = {
      x: event.offsetX,
      y: event.offsetY,
      camera: { ...this.camera(), zoom: this.zoom() },
      isDrag: false,
    };
  }

  protected drag(event: PointerEvent): void {
    if (!this.pressed) return;
    const [dx, dy] = [event.offsetX - this.pressed.x, event.offsetY - this.pressed.y];
    this.pressed.isDrag ||= Math.hypot(dx, dy) > 3;
    const { camera, isDrag } = this.pressed;
    if (isDrag) this.camera.set({ ...camera, panX: camera.panX + dx, panY: camera.panY + dy });
  }

  protected release(event: PointerEvent): void {
    if (this.pressed && !this.pressed.isDrag) this.picked.emit(this.layerAt(event.offsetX, event.offsetY));
    this.pressed = null;
  }

  private zoomAbout(factor: number, x: number, y: number): void {
    const before = this.zoom();
    const zoom = Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, before * factor));
    const { width, height } = this.size();
    const { panX, panY } = this.camera();
    const moved = (pan: number, at: number, middle: number): number =>
      at - middle - ((at - middle - pan) * zoom) / before;
    this.camera.set({ zoom, panX: moved(panX, x, width / 2), panY: moved(panY, y, height / 2) });
  }

  /** Top left corner of the frame in CSS pixels. */
  private origin(): { x: number; y: number } {
    const { width, height } = this.size();
    const { panX, panY } = this.camera();
    const zoom = this.zoom();
    return {
      x: (width - this.scene().width * zoom) / 2 + panX,
      y: (height - this.scene().height * zoom) / 2 + panY,
    };
  }

  /** The topmost layer under a point that is no locked backdrop; of a group's parts, the group. */
  private layerAt(x: number, y: number): string | null {
    const origin = this.origin();
    const point = { x: (x - origin.x) / this.zoom(), y: (y - origin.y) / this.zoom() };
    const { compiled, frame } = this.prepared();
    for (let index = compiled.layers.length - 1; index >= 0; index--) {
      const layer = compiled.layers[index];
      if (frame.live[index] === 0 || layer.hidden || layer.locked || compiled.parents[index] >= 0) continue;
      const { left, right, top, bottom } = boundsAt(frame, index);
      if (point.x >= left && point.x <= right && point.y >= top && point.y <= bottom) return layer.id;
    }
    return null;
  }

  private draw(time: number, options: PreviewOptions, selected: string | null): void {
    const context = prepareCanvas(this.canvas().nativeElement);
    if (!context) return;
    const ratio = context.canvas.width / this.canvas().nativeElement.clientWidth;
    const { x, y } = this.origin();
    const view = { scale: this.zoom() * ratio, x: x * ratio, y: y * ratio };
    const { compiled, frame } = this.prepared();
    sampleFrame(compiled, time, frame);
    const { width, height } = this.scene();
    const place = { x: view.x, y: view.y, width: width * view.scale, height: height * view.scale };
    drawGround(context, place, options.checks, ratio);
    context.save();
    if (!options.outside) clipTo(context, place);
    this.service.painter.paint(context, { compiled, frame }, view);
    context.restore();
    if (options.outside) dimOutside(context, place);
    if (options.safeAreas) drawSafeAreas(context, place, ratio);
    this.drawSelection(context, view, selected, ratio);
  }

  private drawSelection(context: CanvasRenderingContext2D, view: View, selected: string | null, ratio: number): void {
    const { compiled, frame } = this.prepared();
    const index = compiled.layers.findIndex(({ id }) => id === selected);
    if (index < 0 || frame.live[index] === 0) return;
    const { left, top, right, bottom } = boundsAt(frame, index);
    context.strokeStyle = SELECTION;
    context.lineWidth = 1.5 * ratio;
    const [x, y] = [view.x + left * view.scale, view.y + top * view.scale];
    context.strokeRect(x, y, (right - left) * view.scale, (bottom - top) * view.scale);
  }
}

interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

function clipTo(context: CanvasRenderingContext2D, { x, y, width, height }: Place): void {
  context.beginPath();
  context.rect(x, y, width, height);
  context.clip();
}

/** What lies under the layers: black, or the check pattern that stands for transparency. */
function drawGround(context: CanvasRenderingContext2D, place: Place, checks: boolean, ratio: number): void {
  context.fillStyle = checks ? '#8a8a86' : '#000';
  context.fillRect(place.x, place.y, place.width, place.height);
  if (!checks) return;
  context.save();
  clipTo(context, place);
  context.fillStyle = '#b4b4ae';
  const size = CHECK * ratio;
  for (let row = 0; row * size < place.height; row++) {
    for (let column = row % 2; column * size < place.width; column += 2) {
      context.fillRect(place.x + column * size, place.y + row * size, size, size);
    }
  }
  context.restore();
}

function dimOutside(context: CanvasRenderingContext2D, { x, y, width, height }: Place): void {
  context.beginPath();
  context.rect(0, 0, context.canvas.width, context.canvas.height);
  context.rect(x, y, width, height);
  context.fillStyle = OUTSIDE_DIM;
  context.fill('evenodd');
}

function drawSafeAreas(context: CanvasRenderingContext2D, { x, y, width, height }: Place, ratio: number): void {
  context.save();
  context.lineWidth = ratio;
  context.setLineDash([4 * ratio, 4 * ratio]);
  context.strokeStyle = 'rgb(241 236 223 / 55%)';
  for (const share of SAFE_AREAS) {
    const [w, h] = [width * share, height * share];
    context.strokeRect(x + (width - w) / 2, y + (height - h) / 2, w, h);
  }
  context.restore();
}
