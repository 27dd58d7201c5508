import {
  type AfterViewInit,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { channelOf, type ChannelId, type Ticks, type Track } from '@wexikine/core';
import { plotCurve } from './curve-plot';

/** Room that the legend takes. */
const LEGEND = 26;
const LEAST = 90;

/** A track drawn over the time of its keys: value and speed together, and another one behind where there is one. */
@Component({
  selector: 'wx-curve-plot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let curve = plot();
    <svg
      role="img"
      [attr.aria-label]="label()"
      [attr.width]="size().width"
      [attr.height]="size().height"
      [class]="family()"
    >
      @for (line of curve.grid; track $index) {
        <line x1="64" [attr.x2]="size().width - 14" [attr.y1]="line.y" [attr.y2]="line.y" />
        <text x="58" [attr.y]="line.y + 4">{{ line.label }}</text>
      }
      <path class="speed" [attr.d]="curve.speed" />
      @if (curve.behind; as line) {
        <path class="behind" [attr.d]="line" />
      }
      <path class="value" [attr.d]="curve.value" />
      @if (markX(); as x) {
        <line class="mark" [attr.x1]="x" [attr.x2]="x" y1="8" [attr.y2]="size().height - 16" />
      }
      @for (key of curve.keys; track key.at) {
        <circle [class.new]="key.isNew" [attr.cx]="key.x" [attr.cy]="key.y" r="4" />
      }
    </svg>
    <p class="legend">
      <span class="of-value">value</span>
      @if (behindWords(); as words) {
        <span class="of-behind">{{ words }}</span>
      }
      <span class="of-speed">speed, at most {{ curve.fastest }}</span>
    </p>
  `,
  styleUrl: './curve-plot-view.scss',
})
export class CurvePlotView implements AfterViewInit {
  readonly keys = input.required<Track>();
  readonly channel = input.required<ChannelId>();
  readonly label = input.required<string>();
  /** The run whose keys are marked as new. */
  readonly runId = input<string | null>(null);
  readonly behind = input<Track | null>(null);
  readonly behindWords = input<string | null>(null);
  /** Keys that are marked, where they are others than the track's own: of one that was sampled. */
  readonly marks = input<Track | null>(null);
  /** A time to mark with a line. */
  readonly mark = input<Ticks | null>(null);

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroy = inject(DestroyRef);
  protected readonly size = signal({ width: 300, height: 160 });
  protected readonly plot = computed(() =>
    plotCurve(this.keys(), this.channel(), this.runId(), this.size(), this.behind(), this.marks() ?? this.keys()),
  );
  protected readonly family = computed(() => channelOf(this.channel()).family.replace(' ', '-'));
  protected readonly markX = computed(() => {
    const mark = this.mark();
    return mark === null ? null : this.plot().xOf(mark);
  });

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(([{ contentRect }]) =>
      this.size.set({ width: contentRect.width, height: Math.max(LEAST, contentRect.height - LEGEND) }),
    );
    observer.observe(this.element);
    this.destroy.onDestroy(() => observer.disconnect());
  }
}
