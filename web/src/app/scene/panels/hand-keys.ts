import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import {
  CHANNELS,
  channelOf,
  formatChannelValue,
  formatShort,
  restValue,
  sampleTrack,
  type ChannelId,
  type Edit,
  type Key,
  type Layer,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { ValueField } from '../../fields/value-field';
import { channelCheck, readChannelValue, withKey } from './hand-key';
import type { LayerStep } from './layer-panel';

/** Keys of one layer at the playhead: their values, new ones, and what the layer's keys can become. */
@Component({
  selector: 'wx-hand-keys',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ValueField],
  template: `
    <h3>
      Keys at {{ timeText() }}
      @if (hasKeys()) {
        <button class="wx-button quiet" type="button" (click)="record.emit()">
          <wx-icon name="radio_button_checked" />Record as a preset…
        </button>
      }
    </h3>
    <div class="rows">
      @for (row of rows(); track row.id) {
        <div class="row">
          <span class="line" [class.keyed]="row.isKeyed">
            <wx-value-field
              [label]="row.label"
              [value]="row.text"
              [rate]="rate()"
              [check]="row.check"
              [isLazy]="true"
              (changed)="set(row.id, $event)"
            />
            @if (row.isKeyed) {
              <button
                class="icon-button"
                type="button"
                [attr.aria-label]="'Remove the key of ' + row.label"
                title="Remove this key"
                (click)="remove(row.id)"
              >
                <wx-icon name="close" />
              </button>
            } @else {
              <button
                class="icon-button"
                type="button"
                [attr.aria-label]="'Set a key of ' + row.label"
                title="Set a key here"
                (click)="key(row.id)"
              >
                <wx-icon name="add" />
              </button>
            }
          </span>
        </div>
      }
      <label class="field-label"
        >Another channel
        <select class="text-field" (change)="add($event)">
          <option value="">choose…</option>
          @for (channel of others(); track channel.id) {
            <option [value]="channel.id">{{ channel.label }}</option>
          }
        </select>
      </label>
    </div>
  `,
  styles: `
    h3 {
      display: flex;
      align-items: center;
      justify-content: space-between;
      min-height: 32px;
      font: 600 13px/1.4 var(--font-text);
      margin: 8px 0 4px;
    }
    .rows {
      display: grid;
      grid-template-columns: repeat(3, 1fr);
      gap: 8px;
    }
    .row {
      display: grid;
      gap: 4px;
      min-width: 0;
    }
    .line {
      display: flex;
      align-items: end;
      min-width: 0;
    }
    .line wx-value-field {
      flex: 1;
    }
    .keyed wx-value-field {
      box-shadow: -3px 0 var(--ink);
    }
    .icon-button {
      width: 26px;
      height: 26px;
      font-size: 18px;
    }
  `,
})
export class HandKeys {
  /** The layer as it stands, without a dry run. */
  readonly layer = input.required<Layer>();
  readonly time = input.required<Ticks>();
  readonly rate = input.required<Rate>();
  readonly step = output<LayerStep>();
  readonly record = output();

  /** Channels that are shown besides those with keys. */
  private readonly layerId = computed(() => this.layer().id);
  private readonly wanted = linkedSignal<string, readonly ChannelId[]>({
    source: this.layerId,
    computation: () => [],
  });
  protected readonly hasKeys = computed(() => Object.keys(this.layer().tracks).length > 0);
  protected readonly timeText = computed(() => formatShort(this.time(), this.rate()));
  private readonly shown = computed(() => {
    const { tracks } = this.layer();
    return CHANNELS.map(({ id }) => id).filter((id) => tracks[id] !== undefined || this.wanted().includes(id));
  });
  protected readonly others = computed(() => CHANNELS.filter(({ id }) => !this.shown().includes(id)));
  protected readonly rows = computed(() =>
    this.shown().map((id) => {
      const track = this.layer().tracks[id];
      const isKeyed = track?.some(({ at }) => at === this.time()) === true;
      return { id, label: channelOf(id).label, isKeyed, text: this.textOf(id), check: channelCheck(id) };
    }),
  );

  protected set(id: ChannelId, text: string): void {
    const value = readChannelValue(id, text);
    if (value === null) return;
    this.write(id, withKey(this.layer().tracks[id] ?? [], this.time(), value), `Key ${channelOf(id).label}`);
  }

  protected key(id: ChannelId): void {
    const keys = withKey(this.layer().tracks[id] ?? [], this.time(), this.valueAt(id));
    this.write(id, keys, `Key ${channelOf(id).label}`);
  }

  protected remove(id: ChannelId): void {
    const keys = (this.layer().tracks[id] ?? []).filter(({ at }) => at !== this.time());
    this.wanted.update((wanted) => [...wanted, id]);
    this.write(id, keys, `Remove a key of ${channelOf(id).label}`);
  }

  protected add(event: Event): void {
    const field = event.target as HTMLSelectElement;
    if (field.value !== '') this.wanted.update((wanted) => [...wanted, field.value as ChannelId]);
    field.value = '';
  }

  private valueAt(id: ChannelId): number {
    const track = this.layer().tracks[id];
    return track ? sampleTrack(track, this.time()) : restValue(this.layer(), id);
  }

  private textOf(id: ChannelId): string {
    return formatChannelValue(id, this.valueAt(id)).replace('−', '-');
  }

  private write(channel: ChannelId, keys: readonly Key[], what: string): void {
    const { id, name } = this.layer();
    const edit: Edit = { type: 'set-track', layer: id, channel, keys: keys.length > 0 ? [...keys] : null };
    this.step.emit({ label: `${what} of “${name}”`, edits: [edit] });
  }
}
