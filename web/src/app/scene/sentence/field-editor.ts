import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  CHANNEL_IDS,
  channelOf,
  formatShort,
  isPresetRecipe,
  hasParameters,
  settingsOf,
  withSettings,
  parametersFor,
  tracksOf,
  type ChannelId,
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
import { EXISTING_CHOICES, GRID_CHOICES, MOVES_CHOICES, OPERATION_CHOICES, PARTS_CHOICES } from './choices';
import { ClearEditor } from './clear-editor';
import { FinishEditor } from './finish-editor';
import { ParameterEditor } from './parameter-editor';
import { PassOnEditor } from './pass-on-editor';
import { PickEditor } from './pick-editor';
import { PresetEditor } from './preset-editor';
import { MultiplyEditor } from './multiply-editor';
import { StyleEditor } from './style-editor';
import { NumberField } from '../../fields/number-field';
import { RigFields } from './rig-fields';
import type { WayValue } from './way-fields';
import { WayForm } from './way-form';
import { ARRANGE_WAYS, LENGTH_WAYS, LINE_UP_WAYS, ORDER_FIELDS, ORDER_WAYS, SPACING_WAYS, startWays } from './ways';

const TIMINGS = ['start', 'spacing', 'length'] as const;
type Timing = (typeof TIMINGS)[number];

/** Without a finish, what a timing field falls back to when another one is solved for. */
const PLAIN: Readonly<Record<Timing, object>> = {
  start: { by: 'layer' },
  spacing: { by: 'gap', gap: '4f' },
  length: { by: 'preset' },
};

/** Shows the editor that fits a field of the sentence. */
@Component({
  selector: 'wx-field-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    AdjustEditor,
    ChoiceEditor,
    ClearEditor,
    FinishEditor,
    MultiplyEditor,
    NumberField,
    ParameterEditor,
    PassOnEditor,
    PickEditor,
    PresetEditor,
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
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      max-width: 340px;
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
  protected readonly grids = GRID_CHOICES;
  protected readonly moves = MOVES_CHOICES;
  protected readonly existing = EXISTING_CHOICES;
  protected readonly parts = PARTS_CHOICES;
  protected readonly orders = ORDER_WAYS;
  protected readonly orderFields = ORDER_FIELDS;
  protected readonly spacings = SPACING_WAYS;
  protected readonly lengths = LENGTH_WAYS;
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
  /** Channels that keys can be written for: those that rigs drive, or that have keys. */
  protected readonly keyChannels = computed(() => {
    const { layers, runs } = this.scene();
    const keyed = layers.flatMap((layer) => tracksOf(layer).map(([channel]) => channel));
    const driven = runs.flatMap(({ rig }) => rig?.channels ?? []);
    const wanted = new Set(this.recipe().operation === 'thin-out' ? keyed : driven);
    return CHANNEL_IDS.filter((channel) => wanted.has(channel));
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
  protected readonly starts = computed(() => startWays(this.recipe().operation === 'send-out'));
  protected readonly partsNow = computed(() => {
    const recipe = this.lineUp();
    if (recipe?.parts === 'stretch') return 'stretch';
    return recipe?.squeeze === true ? 'squeeze' : 'keep';
  });

  private readonly parameters = computed(() => parametersFor(this.recipe(), this.shelf()));

  protected readonly parameter = computed(() =>
    this.parameters().find(({ name }) => this.field() === `parameter:${name}`),
  );

  protected readonly missing = computed(() =>
    this.parameters().filter(({ name }) => settingsOf(this.recipe())?.[name] === undefined),
  );

  protected set(part: object): void {
    this.changed.emit({ ...this.recipe(), ...part } as Recipe);
  }

  /** Only one of start, gap and length can follow from the finish: another one falls back to a given value. */
  protected setTiming(field: Timing, value: WayValue): void {
    const recipe = this.preset();
    if (!recipe) return;
    const others =
      value.by === 'finish' ? TIMINGS.filter((name) => name !== field && recipe[name].by === 'finish') : [];
    const plain = Object.fromEntries(others.map((name) => [name, PLAIN[name]]));
    this.set({ ...plain, [field]: value });
  }

  protected setPreset(item: PresetItem): void {
    this.changed.emit(withPreset(this.recipe(), item, this.playheadText()));
    this.done.emit();
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

  protected channelLabel(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected isKeyed(channel: ChannelId): boolean {
    return this.keys()?.channels?.includes(channel) ?? true;
  }

  protected flipKeyed(channel: ChannelId): void {
    const recipe = this.keys();
    const all = this.keyChannels();
    const next = all.filter((id) => this.isKeyed(id) !== (id === channel));
    if (!recipe || next.length === 0) return;
    const { channels: _standing, ...rest } = recipe;
    this.changed.emit(next.length === all.length ? rest : { ...rest, channels: next });
  }

  protected setRig(item: RigItem): void {
    this.changed.emit(withRig(this.recipe(), item, this.scene()));
    this.done.emit();
  }

  protected add(parameter: Parameter): void {
    const recipe = this.parametered();
    if (!recipe) return;
    const set = { ...settingsOf(recipe), [parameter.name]: { by: 'fixed' as const, value: parameter.default } };
    this.added.emit({ recipe: withSettings(recipe, set), field: `parameter:${parameter.name}` });
  }

  protected removeParameter(name: string): void {
    const recipe = this.parametered();
    if (!recipe) return;
    const { [name]: _gone, ...parameters } = settingsOf(recipe) ?? {};
    this.set({ parameters });
    this.done.emit();
  }
}
