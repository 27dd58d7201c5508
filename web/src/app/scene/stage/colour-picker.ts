import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { compiledOnce, frameAt, matrixAt, type Scene } from '@wexikine/core';
import { pictureCrop, subjectAt } from '@wexikine/paint';
import { PainterService } from '../../drawing/painter.service';
import { CutOutView, type ColourPick } from '../../looks/cut-out-view';
import type { StagePlace } from './handle-marks';

/** Lies over the preview while a colour is picked on a layer's picture: a press takes it, Escape leaves all as it is. */
@Component({
  selector: 'wx-colour-picker',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      #over
      class="over"
      role="button"
      tabindex="0"
      aria-label="Press the colour that is to go. Escape leaves it."
      (click)="take($event)"
      (keydown.escape)="leave($event)"
      (pointermove)="look($event)"
    ></div>
    <p>
      @if (seen(); as colour) {
        <span class="spot" [style.background]="colour"></span> {{ colour }}
      } @else {
        Press the colour that is to go
      }
    </p>
  `,
  styles: `
    :host,
    .over {
      position: absolute;
      inset: 0;
    }
    .over {
      cursor: crosshair;
      outline: none;
    }
    p {
      position: absolute;
      top: 12px;
      left: 50%;
      display: flex;
      gap: 8px;
      align-items: center;
      margin: 0;
      padding: 6px 12px;
      border-radius: 999px;
      background: var(--ink);
      color: var(--paper);
      font-size: 13px;
      transform: translateX(-50%);
      pointer-events: none;
    }
    .spot {
      width: 16px;
      height: 16px;
      border: 1px solid currentcolor;
      border-radius: 4px;
    }
  `,
})
export class ColourPicker {
  readonly pick = input.required<ColourPick>();
  readonly scene = input.required<Scene>();
  readonly time = input.required<number>();
  readonly place = input.required<StagePlace>();
  protected readonly seen = signal<string | null>(null);
  private readonly painter = inject(PainterService);
  private readonly view = inject(CutOutView);
  private readonly over = viewChild.required<ElementRef<HTMLElement>>('over');

  constructor() {
    effect(() => this.over().nativeElement.focus({ preventScroll: true }));
  }

  protected look(event: MouseEvent): void {
    this.seen.set(this.colourAt(event));
  }

  protected take(event: MouseEvent): void {
    const colour = this.colourAt(event);
    if (colour === null) return;
    this.view.picking.set(null);
    this.pick().take(colour);
  }

  protected leave(event: Event): void {
    event.stopPropagation();
    this.view.picking.set(null);
  }

  /** The colour of the layer's own picture under the pointer, before anything is cut out; null beside it. */
  private colourAt({ offsetX, offsetY }: MouseEvent): string | null {
    const compiled = compiledOnce(this.scene());
    const index = compiled.layers.findIndex(({ id }) => id === this.pick().layer);
    const layer = compiled.layers[index];
    if (layer?.source.type !== 'picture') return null;
    const frame = frameAt(compiled, this.time());
    const subject = subjectAt(frame, layer, index);
    const { x, y, zoom } = this.place();
    const matrix = new DOMMatrix([...matrixAt(frame, index)]).inverse();
    const at = matrix.transformPoint({ x: (offsetX - x) / zoom, y: (offsetY - y) / zoom });
    const [across, down] = [at.x / subject.width, at.y / subject.height];
    const picture = this.painter.pictureAt(layer.source.href);
    if (!picture || !(across >= 0 && across <= 1 && down >= 0 && down <= 1)) return null;
    const crop = pictureCrop(subject, picture);
    const [left, top] = [crop.x + across * crop.width, crop.y + down * crop.height];
    return this.painter.colourOf(layer.source.href, left / picture.width, top / picture.height);
  }
}
