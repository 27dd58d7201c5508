import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { restValue, type ChannelId, type Edit, type Layer } from '@wexikine/core';
import { enterMany } from '../fields/many-entry';
import { LookPart } from './look-part';
import { common } from './looks';
import { toward, wayOf } from './way';

/** Where shadows fall, as a direction and a distance in place of across and down. */
@Component({
  selector: 'wx-shadow-way',
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './look.scss',
  // Its fields stand in the grid of the effect.
  host: { style: 'display: contents' },
  template: `
    <label class="field-label" title="0° is to the right, 90° is down">
      Direction
      <input
        class="text-field mono"
        placeholder="mixed"
        [attr.aria-label]="called() + ', direction'"
        [value]="text('direction')"
        (change)="set('direction', $event)"
      />
    </label>
    <label class="field-label">
      Distance
      <input
        class="text-field mono"
        placeholder="mixed"
        [attr.aria-label]="called() + ', distance'"
        [value]="text('distance')"
        (change)="set('distance', $event)"
      />
    </label>
    @if (problem(); as wrong) {
      <p class="problem text" role="alert">{{ wrong }}</p>
    }
  `,
})
export class ShadowWay extends LookPart {
  /** Which shadow it is, such as "Inner shadow". */
  readonly called = input.required<string>();
  /** Channels of how far it falls across and down. */
  readonly across = input.required<ChannelId>();
  readonly down = input.required<ChannelId>();

  private of(layer: Layer): ReturnType<typeof wayOf> {
    return wayOf(restValue(layer, this.across()), restValue(layer, this.down()));
  }

  protected text(part: 'direction' | 'distance'): string {
    const value = common(this.layers(), (layer) => Math.round(this.of(layer)[part] * 10) / 10);
    return value === null ? '' : `${value}${part === 'direction' ? '°' : ' px'}`;
  }

  protected set(part: 'direction' | 'distance', event: Event): void {
    const change = enterMany(this.valueOf(event));
    if (!change)
      return this.problem.set(
        part === 'direction' ? 'Write degrees such as 90 for down, or +15 to turn each.' : 'Write pixels such as 12.',
      );
    const edits = this.layers().map((layer): Edit => {
      const standing = this.of(layer);
      const { x, y } = toward({ ...standing, [part]: change(standing[part]) });
      return {
        type: 'set-layer',
        layer: layer.id,
        fields: { rest: { ...layer.rest, [this.across()]: x, [this.down()]: y } },
      };
    });
    this.do(`Set the ${part} of the ${this.called().toLowerCase()}`, edits);
  }
}
