import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  input,
  type OnDestroy,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { compileScene, createFrame, sampleFrame, TICKS_PER_SECOND, type Scene } from '@wexikine/core';
import { paintBackground } from '@wexikine/paint';
import { prepareCanvas } from './canvas';
import { PainterService } from './painter.service';

/** Where in the scene a standing picture is taken, as a share of its length. */
const STILL = 0.45;

/** A small live picture of a scene: still, and playing from its beginning while `playing`. */
@Component({
  selector: 'wx-scene-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas aria-hidden="true"></canvas>',
  styles: `
    :host {
      display: block;
      aspect-ratio: 16 / 9;
      background: #3c3c3a;
    }
    canvas {
      display: block;
      width: 100%;
      height: 100%;
    }
  `,
})
export class ScenePicture implements OnDestroy {
  readonly scene = input.required<Scene>();
  readonly playing = input(false);

  private readonly service = inject(PainterService);
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly prepared = computed(() => {
    const compiled = compileScene(this.scene());
    return { compiled, frame: createFrame(compiled) };
  });
  private request = 0;

  constructor() {
    effect(() => {
      this.arrived();
      const { length } = this.scene();
      cancelAnimationFrame(this.request);
      if (!this.playing()) return this.draw(length * STILL);
      const began = performance.now();
      const tick = (): void => {
        this.draw((((performance.now() - began) / 1_000) * TICKS_PER_SECOND) % length);
        this.request = requestAnimationFrame(tick);
      };
      this.request = requestAnimationFrame(tick);
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.request);
  }

  private draw(time: number): void {
    const context = prepareCanvas(this.canvas().nativeElement);
    if (!context) return;
    const { compiled, frame } = this.prepared();
    const { width, height } = this.scene();
    sampleFrame(compiled, time, frame);
    const scale = Math.min(context.canvas.width / width, context.canvas.height / height);
    const [x, y] = [(context.canvas.width - width * scale) / 2, (context.canvas.height - height * scale) / 2];
    context.save();
    context.beginPath();
    context.rect(x, y, width * scale, height * scale);
    context.clip();
    paintBackground(context, this.scene(), { scale, x, y });
    this.service.painter.paint(context, { compiled, frame }, { scale, x, y });
    context.restore();
  }
}
