import {
  ChangeDetectionStrategy,
  Component,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { prepareCanvas } from '../../drawing/canvas';
import { observedSize } from '../../drawing/observed-size';
import { ThemeService } from '../../theme/theme.service';
import { paintRows, type RowColours, type RowsShown } from './paint-rows';

/** Colours of runs by their place: channels’ colours, which are told apart by people who see colours differently. */
const RUN_ROLES = ['position', 'scale', 'rotation', 'opacity', 'other'] as const;

function readColours(element: HTMLElement): RowColours {
  const style = getComputedStyle(element);
  const role = (name: string): string => style.getPropertyValue(`--${name}`).trim();
  return {
    pine: role('pine'),
    wash: role('pine-wash'),
    ink: role('ink'),
    soft: role('ink-soft'),
    saffron: role('saffron'),
    rose: role('rose'),
    line: role('line'),
    runs: RUN_ROLES.map((name) => role(`channel-${name}`)),
  };
}

/** The strips of all rows that are seen, on one canvas; the rows themselves say in words what it shows. */
@Component({
  selector: 'wx-keys-canvas',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas aria-hidden="true"></canvas>',
  styles: `
    :host {
      position: absolute;
      inset: 0 0 0 200px;
      pointer-events: none;
      overflow: hidden;
    }
    canvas {
      display: block;
      width: 100%;
      height: 100%;
    }
  `,
})
export class KeysCanvas {
  readonly shown = input.required<RowsShown>();
  /** How far the rows are scrolled, px. */
  readonly scrolled = input.required<number>();

  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly size = observedSize();
  private readonly theme = toSignal(inject(ThemeService).theme$, { requireSync: true });
  private readonly colours = signal<RowColours | null>(null);

  constructor() {
    effect(() => {
      this.theme();
      // The theme's attribute is set by then.
      untracked(() => this.colours.set(readColours(this.element)));
    });
    effect(() => {
      const [shown, scrolled, size, colours] = [this.shown(), this.scrolled(), this.size(), this.colours()];
      const context = colours && prepareCanvas(this.canvas().nativeElement, size);
      if (!context) return;
      const ratio = window.devicePixelRatio || 1;
      context.scale(ratio, ratio);
      paintRows(context, shown, scrolled, size.height, colours);
    });
  }
}
