import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  busyMoments,
  busyPeaks,
  formatShort,
  toFrameGrid,
  type BusyPeak,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { busyChart, shownLength, spansChart } from './chart-config';
import { ChartView } from './chart-view';
import { changedSpans, motionSpans } from './spans';

/** When layers move, now and with the dry run, and how busy each moment is; the busiest are one press away. */
@Component({
  selector: 'wx-timing-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChartView],
  template: `
    @if (spans().length === 0) {
      <p class="none">Nothing moves yet. Apply a run, and here is when each layer moves and how busy each moment is.</p>
    } @else {
      <section>
        <h2>
          When each layer moves
          @if (isDryRun()) {
            <small><i class="now"></i>now <i class="after"></i>after</small>
          }
        </h2>
        <wx-chart [chart]="spansChart()" [label]="spansWords()" />
      </section>
      <section>
        <h2>How much happens at once</h2>
        <wx-chart [chart]="busyChart()" [label]="'How many layers move at each moment. ' + peaksText()" />
        <p class="peaks">
          @for (peak of peaks(); track peak.at) {
            @if ($first) {
              <span>Busiest at</span>
            }
            <button class="link" type="button" [title]="words(peak)" (click)="seek.emit(peak.at)">
              {{ at(peak) }}
            </button>
            @if ($first) {
              <span>({{ words(peak) }})</span>
            }
          }
        </p>
      </section>
    }
  `,
  styleUrl: './timing-panel.scss',
})
export class TimingPanel {
  readonly standing = input.required<Scene>();
  /** With the dry run; the same where there is none. */
  readonly drawn = input.required<Scene>();
  readonly isDryRun = input.required<boolean>();
  /** Ids of the layers that take part, in their order. */
  readonly taking = input.required<readonly string[]>();
  readonly seek = output<Ticks>();
  readonly picked = output<string>();

  private readonly after = computed(() => (this.isDryRun() ? this.drawn() : this.standing()));
  protected readonly spans = computed(() =>
    motionSpans(this.standing(), this.after(), this.isDryRun() ? this.taking() : []),
  );
  private readonly nowBusy = computed(() => busyMoments(this.standing()));
  private readonly busy = computed(() => (this.isDryRun() ? busyMoments(this.drawn()) : this.nowBusy()));
  protected readonly peaks = computed(() => busyPeaks(this.busy()));
  protected readonly peaksText = computed(() =>
    this.peaks()
      .map((peak) => `${this.at(peak)}: ${this.words(peak)}`)
      .join('; '),
  );
  protected readonly spansWords = computed(() => {
    const [spans, changed] = [this.spans(), changedSpans(this.spans())];
    const layers = spans.length === 1 ? '1 layer' : `${spans.length} layers`;
    return `When ${layers} move${spans.length === 1 ? 's' : ''}${changed > 0 ? `; ${changed} at other times than now` : ''}.`;
  });

  private readonly shown = computed(() => {
    const { rate, length } = this.standing();
    return { rate, length: shownLength(this.spans(), length, rate) };
  });
  protected readonly spansChart = computed(() =>
    spansChart(this.spans(), this.shown(), (layer, at) => {
      this.picked.emit(layer);
      this.seek.emit(at);
    }),
  );
  protected readonly busyChart = computed(() =>
    busyChart(this.nowBusy(), this.isDryRun() ? this.busy() : null, this.shown(), (at) =>
      this.seek.emit(Math.max(0, toFrameGrid(Math.round(at), this.standing().rate))),
    ),
  );

  protected at({ at }: BusyPeak): string {
    return formatShort(at, this.standing().rate);
  }

  protected words({ moving, speed }: BusyPeak): string {
    const layers = moving === 1 ? '1 layer' : `${moving} layers`;
    return speed > 0 ? `${layers}, ${Math.round(speed).toLocaleString('en')} px/s together` : layers;
  }
}
