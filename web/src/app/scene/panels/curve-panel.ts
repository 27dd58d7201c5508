import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, signal } from '@angular/core';
import {
  channelOf,
  compileRigs,
  drivenTrack,
  frameTicks,
  tracksOf,
  type ChannelId,
  type Layer,
  type Scene,
  type Track,
} from '@wexikine/core';
import { CurvePlotView } from '../../drawing/curve-plot-view';
import { drivenLayer } from '../sheet/driven';
import { leadingChannel, leadingDriven } from '../sheet/strip';

/** Points of a driven curve at most; a layer may be very long. */
const MOST_POINTS = 600;

/** Value and speed of one channel of the selected layer. */
@Component({
  selector: 'wx-curve-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CurvePlotView],
  template: `
    @if (layer(); as shown) {
      @if (channel(); as id) {
        <div class="head">
          <strong>{{ shown.name }}</strong>
          <span class="state" [class.dry]="isDryRun()">{{ isDryRun() ? 'dry run' : 'as it stands' }}</span>
          <select aria-label="Channel" class="text-field" (change)="choose($event)">
            @for (option of channels(); track option) {
              <option [value]="option" [selected]="option === id">{{ label(option) }}</option>
            }
          </select>
        </div>
        @if (keys(); as track) {
          <wx-curve-plot
            [keys]="track"
            [marks]="alone()"
            [behind]="driven() && alone().length > 0 ? alone() : null"
            [behindWords]="driven() ? 'keys alone' : null"
            [channel]="id"
            [runId]="runId()"
            [label]="label(id) + ' of ' + shown.name + ' over time'"
          />
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
export class CurvePanel {
  readonly scene = input.required<Scene>();
  readonly layer = input.required<Layer | null>();
  readonly runId = input.required<string | null>();
  /** Whether the curve is that of a dry run. */
  readonly isDryRun = input(false);

  protected readonly channels = computed(() => {
    const layer = this.layer();
    const keyed = layer ? tracksOf(layer).map(([id]) => id) : [];
    return [...new Set([...keyed, ...(this.rigged()?.channels ?? [])])];
  });
  private readonly rigs = computed(() => compileRigs(this.scene()));
  private readonly index = computed(() => this.scene().layers.findIndex(({ id }) => id === this.layer()?.id));
  private readonly rigged = computed(() => {
    const [rigs, index] = [this.rigs(), this.index()];
    return rigs && index >= 0 ? drivenLayer(rigs, index) : null;
  });
  private readonly wanted = signal<ChannelId | null>(null);
  protected readonly channel = linkedSignal(() => {
    const layer = this.layer();
    const wanted = this.wanted();
    if (wanted !== null && this.channels().includes(wanted)) return wanted;
    const rigged = this.rigged();
    if (layer && rigged) return leadingDriven(rigged, layer, { from: 0, span: this.scene().length });
    return layer ? leadingChannel(layer, this.runId()) : null;
  });

  /** The channel with its rigs, a key a frame; null where none drives it. */
  protected readonly driven = computed((): Track | null => {
    const [rigs, layer, channel] = [this.rigs(), this.layer(), this.channel()];
    if (!rigs || !layer || channel === null || !rigs.drives(this.index(), channel)) return null;
    const frame = frameTicks(this.scene().rate);
    const step = Math.max(frame, (layer.span.out - layer.span.in) / MOST_POINTS);
    return drivenTrack(rigs, this.index(), channel, [layer.span.in, layer.span.out], step);
  });

  /** What the keys alone give. */
  protected readonly alone = computed((): Track => {
    const channel = this.channel();
    return (channel === null ? undefined : this.layer()?.tracks[channel]) ?? [];
  });

  protected readonly keys = computed(() => {
    const driven = this.driven();
    if (driven) return driven;
    const alone = this.alone();
    return alone.length > 0 ? alone : undefined;
  });

  protected label(id: ChannelId): string {
    return channelOf(id).label;
  }

  protected choose(event: Event): void {
    this.wanted.set((event.target as HTMLSelectElement).value as ChannelId);
  }
}
