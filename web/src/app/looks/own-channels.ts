import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { maskChannels, shadowChannels, type ChannelId } from '@wexikine/core';
import { LookPart } from './look-part';

/** What the channels of one mask and of one further shadow do, in the order in which the core names them. */
const WORDS = {
  mask: ['Moved across', 'Moved down', 'Width', 'Height', 'Turned', 'Softened'],
  shadow: ['Moved across', 'Moved down', 'Softened', 'Spread further', 'Strength'],
} as const;

/** What is done to one mask or one further shadow by channels of its own, which can be keyed; nothing for those that have none. */
@Component({
  selector: 'wx-own-channels',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (fields().length > 0) {
      <details [open]="isUsed()">
        <summary>By itself <small>can be keyed</small></summary>
        <div class="fields">
          @for (field of fields(); track field.id) {
            <label class="field-label"
              >{{ field.label }}
              <input
                class="text-field mono"
                placeholder="mixed"
                [attr.aria-label]="called() + ', by itself, ' + field.label.toLowerCase()"
                [value]="channelText(layers(), field.id)"
                (change)="setChannel(layers(), field.id, valueOf($event))"
            /></label>
          }
        </div>
        @if (problem(); as text) {
          <p class="problem" role="alert">{{ text }}</p>
        }
      </details>
    }
  `,
  styles: `
    :host {
      grid-column: 1 / -1;
    }
    summary {
      padding: 2px 0;
      font-size: 12.5px;
      cursor: pointer;
    }
    small {
      color: var(--ink-soft);
    }
    .fields {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      align-items: end;
      gap: 8px;
      padding-top: 4px;
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class OwnChannels extends LookPart {
  readonly of = input.required<'mask' | 'shadow'>();
  /** 0 for the first mask, or for the shadow below the first. */
  readonly place = input.required<number>();
  /** What it is called, such as “Mask 2”. */
  readonly called = input.required<string>();
  protected readonly fields = computed((): { readonly id: ChannelId; readonly label: string }[] => {
    const ids = this.of() === 'mask' ? maskChannels(this.place()) : shadowChannels(this.place());
    return ids.map((id, i) => ({ id, label: WORDS[this.of()][i] }));
  });
  /** Stands open where something is done. */
  protected readonly isUsed = computed(() =>
    this.layers().some(({ rest, tracks }) =>
      this.fields().some(({ id }) => rest[id] !== undefined || tracks[id] !== undefined),
    ),
  );
}
