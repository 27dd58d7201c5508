import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { createFrame, sampleFrame, type CompiledScene, type Ticks } from '@wexikine/core';
import { prepareCanvas, type CanvasSize } from '../../drawing/canvas';
import { PainterService } from '../../drawing/painter.service';
import { ghostsAround, keepMoving } from './ghosts';
import type { StagePlace } from './handle-marks';

/** The selected layers as they were a little before, and as they will be a little after, drawn faintly over the preview. */
@Component({
  selector: 'wx-stage-ghosts',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas aria-hidden="true"></canvas>',
  styles: `
    :host,
    canvas {
      position: absolute;
      inset: 0;
      width: 100%;
      height: 100%;
      pointer-events: none;
    }
  `,
})
export class StageGhosts {
  readonly compiled = input.required<CompiledScene>();
  readonly selection = input.required<ReadonlySet<string>>();
  readonly time = input.required<Ticks>();
  readonly length = input.required<Ticks>();
  /** From one ghost to the next. */
  readonly apart = input.required<Ticks>();
  readonly place = input.required<StagePlace>();
  /** Of the preview, CSS px. */
  readonly size = input.required<CanvasSize>();

  private readonly service = inject(PainterService);
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  /** Each ghost is drawn by itself, so that what lies over another in it does not shine through. */
  private readonly sheet = document.createElement('canvas');

  private readonly frames = computed(() => ({
    now: createFrame(this.compiled()),
    frame: createFrame(this.compiled()),
  }));

  constructor() {
    effect(() => {
      this.arrived();
      this.draw(this.place());
    });
  }

  private draw({ zoom, x, y }: StagePlace): void {
    const { nativeElement } = this.canvas();
    const [compiled, time] = [this.compiled(), this.time()];
    const size = this.size();
    const context = prepareCanvas(nativeElement, size);
    if (!context) return;
    const ratio = nativeElement.width / size.width;
    const view = { scale: zoom * ratio, x: x * ratio, y: y * ratio };
    const { now, frame } = this.frames();
    sampleFrame(compiled, time, now);
    for (const { at, strength } of ghostsAround(time, this.apart(), this.length())) {
      sampleFrame(compiled, at, frame);
      if (!keepMoving(compiled, frame, now, this.selection())) continue;
      const sheet = prepareCanvas(this.sheet, size);
      if (!sheet) return;
      this.service.painter.paint(sheet, { compiled, frame }, view);
      context.globalAlpha = strength;
      context.drawImage(this.sheet, 0, 0);
    }
  }
}
