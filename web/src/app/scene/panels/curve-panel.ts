import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  type AfterViewInit,
} from '@angular/core';
import { channelOf, tracksOf, type ChannelId, type Layer } from '@wexikine/core';
import { leadingChannel } from '../sheet/strip';
import { plotCurve } from './curve';

/** Value and speed of one channel of the selected layer. */
@Component({
  selector: 'wx-curve-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (layer(); as shown) {
      @if (channel(); as id) {
        <div class="head">
          <strong>{{ shown.name }}</strong>
          <select aria-label="Channel" class="text-field" (change)="choose($event)">
            @for (option of channels(); track option) {
              <option [value]="option" [selected]="option === id">{{ label(option) }}</option>
            }
          </select>
        </div>
        @if (plot(); as curve) {
          <svg
            role="img"
            [attr.aria-label]="label(id) + ' of ' + shown.name + ' over time'"
            [attr.width]="size().width"
            [attr.height]="size().height"
            [class]="family()"
          >
            @for (line of curve.grid; track $index) {
              <line x1="64" [attr.x2]="size().width - 14" [attr.y1]="line.y" [attr.y2]="line.y" />
              <text x="58" [attr.y]="line.y + 4">{{ line.label }}</text>
            }
            <path class="speed" [attr.d]="curve.speed" />
            <path class="value" [attr.d]="curve.value" />
            @for (key of curve.keys; track key.at) {
              <circle [class.new]="key.isNew" [attr.cx]="key.x" [attr.cy]="key.y" r="4" />
            }
          </svg>
          <p class="legend">
            <span class="of-value">value</span> <span class="of-speed">speed, at most {{ curve.fastest }}</span>
          </p>
        }
      } @else {
        <p class="none">
          <strong>{{ shown.name }}</strong> has no keys. Apply a run to it, and its curves appear here.
        </p>
      }
    } @else {
      <p class="none">Select a layer in the run sheet to see its curves.</p>
    }
  `,
  styleUrl: './curve-panel.scss',
})
export class CurvePanel implements AfterViewInit {
  readonly layer = input.required<Layer | null>();
  readonly runId = input.required<string | null>();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly destroy = inject(DestroyRef);
  protected readonly size = signal({ width: 300, height: 160 });
  protected readonly channels = computed(() => {
    const layer = this.layer();
    return layer ? tracksOf(layer).map(([id]) => id) : [];
  });
  private readonly wanted = signal<ChannelId | null>(null);
  protected readonly channel = linkedSignal(() => {
    const layer = this.layer();
    const wanted = this.wanted();
    if (wanted !== null && this.channels().includes(wanted)) return wanted;
    return layer ? leadingChannel(layer, this.runId()) : null;
  });

  protected readonly plot = computed(() => {
    const [layer, channel] = [this.layer(), this.channel()];
    const keys = channel === null ? undefined : layer?.tracks[channel];
    return keys && channel !== null ? plotCurve(keys, channel, this.runId(), this.size()) : null;
  });

  protected readonly family = computed(() => {
    const channel = this.channel();
    return channel === null ? '' : channelOf(channel).family.replace(' ', '-');
  });

  ngAfterViewInit(): void {
    const observer = new ResizeObserver(([{ contentRect }]) =>
      this.size.set({ width: contentRect.width, height: Math.max(90, contentRect.height - 64) }),
    );
    observer.observe(this.element);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  protected label(id: ChannelId): string {
    return channelOf(id).label;
  }

  protected choose(event: Event): void {
    this.wanted.set((event.target as HTMLSelectElement).value as ChannelId);
  }
}
