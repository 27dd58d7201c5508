import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, signal } from '@angular/core';
import { channelOf, tracksOf, type ChannelId, type Layer } from '@wexikine/core';
import { CurvePlotView } from '../../drawing/curve-plot-view';
import { leadingChannel } from '../sheet/strip';

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
  readonly layer = input.required<Layer | null>();
  readonly runId = input.required<string | null>();
  /** Whether the curve is that of a dry run. */
  readonly isDryRun = input(false);

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

  protected readonly keys = computed(() => {
    const channel = this.channel();
    return channel === null ? undefined : this.layer()?.tracks[channel];
  });

  protected label(id: ChannelId): string {
    return channelOf(id).label;
  }

  protected choose(event: Event): void {
    this.wanted.set((event.target as HTMLSelectElement).value as ChannelId);
  }
}
