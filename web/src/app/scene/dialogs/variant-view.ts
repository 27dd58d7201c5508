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
import { compileScene, createFrame, sampleFrame, type Scene } from '@wexikine/core';
import { paintBackground } from '@wexikine/paint';
import { prepareCanvas } from '../../drawing/canvas';
import { PainterService } from '../../drawing/painter.service';

/** A small picture of a scene at one time. */
@Component({
  selector: 'wx-variant-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<canvas
    #canvas
    role="img"
    [attr.aria-label]="label()"
    [style.aspect-ratio]="scene().width + '/' + scene().height"
  ></canvas>`,
  styles: `
    canvas {
      display: block;
      width: 100%;
      background: #000;
    }
  `,
})
export class VariantView {
  readonly scene = input.required<Scene>();
  readonly time = input.required<number>();
  readonly label = input.required<string>();
  private readonly service = inject(PainterService);
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly prepared = computed(() => {
    const compiled = compileScene(this.scene());
    return { compiled, frame: createFrame(compiled) };
  });

  constructor() {
    effect(() => {
      this.arrived();
      const { compiled, frame } = this.prepared();
      const context = prepareCanvas(this.canvas().nativeElement);
      if (!context) return;
      sampleFrame(compiled, this.time(), frame);
      context.clearRect(0, 0, context.canvas.width, context.canvas.height);
      const scale = context.canvas.width / this.scene().width;
      paintBackground(context, this.scene(), { scale, x: 0, y: 0 });
      this.service.painter.paint(context, { compiled, frame }, { scale, x: 0, y: 0 });
    });
  }
}
