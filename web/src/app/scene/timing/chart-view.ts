import {
  ChangeDetectionStrategy,
  Component,
  effect,
  ElementRef,
  inject,
  input,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Chart, ChartConfiguration } from 'chart.js';
import { ThemeService } from '../../theme/theme.service';

/** Colours of the page by their role. */
export type RoleOf = (role: string) => string;

/** Bars from a time to a time. */
export type BarConfiguration = ChartConfiguration<'bar', ([number, number] | null)[]>;
/** Lines over time. */
export type LineConfiguration = ChartConfiguration<'line'>;

/** A chart for the colours that the page has now. */
export type ChartOf = (role: RoleOf) => BarConfiguration | LineConfiguration;

/** A Chart.js chart; the library is loaded when the first one is shown. What it shows, its label says in words. */
@Component({
  selector: 'wx-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>',
  styles: `
    :host {
      position: relative;
      display: block;
      min-width: 0;
      min-height: 0;
    }
  `,
})
export class ChartView implements OnDestroy {
  readonly chart = input.required<ChartOf>();
  readonly label = input.required<string>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly theme = toSignal(inject(ThemeService).theme$, { requireSync: true });
  private shown: Chart | null = null;
  private isGone = false;
  private turn = 0;

  constructor() {
    effect(() => {
      this.theme();
      void this.draw(this.chart(), this.canvas().nativeElement);
    });
  }

  ngOnDestroy(): void {
    this.isGone = true;
    this.shown?.destroy();
  }

  private async draw(chartOf: ChartOf, canvas: HTMLCanvasElement): Promise<void> {
    const turn = ++this.turn;
    const { createChart } = await import('./charts');
    // Another one was asked for meanwhile.
    if (this.isGone || turn !== this.turn) return;
    const style = getComputedStyle(this.element);
    const config = chartOf((role) => style.getPropertyValue(`--${role}`).trim());
    if (this.shown) {
      this.shown.data = config.data;
      this.shown.options = config.options ?? {};
      this.shown.update('none');
      return;
    }
    this.shown = createChart(canvas, config);
  }
}
