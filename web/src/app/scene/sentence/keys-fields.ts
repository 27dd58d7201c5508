import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { channelOf, type ChannelId, type KeysRecipe, type Scene, type SentenceField } from '@wexikine/core';
import { NumberField } from '../../fields/number-field';
import { ChoiceEditor } from './choice-editor';
import { GRID_CHOICES } from './choices';
import { channelsForKeys, withChannelFlipped, writesKeysFor } from './field-changes';

/** The fields of turning into keys and of thinning out: which channels, how exactly, on which grid. */
@Component({
  selector: 'wx-keys-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, NumberField],
  template: `
    @switch (field()) {
      @case ('channels') {
        <strong>Which channels</strong>
        <div class="chips" role="group" aria-label="Channels">
          @for (channel of channels(); track channel) {
            <button
              class="chip"
              type="button"
              [class.on]="isOn(channel)"
              [attr.aria-pressed]="isOn(channel)"
              (click)="flip(channel)"
            >
              {{ labelOf(channel) }}
            </button>
          } @empty {
            <span>{{ recipe().operation === 'thin-out' ? 'No layer has keys.' : 'No rig drives anything yet.' }}</span>
          }
        </div>
      }
      @case ('within') {
        <wx-number-field
          label="At most so far off"
          [least]="0.01"
          [most]="1000"
          [step]="0.1"
          [value]="recipe().within"
          (changed)="set({ within: $event })"
        />
        <p class="quiet-text">
          In px for places and sizes, in degrees for turns, in per cent for scale and opacity. A smaller number takes
          more keys.
        </p>
      }
      @case ('grid') {
        <wx-choice-editor
          label="Where keys stand"
          [choices]="grids"
          [value]="recipe().grid"
          (chosen)="set({ grid: $event })"
        />
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      max-width: 340px;
    }
  `,
})
export class KeysFields {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<KeysRecipe>();
  readonly scene = input.required<Scene>();
  readonly changed = output<KeysRecipe>();

  protected readonly grids = GRID_CHOICES;
  protected readonly channels = computed(() => channelsForKeys(this.scene(), this.recipe()));

  protected labelOf(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected isOn(channel: ChannelId): boolean {
    return writesKeysFor(this.recipe(), channel);
  }

  protected flip(channel: ChannelId): void {
    const next = withChannelFlipped(this.recipe(), this.channels(), channel);
    if (next) this.changed.emit(next);
  }

  protected set(part: object): void {
    this.changed.emit({ ...this.recipe(), ...part } as KeysRecipe);
  }
}
