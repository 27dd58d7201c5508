import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  CHANNELS,
  channelOf,
  clampToChannel,
  formatShort,
  keyAt,
  perUnit,
  removePicks,
  type ChannelId,
  type Edit,
  type Key,
  type Layer,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import { inFamilies } from '../../fields/in-families';
import { Icon } from '../../icons/icon';
import { ValueField } from '../../fields/value-field';
import { enterMany } from '../../fields/many-entry';
import { KeyEdits } from '../keys/key-edits';
import { PlayerStore } from '../player.store';
import { channelCheck, readChannelValue, sharedText, shownChannels, withKey } from './hand-key';
import type { LayerStep } from '../../looks/layer-step';

/** Keys of one layer at the playhead: their values, new ones, and what the layer's keys can become. */
@Component({
  selector: 'wx-hand-keys',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ValueField],
  template: `
    <h3>
      <span
        >Keys at {{ timeText() }}
        @if (layers().size > 1) {
          <small>, of the {{ layers().size }} layers with picked keys</small>
        }
      </span>
      @if (hasKeys() && layers().size === 1) {
        <button class="wx-button quiet" type="button" (click)="record.emit()">
          <wx-icon name="radio_button_checked" />Record as a preset…
        </button>
      }
    </h3>
    <div class="rows">
      @for (row of rows(); track row.id) {
        <div class="row">
          <span class="line" [class.keyed]="row.isKeyed">
            @if (layers().size > 1) {
              <label class="field-label"
                >{{ row.label }}
                <input
                  class="text-field mono"
                  placeholder="mixed"
                  title="120 sets all; +20, −20, ×2 change each"
                  [value]="row.text"
                  (change)="setMany(row.id, $event)"
                />
              </label>
            } @else {
              <wx-value-field
                [label]="row.label"
                [value]="row.text"
                [rate]="rate()"
                [check]="row.check"
                [isLazy]="true"
                (changed)="set(row.id, $event)"
              />
            }
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
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
      <label class="field-label"
        >Another channel
        <select class="text-field" (change)="add($event)">
          <option value="">choose…</option>
          @for (family of others(); track family.family) {
            <optgroup [label]="family.family">
              @for (channel of family.items; track channel.id) {
                <option [value]="channel.id">{{ channel.label }}</option>
              }
            </optgroup>
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
    small {
      font-weight: 400;
      color: var(--ink-soft);
    }
    .problem {
      grid-column: 1 / -1;
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
    .line .field-label,
    .line wx-value-field {
      flex: 1;
    }
    .keyed .field-label,
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
  private readonly edits = inject(KeyEdits);
  private readonly player = inject(PlayerStore);
  private readonly picks = toSignal(this.edits.picks$, { requireSync: true });
  /** This layer; where keys of several are picked all of those, which then get their keys together. */
  protected readonly layers = computed((): ReadonlySet<string> => {
    const picked = [...this.picks().keys()];
    return new Set(picked.length > 1 ? [...picked, this.layer().id] : [this.layer().id]);
  });
  protected readonly problem = signal<string | null>(null);
  protected readonly hasKeys = computed(() => Object.keys(this.layer().tracks).length > 0);
  protected readonly timeText = computed(() => formatShort(this.time(), this.rate()));
  private readonly shown = computed(() => shownChannels(this.layer(), this.wanted()));
  protected readonly others = computed(() => {
    const shown = new Set(this.shown());
    return inFamilies(
      CHANNELS.filter(({ id }) => !shown.has(id)),
      ({ id }) => id,
    );
  });
  protected readonly rows = computed(() => {
    const [layers, at] = [this.all(), this.time()];
    return this.shown().map((id) => {
      const isKeyed = this.layer().tracks[id]?.some((key) => key.at === at) === true;
      return { id, label: channelOf(id).label, isKeyed, text: sharedText(layers, id, at), check: channelCheck(id) };
    });
  });

  /** Where the playhead is, though what is drawn may still be on its way there. */
  private now(): Ticks {
    return this.player.time;
  }

  protected set(id: ChannelId, text: string): void {
    const value = readChannelValue(id, text);
    if (value === null) return;
    this.write(id, withKey(this.layer().tracks[id] ?? [], this.now(), value), `Key ${channelOf(id).label}`);
  }

  /** One value for all layers, or a change of each one's own. */
  protected setMany(id: ChannelId, event: Event): void {
    const { value } = event.target as HTMLInputElement;
    const change = enterMany(value);
    this.problem.set(change || value.trim() === '' ? null : 'Write a number such as 120, or +20 to change each by 20.');
    if (change) this.keyAll(id, (before) => clampToChannel(id, change(before * perUnit(id)) / perUnit(id)));
  }

  protected key(id: ChannelId): void {
    this.keyAll(id, (value) => value);
  }

  private keyAll(id: ChannelId, valueOf: (value: number) => number): void {
    const layers = this.layers();
    const on = layers.size === 1 ? `“${this.layer().name}”` : `${layers.size} layers`;
    const { edits } = keyAt(this.edits.scene, layers, id, this.now(), valueOf);
    if (edits.length > 0) this.step.emit({ label: `Key ${channelOf(id).label} of ${on}`, edits });
  }

  protected remove(id: ChannelId): void {
    const at = new Set([this.now()]);
    const picks = new Map([...this.layers()].map((layer) => [layer, new Map([[id, at]])] as const));
    this.wanted.update((wanted) => [...wanted, id]);
    const { edits } = removePicks(this.edits.scene, picks);
    this.step.emit({ label: `Remove a key of ${channelOf(id).label}`, edits });
  }

  protected add(event: Event): void {
    const field = event.target as HTMLSelectElement;
    if (field.value !== '') this.wanted.update((wanted) => [...wanted, field.value as ChannelId]);
    field.value = '';
  }

  /** The layers that get their keys together, as they stand. */
  private all(): readonly Layer[] {
    const ids = this.layers();
    return ids.size === 1 ? [this.layer()] : this.edits.scene.layers.filter(({ id }) => ids.has(id));
  }

  private write(channel: ChannelId, keys: readonly Key[], what: string): void {
    const { id, name } = this.layer();
    const edit: Edit = { type: 'set-track', layer: id, channel, keys: keys.length > 0 ? [...keys] : null };
    this.step.emit({ label: `${what} of “${name}”`, edits: [edit] });
  }
}
