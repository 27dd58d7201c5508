import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Parameter, PresetItem, Recipe, Scene, SentenceField, Shelf } from '@wexikine/core';
import { withPreset } from '../first-recipe';
import { ChoiceEditor } from './choice-editor';
import { OrderEditor } from './order-editor';
import { ParameterEditor } from './parameter-editor';
import { PickEditor } from './pick-editor';
import { PresetEditor } from './preset-editor';
import { TimingEditor } from './timing-editor';
import { EXISTING_CHOICES, MOVES_CHOICES, OPERATION_CHOICES } from './choices';

/** Shows the editor that fits a field of the sentence. */
@Component({
  selector: 'wx-field-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, OrderEditor, ParameterEditor, PickEditor, PresetEditor, TimingEditor],
  template: `
    @switch (kind()) {
      @case ('operation') {
        <wx-choice-editor
          label="What to do"
          [choices]="operations"
          [value]="recipe().operation"
          (chosen)="setOperation($event)"
        />
      }
      @case ('preset') {
        <wx-preset-editor [items]="items()" [recipe]="recipe()" (chosen)="setPreset($event)" />
      }
      @case ('pick') {
        <wx-pick-editor
          [scene]="scene()"
          [pick]="recipe().pick"
          [count]="count()"
          (changed)="changed.emit(with({ pick: $event }))"
        />
      }
      @case ('order') {
        <wx-order-editor [order]="recipe().order" [scene]="scene()" (changed)="changed.emit(with({ order: $event }))" />
      }
      @case ('moves') {
        <wx-choice-editor
          label="What moves to the starts"
          [choices]="moves"
          [value]="recipe().moves"
          (chosen)="setMoves($event)"
        />
      }
      @case ('existing') {
        <wx-choice-editor
          label="Over keys that are there"
          [choices]="existing"
          [value]="recipe().existing"
          (chosen)="setExisting($event)"
        />
      }
      @case ('timing') {
        <wx-timing-editor
          [field]="timingField()"
          [recipe]="recipe()"
          [scene]="scene()"
          [playhead]="playhead()"
          (changed)="changed.emit($event)"
        />
      }
      @case ('parameter') {
        @if (parameter(); as entry) {
          <wx-parameter-editor
            [parameter]="entry"
            [recipe]="recipe()"
            [scene]="scene()"
            [shelf]="shelf()"
            (changed)="changed.emit($event)"
            (removed)="removeParameter($event)"
          />
        }
      }
      @case ('add-parameter') {
        <strong>Set for this run</strong>
        <div class="choices">
          @for (entry of missing(); track entry.name) {
            <button class="choice" type="button" (click)="add(entry)">
              <span
                >{{ entry.label }} <small>as made: {{ entry.default }}</small></span
              >
            </button>
          }
        </div>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
  `,
})
export class FieldEditor {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<Recipe>();
  readonly scene = input.required<Scene>();
  readonly items = input.required<readonly PresetItem[]>();
  readonly shelf = input.required<Shelf>();
  readonly playhead = input.required<number>();
  readonly count = input.required<number>();
  readonly changed = output<Recipe>();
  readonly added = output<{ recipe: Recipe; field: SentenceField }>();
  readonly done = output();

  protected readonly operations = OPERATION_CHOICES;
  protected readonly moves = MOVES_CHOICES;
  protected readonly existing = EXISTING_CHOICES;

  protected readonly kind = computed(() => {
    const field = this.field();
    if (field === 'start' || field === 'spacing' || field === 'length') return 'timing';
    return field.startsWith('parameter:') ? 'parameter' : field;
  });

  protected readonly timingField = computed(() => this.field() as 'start' | 'spacing' | 'length');

  private readonly parameters = computed(() => this.shelf().preset(this.recipe().preset.id)?.body.parameters ?? []);

  protected readonly parameter = computed(() =>
    this.parameters().find(({ name }) => this.field() === `parameter:${name}`),
  );

  protected readonly missing = computed(() =>
    this.parameters().filter(({ name }) => this.recipe().parameters[name] === undefined),
  );

  protected with(part: Partial<Recipe>): Recipe {
    return { ...this.recipe(), ...part };
  }

  protected setPreset(item: PresetItem): void {
    this.changed.emit(withPreset(this.recipe(), item));
    this.done.emit();
  }

  /** Another verb needs a preset of its phase: the first one of the library. */
  protected setOperation(value: string): void {
    const phase = OPERATION_CHOICES.find((choice) => choice.value === value)?.phase;
    const item = this.items().find(({ body }) => body.phase === phase);
    if (value !== this.recipe().operation && item) this.changed.emit(withPreset(this.recipe(), item));
  }

  protected setMoves(value: string): void {
    this.changed.emit(this.with({ moves: value as Recipe['moves'] }));
  }

  protected setExisting(value: string): void {
    this.changed.emit(this.with({ existing: value as Recipe['existing'] }));
  }

  protected add(parameter: Parameter): void {
    const parameters = {
      ...this.recipe().parameters,
      [parameter.name]: { by: 'fixed' as const, value: parameter.default },
    };
    this.added.emit({ recipe: this.with({ parameters }), field: `parameter:${parameter.name}` });
  }

  protected removeParameter(name: string): void {
    const { [name]: _gone, ...parameters } = this.recipe().parameters;
    this.changed.emit(this.with({ parameters }));
    this.done.emit();
  }
}
