import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  channelOf,
  CHANNEL_IDS,
  tracksOf,
  type ChannelId,
  type ClearRecipe,
  type Phase,
  type Scene,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';

const PHASES: readonly Phase[] = ['entrance', 'accent', 'throughout', 'exit'];

/** Which keys go: by channel, phase, time and run, all conditions together. */
@Component({
  selector: 'wx-clear-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ValueField],
  template: `
    <strong>Which keys go</strong>
    <p class="quiet-text">Whatever is chosen must hold together; with nothing chosen, every key goes.</p>
    <div class="field-label" role="group" aria-label="Channels">
      Channels
      <div class="chips">
        @for (channel of channels(); track channel) {
          <button
            class="chip"
            type="button"
            [class.on]="has(channel)"
            [attr.aria-pressed]="has(channel)"
            (click)="flip(channel)"
          >
            {{ label(channel) }}
          </button>
        } @empty {
          <span>The picked layers have no keys.</span>
        }
      </div>
    </div>
    <div class="field-label" role="group" aria-label="Phases">
      Made by runs of
      <div class="chips">
        @for (phase of phases; track phase) {
          <button
            class="chip"
            type="button"
            [class.on]="hasPhase(phase)"
            [attr.aria-pressed]="hasPhase(phase)"
            (click)="flipPhase(phase)"
          >
            {{ phase }}
          </button>
        }
      </div>
    </div>
    <label class="field-label"
      >Made by
      <select class="text-field" (change)="setRun($event)">
        <option value="" [selected]="recipe().run === undefined">anything</option>
        @for (run of scene().runs; track run.id; let i = $index) {
          <option [value]="run.id" [selected]="run.id === recipe().run">
            run {{ i + 1 }}: {{ run.sentence.slice(0, 60) }}
          </option>
        }
      </select>
    </label>
    <div class="two">
      <wx-value-field
        label="From, empty for any"
        [value]="recipe().from ?? ''"
        [rate]="scene().rate"
        [check]="check()"
        (changed)="setTime('from', $event)"
      />
      <wx-value-field
        label="Up to"
        [value]="recipe().to ?? ''"
        [rate]="scene().rate"
        [check]="check()"
        (changed)="setTime('to', $event)"
      />
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 340px;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      font-weight: 400;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
  `,
})
export class ClearEditor {
  readonly recipe = input.required<ClearRecipe>();
  readonly scene = input.required<Scene>();
  readonly changed = output<ClearRecipe>();
  protected readonly phases = PHASES;

  protected readonly check = computed(() => {
    const check = timeCheck(this.scene().rate);
    return (text: string) => (text.trim() === '' ? null : check(text));
  });

  protected readonly channels = computed(() => {
    const keyed = new Set(this.scene().layers.flatMap((layer) => tracksOf(layer).map(([channel]) => channel)));
    for (const channel of this.recipe().channels ?? []) keyed.add(channel);
    return CHANNEL_IDS.filter((channel) => keyed.has(channel));
  });

  protected label(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected has(channel: ChannelId): boolean {
    return this.recipe().channels?.includes(channel) ?? false;
  }

  protected hasPhase(phase: Phase): boolean {
    return this.recipe().phases?.includes(phase) ?? false;
  }

  protected flip(channel: ChannelId): void {
    const { channels = [], ...rest } = this.recipe();
    const next = channels.includes(channel) ? channels.filter((id) => id !== channel) : [...channels, channel];
    this.changed.emit(next.length > 0 ? { ...rest, channels: next } : rest);
  }

  protected flipPhase(phase: Phase): void {
    const { phases = [], ...rest } = this.recipe();
    const next = phases.includes(phase) ? phases.filter((name) => name !== phase) : [...phases, phase];
    this.changed.emit(next.length > 0 ? { ...rest, phases: next } : rest);
  }

  protected setRun(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    const { run: _run, ...rest } = this.recipe();
    this.changed.emit(value === '' ? rest : { ...rest, run: value });
  }

  protected setTime(which: 'from' | 'to', text: string): void {
    const { [which]: _standing, ...rest } = this.recipe();
    this.changed.emit((text.trim() === '' ? rest : { ...rest, [which]: text.trim() }) as ClearRecipe);
  }
}
