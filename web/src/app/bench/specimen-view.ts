import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { formatShort, frameTicks, TICKS_PER_SECOND, type Ticks } from '@wexikine/core';
import { prepareCanvas } from '../drawing/canvas';
import { PainterService } from '../drawing/painter.service';
import type { Specimen } from '../drawing/specimen';
import { createSpecimenPainter } from '../drawing/specimen-painter';
import { Icon } from '../icons/icon';
import { wantsLessMotion } from '../less-motion';
import { rateWords } from './inspection';

/** Seconds to rest at the end before it begins again. */
const PAUSE = 0.7;
const GHOSTS = 6;
const GHOST_FRAMES = 2;
const FAINTEST = 0.07;
const MOST_PATHS = 12;

/** The specimen of a bench: plays while one edits, at its scene's rate, with ghosts and the path. */
@Component({
  selector: 'wx-specimen-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  template: `
    <div class="stage"><canvas #canvas role="img" [attr.aria-label]="'Specimen at ' + shownTime()"></canvas></div>
    <div class="transport">
      <button
        class="icon-button"
        type="button"
        [attr.aria-label]="isPlaying() ? 'Pause' : 'Play'"
        title="Space"
        (click)="toggle()"
      >
        <wx-icon [name]="isPlaying() ? 'pause' : 'play_arrow'" />
      </button>
      <output class="mono">{{ shownTime() }} / {{ length() }}</output>
      <span class="quiet-text">{{ rate() }}</span>
      <span class="space"></span>
      <button
        class="icon-button"
        type="button"
        [attr.aria-pressed]="hasGhosts()"
        aria-label="Ghosts"
        title="Ghosts"
        (click)="hasGhosts.set(!hasGhosts())"
      >
        <wx-icon name="texture" />
      </button>
      <button
        class="icon-button"
        type="button"
        [attr.aria-pressed]="hasPath()"
        aria-label="Path"
        title="Path"
        (click)="hasPath.set(!hasPath())"
      >
        <wx-icon name="conversion_path" />
      </button>
    </div>
  `,
  styleUrl: './specimen-view.scss',
})
export class SpecimenView implements OnDestroy {
  readonly specimen = input.required<Specimen>();
  /** Share of the preset's time that is shown, so that a curve can mark it. */
  readonly shareChange = output<number | null>();

  private readonly service = inject(PainterService);
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly isPlaying = signal(!wantsLessMotion());
  protected readonly hasGhosts = signal(true);
  protected readonly hasPath = signal(false);
  private readonly frame = signal(0);
  private readonly prepared = computed(() => createSpecimenPainter(this.service.painter, this.specimen()));
  private request = 0;
  private began = performance.now();

  protected readonly rate = computed(() => rateWords(this.specimen().scene.rate));
  protected readonly length = computed(() => {
    const { scene, from, to } = this.specimen();
    return formatShort(to - from, scene.rate);
  });
  protected readonly shownTime = computed(() => {
    const { scene } = this.specimen();
    return formatShort(this.frame() * frameTicks(scene.rate), scene.rate);
  });

  constructor() {
    effect(() => {
      this.arrived();
      this.hasGhosts();
      this.hasPath();
      this.prepared();
      cancelAnimationFrame(this.request);
      if (this.isPlaying()) this.request = requestAnimationFrame(this.tick);
      else this.drawStill();
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.request);
  }

  toggle(): void {
    this.began = performance.now();
    this.isPlaying.update((is) => !is);
  }

  private readonly tick = (): void => {
    const { scene, from, to } = this.specimen();
    const frame = frameTicks(scene.rate);
    const passed = ((performance.now() - this.began) / 1_000) * TICKS_PER_SECOND;
    const whole = to - from + PAUSE * TICKS_PER_SECOND;
    const at = Math.min(Math.floor((passed % whole) / frame) * frame, to - from);
    this.draw(from + at);
    this.frame.set(Math.round(at / frame));
    this.shareChange.emit(to > from ? at / (to - from) : null);
    this.request = requestAnimationFrame(this.tick);
  };

  /** Standing still, the whole motion is shown at once as a trail. */
  private drawStill(): void {
    const context = prepareCanvas(this.canvas().nativeElement);
    if (!context) return;
    if (this.hasGhosts()) this.prepared().drawTrail(context);
    else this.prepared().drawAt(context, this.specimen().to);
    this.drawPaths(context);
    this.shareChange.emit(null);
  }

  private draw(time: Ticks): void {
    const context = prepareCanvas(this.canvas().nativeElement);
    if (!context) return;
    const { from, scene, kind } = this.specimen();
    const step = frameTicks(scene.rate) * GHOST_FRAMES;
    const isMany = kind === 'scene';
    for (let ghost = GHOSTS; ghost > 0 && this.hasGhosts() && !isMany; ghost--) {
      const at = time - ghost * step;
      if (at >= from) this.prepared().drawAt(context, at, FAINTEST * (GHOSTS + 1 - ghost));
    }
    this.prepared().drawAt(context, time);
    this.drawPaths(context);
  }

  private drawPaths(context: CanvasRenderingContext2D): void {
    if (!this.hasPath()) return;
    const { layers, scene } = this.specimen();
    const frame = frameTicks(scene.rate);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.strokeStyle = context.fillStyle = '#8fd3ff';
    context.lineWidth = 1;
    for (const id of layers.slice(0, MOST_PATHS)) {
      const places = this.prepared().pathOf(id, context, frame);
      context.beginPath();
      places.forEach(([x, y], i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
      context.stroke();
      for (const [x, y] of places) context.fillRect(x - 1.5, y - 1.5, 3, 3);
    }
  }
}
