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
import { createShelf, secondsFromTicks, type PresetItem, type RigItem, type Shelf } from '@wexikine/core';
import { LibraryService } from './library.service';
import { prepareCanvas } from '../drawing/canvas';
import { observedSize } from '../drawing/observed-size';
import { observedView } from '../drawing/observed-view';
import { PainterService } from '../drawing/painter.service';
import { createSpecimen } from '../drawing/specimen';
import { createSpecimenPainter } from '../drawing/specimen-painter';
import { TrailPictures } from '../drawing/trail-pictures.service';

/** Seconds to rest after each pass while playing. */
const PAUSE = 0.5;

/** A preset's or a rig's motion as a trail of ghosts; plays while `playing`. */
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
  readonly item = input.required<PresetItem | RigItem>();
  readonly parameters = input<Readonly<Record<string, string>>>({});
  readonly playing = input(false);

  private readonly service = inject(PainterService);
  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  private readonly arrived = toSignal(this.service.arrived$, { requireSync: true });
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly prepared = computed(() => {
    const specimen = createSpecimen(this.item(), this.shelf(), { parameters: this.parameters() });
    return { specimen, painter: createSpecimenPainter(this.service.painter, specimen) };
  });
  private readonly size = observedSize();
  private readonly hasComeIntoView = observedView();
  private readonly pictures = inject(TrailPictures);
  private takeBack = (): void => undefined;
  private request = 0;
  private began = 0;

  constructor() {
    effect(() => {
      const [shelf, item] = [this.shelf(), this.item()];
      this.pictures.forget(this.arrived());
      const isPlain = Object.keys(this.parameters()).length === 0;
      cancelAnimationFrame(this.request);
      this.takeBack();
      if (this.size().width === 0 || !this.hasComeIntoView()) return;
      if (this.playing()) return this.start();
      if (!isPlain) return this.drawTrail();
      if (this.drawKept(shelf, item)) return;
      this.takeBack = this.pictures.enqueue(() => {
        this.drawTrail();
        this.pictures.keep(shelf, item, this.canvas().nativeElement);
      });
    });
  }

  ngOnDestroy(): void {
    cancelAnimationFrame(this.request);
    this.takeBack();
  }

  /** Draws a picture that was made before. False where there is none. */
  private drawKept(shelf: Shelf, item: PresetItem | RigItem): boolean {
    const context = prepareCanvas(this.canvas().nativeElement, this.size());
    if (!context) return false;
    const { width, height } = context.canvas;
    const kept = this.pictures.find(shelf, item, width, height);
    if (kept) context.drawImage(kept, 0, 0);
    return kept !== null;
  }

  private drawTrail(): void {
    const context = prepareCanvas(this.canvas().nativeElement, this.size());
    if (context) this.prepared().painter.drawTrail(context);
  }

  private start(): void {
    this.began = performance.now();
    this.request = requestAnimationFrame(this.tick);
  }

  private readonly tick = (): void => {
    const { specimen, painter } = this.prepared();
    const { from, to } = specimen;
    const length = secondsFromTicks(to - from);
    const passed = ((performance.now() - this.began) / 1_000) % (length + PAUSE);
    const context = prepareCanvas(this.canvas().nativeElement, this.size());
    if (context) painter.drawAt(context, from + (to - from) * Math.min(1, passed / length));
    this.request = requestAnimationFrame(this.tick);
  };
}
