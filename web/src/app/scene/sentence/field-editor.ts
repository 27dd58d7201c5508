import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  formatShort,
  isPresetRecipe,
  hasParameters,
  settingsOf,
  parametersFor,
  type Operation,
  type Parameter,
  type PlanCounts,
  type PresetItem,
  type RigItem,
  type Recipe,
  type SavedPick,
  type Scene,
  type SentenceField,
  type Shelf,
  type Solved,
} from '@wexikine/core';
import { withOperation, withPreset, withRig } from '../first-recipe';
import { AdjustEditor } from './adjust-editor';
import { ChoiceEditor } from './choice-editor';
import { OPERATION_CHOICES, PARTS_CHOICES } from './choices';
import { ClearEditor } from './clear-editor';
import { withoutParameter, withParameter } from './field-changes';
import { KeysFields } from './keys-fields';
import { ParameterChoice } from './parameter-choice';
import { ParameterEditor } from './parameter-editor';
import { PassOnEditor } from './pass-on-editor';
import { PickEditor } from './pick-editor';
import { PresetFields } from './preset-fields';
import { MultiplyEditor } from './multiply-editor';
import { StyleEditor } from './style-editor';
import { RigFields } from './rig-fields';
import { WayForm } from './way-form';
import { ARRANGE_WAYS, LINE_UP_WAYS, ORDER_FIELDS, ORDER_WAYS } from './ways';

/** Shows the editor that fits a field of the sentence. */
@Component({
  selector: 'wx-field-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    AdjustEditor,
    ChoiceEditor,
    ClearEditor,
    KeysFields,
    MultiplyEditor,
    ParameterChoice,
    ParameterEditor,
    PassOnEditor,
    PickEditor,
    PresetFields,
    RigFields,
    StyleEditor,
    WayForm,
  ],
  templateUrl: './field-editor.html',
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
  /** Recipes of other operations as they were left. */
  readonly left = input<ReadonlyMap<Operation, Recipe>>(new Map());
  readonly solved = input<Solved | null>(null);
  readonly counts = input<PlanCounts | null>(null);
  readonly changed = output<Recipe>();
  readonly added = output<{ recipe: Recipe; field: SentenceField }>();
  readonly kept = output<SavedPick>();
  readonly forgotten = output<string>();
  readonly done = output();

  protected readonly operations = OPERATION_CHOICES;
  protected readonly parts = PARTS_CHOICES;
  protected readonly orders = ORDER_WAYS;
  protected readonly orderFields = ORDER_FIELDS;
  protected readonly lineUps = LINE_UP_WAYS;
  protected readonly arranges = ARRANGE_WAYS;

  protected readonly kind = computed(() => (this.field().startsWith('parameter:') ? 'parameter' : this.field()));
  protected readonly preset = computed(() => {
    const recipe = this.recipe();
    return isPresetRecipe(recipe) ? recipe : null;
  });
  protected readonly rig = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'rig' ? recipe : null;
  });
  protected readonly adjust = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'adjust' ? recipe : null;
  });
  protected readonly parametered = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'style' || hasParameters(recipe) ? recipe : null;
  });
  protected readonly rigs = computed(() =>
    [...this.shelf().items.values()].filter(
      (item): item is RigItem => item.kind === 'rig' && item.state === 'published',
    ),
  );
  protected readonly keys = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'turn-into-keys' || recipe.operation === 'thin-out' ? recipe : null;
  });
  protected readonly lineUp = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'line-up' ? recipe : null;
  });
  protected readonly arrange = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'arrange' ? recipe : null;
  });
  protected readonly passOn = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'pass-on' ? recipe : null;
  });
  protected readonly style = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'style' ? recipe : null;
  });
  protected readonly multiply = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'multiply' ? recipe : null;
  });
  protected readonly clear = computed(() => {
    const recipe = this.recipe();
    return recipe.operation === 'clear' ? recipe : null;
  });
  private readonly playheadText = computed(() => formatShort(this.playhead(), this.scene().rate));
  protected readonly partsNow = computed(() => {
    const recipe = this.lineUp();
    if (recipe?.parts === 'stretch') return 'stretch';
    return recipe?.squeeze === true ? 'squeeze' : 'keep';
  });

  private readonly parameters = computed(() => parametersFor(this.recipe(), this.shelf()));

  /** The parameter of the field, with the recipe that sets it. */
  protected readonly own = computed(() => {
    const [recipe, parameter] = [
      this.parametered(),
      this.parameters().find(({ name }) => this.field() === `parameter:${name}`),
    ];
    return recipe && parameter ? { recipe, parameter } : null;
  });

  protected readonly missing = computed(() =>
    this.parameters().filter(({ name }) => settingsOf(this.recipe())?.[name] === undefined),
  );

  protected set(part: object): void {
    this.changed.emit({ ...this.recipe(), ...part } as Recipe);
  }

  protected setPreset(item: PresetItem): void {
    this.finish(withPreset(this.recipe(), item, this.playheadText()));
  }

  protected setOperation(value: string): void {
    const fresh = {
      items: this.items(),
      rigs: this.rigs(),
      scene: this.scene(),
      playhead: this.playheadText(),
      left: this.left(),
    };
    const recipe = withOperation(this.recipe(), value as Operation, fresh);
    if (recipe) this.changed.emit(recipe);
  }

  protected setParts(value: string): void {
    this.set({ parts: value === 'stretch' ? 'stretch' : 'keep', squeeze: value === 'squeeze' });
  }

  protected setRig(item: RigItem): void {
    this.finish(withRig(this.recipe(), item, this.scene()));
  }

  protected add(parameter: Parameter): void {
    const recipe = this.parametered();
    if (!recipe) return;
    this.added.emit({ recipe: withParameter(recipe, parameter), field: `parameter:${parameter.name}` });
  }

  protected removeParameter(name: string): void {
    const recipe = this.parametered();
    if (!recipe) return;
    this.finish(withoutParameter(recipe, name));
  }

  /** Closes first, so that the editor is not drawn once more before it goes. */
  private finish(recipe: Recipe): void {
    this.done.emit();
    this.changed.emit(recipe);
  }
}
