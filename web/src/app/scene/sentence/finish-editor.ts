import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { formatFrames, formatShort, type PresetRecipe, type Scene, type Solved } from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';
import { ChoiceEditor } from './choice-editor';
import type { Choice } from './choices';

const FOLLOWS: readonly Choice[] = [
  { value: 'finish', label: 'The finish follows', note: 'start, gap and length are given' },
  { value: 'start', label: 'The start follows', note: 'finish, gap and length are given' },
  { value: 'spacing', label: 'The gap follows', note: 'finish, start and length are given' },
  { value: 'length', label: 'The length follows', note: 'finish, start and gap are given' },
];

type Part = 'start' | 'spacing' | 'length';
const PARTS: readonly Part[] = ['start', 'spacing', 'length'];

/** When the last one is done: any three of start, gap, length and finish give the fourth. */
@Component({
  selector: 'wx-finish-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, ValueField],
  template: `
    <wx-choice-editor
      label="When the last one is done"
      [choices]="choices"
      [value]="follows()"
      (chosen)="choose($event)"
    />
    @if (text(); as at) {
      <wx-value-field
        label="Done at"
        [value]="at"
        [rate]="scene().rate"
        [isFirst]="true"
        [least]="0"
        [check]="check()"
        (changed)="give($event)"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 270px;
    }
  `,
})
export class FinishEditor {
  readonly recipe = input.required<PresetRecipe>();
  readonly scene = input.required<Scene>();
  readonly solved = input.required<Solved | null>();
  readonly changed = output<PresetRecipe>();

  protected readonly choices = FOLLOWS;
  protected readonly check = computed(() => timeCheck(this.scene().rate));
  protected readonly follows = computed(() => PARTS.find((part) => this.recipe()[part].by === 'finish') ?? 'finish');
  protected readonly text = computed(() => {
    const { start, spacing, length } = this.recipe();
    const given = [start, spacing, length].find(({ by }) => by === 'finish');
    return given?.by === 'finish' ? given.at : null;
  });

  /** The finish as it stands becomes given, and what followed before keeps the value that it had. */
  protected choose(part: string): void {
    const fixed = this.fixed();
    const at = this.text() ?? this.time(this.solved()?.finish ?? this.scene().length);
    this.changed.emit(part === 'finish' ? fixed : ({ ...fixed, [part]: { by: 'finish', at } } as PresetRecipe));
  }

  protected give(at: string): void {
    this.changed.emit({ ...this.recipe(), [this.follows()]: { by: 'finish', at } } as PresetRecipe);
  }

  private time(ticks: number): string {
    return formatShort(ticks, this.scene().rate);
  }

  private frames(ticks: number | null | undefined, otherwise: string): string {
    return ticks === null || ticks === undefined ? otherwise : formatFrames(ticks, this.scene().rate).replace(' ', '');
  }

  /** The recipe with nothing that follows from the finish. */
  private fixed(): PresetRecipe {
    const recipe = this.recipe();
    const solved = this.solved();
    return {
      ...recipe,
      start: recipe.start.by === 'finish' ? { by: 'time', at: this.time(solved?.start ?? 0) } : recipe.start,
      spacing: recipe.spacing.by === 'finish' ? { by: 'gap', gap: this.frames(solved?.gap, '4f') } : recipe.spacing,
      length:
        recipe.length.by === 'finish' ? { by: 'fixed', length: this.frames(solved?.length, '20f') } : recipe.length,
    };
  }
}
