import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  signal,
  viewChild,
} from '@angular/core';
import { secondsFromTicks, type Shelf } from '@wexikine/core';
import { prepareCanvas } from '../drawing/canvas';
import { PainterService } from '../drawing/painter.service';
import { createSpecimenPainter } from '../drawing/specimen-painter';
import { wantsLessMotion } from '../less-motion';
import { demoOf, helpFor } from './field-demos';

const SIZE = { width: 272, height: 146 };
/** Seconds of rest after each pass. */
const PAUSE = 0.6;

/** A “?” that explains a field of the sentence, with a small moving picture. */
@Component({
  selector: 'wx-field-help',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="ask"
      [attr.aria-expanded]="isOpen()"
      aria-label="What is this?"
      title="What is this?"
      (click)="isOpen.set(!isOpen())"
    >
      ?
    </button>
    @if (isOpen()) {
      <div class="help">
        <canvas #canvas aria-hidden="true"></canvas>
        <p>{{ help().text }}</p>
      </div>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    .ask {
      position: absolute;
      top: 8px;
      right: 10px;
      z-index: 1;
      width: 24px;
      height: 24px;
      border-radius: 12px;
      background: var(--pill);
      font: 700 14px/1 var(--font-head);
    }
    .ask[aria-expanded='true'] {
      background: var(--ink);
      color: var(--paper-high);
    }
    /* It comes after what one opened the editor for, and is shown above it. */
    .help {
      order: -1;
      width: 272px;
      margin: 0 0 10px;
      padding-right: 0;
    }
    canvas {
      display: block;
      width: 272px;
      height: 146px;
      border-radius: 6px;
      background: #3c3c3a;
    }
    p {
      margin: 6px 0 0;
      font-size: 13px;
      color: var(--ink-soft);
    }
  `,
})
export class FieldHelpButton implements OnDestroy {
  readonly field = input.required<string>();
  readonly shelf = input.required<Shelf>();

  protected readonly isOpen = signal(false);
  protected readonly help = computed(() => helpFor(this.field()));
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly service = inject(PainterService);
  private request = 0;

  constructor() {
    effect(() => {
      cancelAnimationFrame(this.request);
      const canvas = this.canvas()?.nativeElement;
      if (canvas) this.play(canvas);
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.request);
  }

  private play(canvas: HTMLCanvasElement): void {
    const specimen = demoOf(this.help(), this.shelf());
    const painter = createSpecimenPainter(this.service.painter, specimen);
    const length = secondsFromTicks(specimen.to - specimen.from);
    const began = performance.now();
    const isStill = wantsLessMotion();
    const draw = (): void => {
      const passed = isStill ? length * 0.4 : ((performance.now() - began) / 1_000) % (length + PAUSE);
      const context = prepareCanvas(canvas, SIZE);
      if (context)
        painter.drawAt(context, specimen.from + (specimen.to - specimen.from) * Math.min(1, passed / length));
      if (!isStill) this.request = requestAnimationFrame(draw);
    };
    draw();
  }
}
