import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { PlanCounts, PresetItem, PresetRecipe, Scene, SentenceField, Shelf, Solved } from '@wexikine/core';
import { ChoiceEditor } from './choice-editor';
import { EXISTING_CHOICES, MOVES_CHOICES } from './choices';
import { withTiming, type Timing } from './field-changes';
import { FinishEditor } from './finish-editor';
import { PresetEditor } from './preset-editor';
import type { Way, WayValue } from './way-fields';
import { WayForm } from './way-form';
import { LENGTH_WAYS, SPACING_WAYS, startWays } from './ways';

interface TimingForm {
  readonly part: Timing;
  readonly label: string;
  readonly ways: readonly Way[];
}

/** The fields that a run of a preset has and others have not: which, when, how far apart, how long, over what. */
@Component({
  selector: 'wx-preset-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, FinishEditor, PresetEditor, WayForm],
  template: `
    @if (timing(); as form) {
      <wx-way-form
        [label]="form.label"
        [ways]="form.ways"
        [value]="recipe()[form.part]"
        [scene]="scene()"
        [shelf]="shelf()"
        [playhead]="playhead()"
        (changed)="setTiming(form.part, $event)"
      />
    }
    @switch (field()) {
      @case ('preset') {
        <wx-preset-editor [items]="items()" [recipe]="recipe()" (chosen)="chosen.emit($event)" />
      }
      @case ('finish') {
        <wx-finish-editor [recipe]="recipe()" [scene]="scene()" [solved]="solved()" (changed)="changed.emit($event)" />
      }
      @case ('moves') {
        <wx-choice-editor
          label="What moves to the starts"
          [choices]="moves"
          [value]="recipe().moves"
          (chosen)="set({ moves: $event })"
        />
      }
      @case ('existing') {
        <wx-choice-editor
          label="Over keys that are there"
          [choices]="existing"
          [value]="recipe().existing"
          (chosen)="set({ existing: $event })"
        />
        @if (counts(); as n) {
          <p class="quiet-text">
            With this choice: {{ n.added }} keys are added, {{ n.replaced }} are replaced by one at the same time,
            {{ n.removed }} are removed, {{ n.kept }} stay.
          </p>
        }
      }
    }
  `,
})
export class PresetFields {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<PresetRecipe>();
  readonly items = input.required<readonly PresetItem[]>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly playhead = input.required<number>();
  readonly solved = input.required<Solved | null>();
  readonly counts = input.required<PlanCounts | null>();
  readonly changed = output<PresetRecipe>();
  /** Another preset was chosen. */
  readonly chosen = output<PresetItem>();

  protected readonly moves = MOVES_CHOICES;
  protected readonly existing = EXISTING_CHOICES;
  /** When they begin, how far apart, how long: the same form, each with ways of its own. */
  protected readonly timing = computed((): TimingForm | null => {
    switch (this.field()) {
      case 'start':
        return { part: 'start', label: 'Where it begins', ways: startWays(this.recipe().operation === 'send-out') };
      case 'spacing':
        return { part: 'spacing', label: 'How they are spaced', ways: SPACING_WAYS };
      case 'length':
        return { part: 'length', label: 'How long each lasts', ways: LENGTH_WAYS };
      default:
        return null;
    }
  });

  protected set(part: object): void {
    this.changed.emit({ ...this.recipe(), ...part } as PresetRecipe);
  }

  protected setTiming(field: Timing, value: WayValue): void {
    this.changed.emit(withTiming(this.recipe(), field, value));
  }
}
