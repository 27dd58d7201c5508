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
import {
  compileScene,
  createFrame,
  sampleFrame,
  createShelf,
  secondsFromTicks,
  type PresetItem,
  type Ticks,
} from '@wexikine/core';
import { LibraryService } from '../library/library.service';
import { prepareCanvas } from './canvas';
import { PainterService } from './painter.service';
import { ghostsOf, type Ghost } from './ghosts';
import { createSpecimen } from './specimen';

/** Seconds to rest after each pass while playing. */
const PAUSE = 0.5;

/** A preset's motion as a trail of ghosts; plays while `playing`. */
@Component({
  selector: 'wx-ghost-trail',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas aria-hidden="true"></canvas>',
  styles: `
    :host {
      display: block;
      aspect-ratio: 320 / 172;
      background: #3c3c3a;
      overflow: hidden;
    }
    canvas {
      display: block;
      width: 100%;
      height: 100%;
    }
  `,
})
export class GhostTrail implements OnDestroy {
  readonly item = input.required<PresetItem>();
  readonly parameters = input<Readonly<Record<string, string>>>({});
  readonly playing = input(false);

  private readonly service = inject(PainterService);
  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly prepared = computed(() => {
    const specimen = createSpecimen(this.item(), this.shelf(), { parameters: this.parameters() });
    const compiled = compileScene(specimen.scene);
    return { specimen, compiled, frame: createFrame(compiled) };
  });
  private request = 0;
  private began = 0;

  constructor() {
    effect(() => {
      this.arrived();
      this.prepared();
      cancelAnimationFrame(this.request);
      if (this.playing()) this.start();
      else this.drawTrail();
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.request);
  }

  private start(): void {
    this.began = performance.now();
    this.request = requestAnimationFrame(this.tick);
  }

  private readonly tick = (): void => {
    const { from, to } = this.prepared().specimen;
    const length = secondsFromTicks(to - from);
    const passed = ((performance.now() - this.began) / 1_000) % (length + PAUSE);
    this.drawOne(from + (to - from) * Math.min(1, passed / length));
    this.request = requestAnimationFrame(this.tick);
  };

  private drawOne(time: Ticks): void {
    const context = prepareCanvas(this.canvas().nativeElement);
    if (context) this.draw(context, time);
  }

  private drawTrail(): void {
    const context = prepareCanvas(this.canvas().nativeElement);
    if (!context) return;
    const { specimen } = this.prepared();
    for (const ghost of ghostsOf(specimen)) {
      context.globalAlpha = ghost.alpha;
      this.drawGhost(context, specimen.from + (specimen.to - specimen.from) * ghost.share, ghost);
    }
  }

  /** Each ghost goes through a surface of its own, since the painter sets opacities itself. */
  private drawGhost(context: CanvasRenderingContext2D, time: Ticks, { aside, below }: Ghost): void {
    const { width, height } = context.canvas;
    const surface = new OffscreenCanvas(width, height).getContext('2d');
    if (!surface) return;
    this.draw(surface, time, aside, below);
    context.drawImage(surface.canvas, 0, 0);
  }

  private draw(
    context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
    time: Ticks,
    aside = 0,
    below = 0,
  ): void {
    const { specimen, compiled, frame } = this.prepared();
    sampleFrame(compiled, Math.min(time, specimen.scene.layers[0].span.out - 1), frame);
    const { width, height } = context.canvas;
    const scale = Math.min(width / specimen.scene.width, height / specimen.scene.height);
    const x = (width - specimen.scene.width * scale) / 2 + aside * width;
    this.service.painter.paint(
      context,
      { compiled, frame },
      { scale, x, y: (height - specimen.scene.height * scale) / 2 + below * height },
    );
  }
}
