import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  ADJUST_STEPS,
  ADJUST_TYPES,
  addStep,
  removeStep,
  stepNumber,
  type AdjustRecipe,
  type AdjustStep,
  type AdjustType,
  type KeyRule,
  type Pivot,
  type PresetEasing,
  type Scene,
  type SentenceField,
  type Shelf,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { EasingEditor } from '../../fields/easing/easing-editor';
import { ValueField } from '../../fields/value-field';
import { Icon } from '../../icons/icon';
import { KeyRuleForm } from './key-rule-form';

const PIVOTS: readonly (readonly [Pivot['by'], string])[] = [
  ['first', 'each first key'],
  ['last', 'each last key'],
  ['middle', 'each middle'],
  ['in', 'each in point'],
  ['out', 'each out point'],
  ['time', 'a time'],
  ['cue', 'a cue'],
];
const CHOICES = {
  of: [
    ['time', 'in time'],
    ['value', 'in value'],
  ],
  about: [
    ['rest', 'about where the layer rests'],
    ['mean', 'about their mean'],
    ['zero', 'about 0'],
  ],
  way: [
    ['set', 'set to'],
    ['add', 'more by'],
    ['scale', 'scaled to'],
  ],
  parts: [
    ['both', 'departure and arrival'],
    ['departure', 'departure alone'],
    ['arrival', 'arrival alone'],
  ],
} as const;
type ChoiceName = keyof typeof CHOICES;

/** The fields of an adjustment's sentence: which keys, what a step goes by, and another step. */
@Component({
  selector: 'wx-adjust-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingEditor, Icon, KeyRuleForm, ValueField],
  templateUrl: './adjust-editor.html',
  styleUrl: './adjust-editor.scss',
})
export class AdjustEditor {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<AdjustRecipe>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly changed = output<AdjustRecipe>();
  readonly added = output<{ recipe: AdjustRecipe; field: SentenceField }>();
  readonly done = output();

  protected readonly facts = ADJUST_STEPS;
  protected readonly types = ADJUST_TYPES;
  protected readonly pivots = PIVOTS;
  protected readonly choices = CHOICES;
  protected readonly choiceNames = Object.keys(CHOICES) as ChoiceName[];

  protected readonly kind = computed(() => this.field().split(':')[0]);
  protected readonly rule = computed(() => this.recipe().keys);
  protected readonly step = computed(() => {
    const id = this.field().slice('step:'.length);
    return this.recipe().steps.find((step) => step.id === id) ?? null;
  });
  protected readonly place = computed(() => this.recipe().steps.indexOf(this.step() as AdjustStep));
  protected readonly check = computed(() => {
    const check = timeCheck(this.scene().rate);
    return (text: string) => (text.trim() === '' ? null : check(text));
  });

  protected setRule(rule: Partial<KeyRule>): void {
    this.changed.emit({ ...this.recipe(), keys: { which: 'all', ...rule } });
  }

  protected setStep(fields: object): void {
    const step = this.step();
    if (!step) return;
    const set = Object.fromEntries(Object.entries({ ...step, ...fields }).filter(([, value]) => value !== undefined));
    const steps = this.recipe().steps.map((one) => (one.id === step.id ? (set as AdjustStep) : one));
    this.changed.emit({ ...this.recipe(), steps });
  }

  protected setChoice(name: ChoiceName, value: string): void {
    this.setStep({ [name]: value });
  }

  protected setPivot(by: string): void {
    const [cue] = this.scene().cues;
    const pivot = by === 'time' ? { by, at: '1s' } : by === 'cue' ? { by, cue: cue?.name ?? 'none' } : { by };
    this.setStep({ pivot });
  }

  protected pivotOf(step: AdjustStep): Pivot | null {
    return 'pivot' in step ? step.pivot : null;
  }

  protected canKeepEnds({ type }: AdjustStep): boolean {
    return type === 'stretch' || type === 'fit' || type === 'window';
  }

  protected keepsEnds(step: AdjustStep): boolean {
    return 'keepsEnds' in step && step.keepsEnds === true;
  }

  protected easeOf(step: AdjustStep): PresetEasing | null {
    return 'ease' in step ? step.ease : null;
  }

  protected setEase(ease: PresetEasing): void {
    if (ease.type !== 'curve' && ease.type !== 'parameter') this.setStep({ ease });
    else if (ease.type === 'curve') this.setStep({ ease: this.shelf().curve(ease.id)?.easing ?? ease.is });
  }

  protected chosen(step: AdjustStep, name: ChoiceName): string | null {
    return name in step ? ((step as unknown as Record<string, string>)[name] ?? null) : null;
  }

  protected add(type: AdjustType): void {
    const recipe = addStep(this.recipe(), type);
    const { id } = recipe.steps[recipe.steps.length - 1];
    const [first] = ADJUST_STEPS[type].numbers;
    this.added.emit({ recipe, field: first ? `parameter:${stepNumber(id, first.name)}` : `step:${id}` });
  }

  protected remove(): void {
    const step = this.step();
    if (step) this.changed.emit(removeStep(this.recipe(), step.id));
    this.done.emit();
  }

  protected move(by: number): void {
    const { steps } = this.recipe();
    const at = this.place();
    const step = steps[at];
    if (!step || !steps[at + by]) return;
    const rest = steps.toSpliced(at, 1);
    this.changed.emit({ ...this.recipe(), steps: rest.toSpliced(at + by, 0, step) });
  }
}
