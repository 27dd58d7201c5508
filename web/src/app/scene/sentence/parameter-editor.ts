import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  isNumberKind,
  type Parameter,
  settingsOf,
  withSettings,
  type SettingRecipe,
  type Scene,
  type Shelf,
  type Variation,
} from '@wexikine/core';
import { EasingEditor } from '../../fields/easing/easing-editor';
import { ParameterValue } from '../../fields/parameter-value';
import { Icon } from '../../icons/icon';
import { ChoiceEditor } from './choice-editor';
import type { Choice } from './choices';

const WAYS: readonly Choice[] = [
  { value: 'fixed', label: 'The same for all', note: '' },
  { value: 'cycle', label: 'By turns', note: 'a list, again and again' },
  { value: 'ramp', label: 'Along the order', note: 'evenly from the first to the last' },
  { value: 'random', label: 'At random', note: 'the same for the same seed' },
  { value: 'data', label: 'From a data column', note: 'each layer’s own' },
];
const GENTLE = { type: 'bezier', x1: 0.4, y1: 0, x2: 0.2, y2: 1 } as const;

const MOST_SEED = 10_000;

function negated(text: string): string {
  return text.startsWith('-') ? text.slice(1) : `-${text}`;
}

/** The first value that a variation holds; null for one that is read from data. */
function firstText(variation: Variation): string | null {
  switch (variation.by) {
    case 'fixed':
      return variation.value;
    case 'cycle':
      return variation.values[0];
    case 'ramp':
    case 'random':
      return variation.from;
    case 'data':
      return null;
  }
}

/** Ways that mix two values. */
function isBetween(way: string): boolean {
  return way === 'ramp' || way === 'random';
}

/** A parameter's value in this run: the same for all layers, by turns, along the order, at random or from data. */
@Component({
  selector: 'wx-parameter-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, EasingEditor, Icon, ParameterValue],
  templateUrl: './parameter-editor.html',
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 270px;
    }
    .line {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 6px;
      align-items: end;
    }
  `,
})
export class ParameterEditor {
  readonly parameter = input.required<Parameter>();
  readonly recipe = input.required<SettingRecipe>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly changed = output<SettingRecipe>();
  readonly removed = output<string>();

  protected readonly isNumber = computed(() => isNumberKind(this.parameter().kind));
  /** Between two options, curves or layers there is nothing, so they only take turns. */
  protected readonly ways = computed(() => {
    const { kind } = this.parameter();
    return this.isNumber() || kind === 'colour' ? WAYS : WAYS.filter(({ value }) => !isBetween(value));
  });
  protected readonly variation = computed((): Variation => {
    const standing = settingsOf(this.recipe())?.[this.parameter().name];
    return standing && standing.by !== 'keys' ? standing : { by: 'fixed', value: this.parameter().default };
  });
  /** A dial that is keyed is set in its panel; choosing a way here gives it one value again. */
  protected readonly isKeyed = computed(() => settingsOf(this.recipe())?.[this.parameter().name]?.by === 'keys');

  protected readonly columns = computed(() => [
    ...new Set(this.scene().layers.flatMap(({ data }) => Object.keys(data))),
  ]);

  protected choose(by: string): void {
    const text = firstText(this.variation()) ?? this.parameter().default;
    const other = this.isNumber() ? negated(text) : this.otherValue(text);
    if (by === 'cycle') this.give({ by, values: [text, other] });
    else if (by === 'ramp') this.give({ by, from: text, to: text });
    else if (by === 'random') this.give({ by, from: text, to: other, seed: 1 });
    else if (by === 'data') this.give({ by, column: this.columns()[0] ?? 'none' });
    else this.give({ by: 'fixed', value: text });
  }

  /** A second value to take turns with, where minus the first means nothing. */
  private otherValue(text: string): string {
    const { options } = this.parameter();
    return options?.find(({ name }) => name !== text)?.name ?? text;
  }

  protected setText(part: 'value' | 'from' | 'to', text: string): void {
    this.give({ ...this.variation(), [part]: text } as Variation);
  }

  protected setTurn(index: number, text: string): void {
    const variation = this.variation();
    if (variation.by === 'cycle') this.give({ by: 'cycle', values: variation.values.with(index, text) });
  }

  protected addTurn(): void {
    const variation = this.variation();
    if (variation.by === 'cycle') this.give({ by: 'cycle', values: [...variation.values, variation.values[0]] });
  }

  protected removeTurn(index: number): void {
    const variation = this.variation();
    if (variation.by === 'cycle') this.give({ by: 'cycle', values: variation.values.toSpliced(index, 1) });
  }

  protected setColumn(event: Event): void {
    this.give({ by: 'data', column: (event.target as HTMLSelectElement).value });
  }

  protected setSpread(event: Event): void {
    const variation = this.variation();
    if (variation.by !== 'random') return;
    const { spread: _standing, ...rest } = variation;
    this.give((event.target as HTMLInputElement).checked ? { ...rest, spread: 'normal' } : rest);
  }

  protected flipCurve(): void {
    const variation = this.variation();
    if (variation.by !== 'ramp') return;
    const { curve, ...rest } = variation;
    this.give(curve ? rest : { ...rest, curve: GENTLE });
  }

  protected setCurve(curve: unknown): void {
    const variation = this.variation();
    if (variation.by === 'ramp') this.give({ ...variation, curve } as Variation);
  }

  protected roll(): void {
    const variation = this.variation();
    if (variation.by === 'random') this.give({ ...variation, seed: (variation.seed % MOST_SEED) + 1 });
  }

  private give(variation: Variation): void {
    const recipe = this.recipe();
    this.changed.emit(withSettings(recipe, { ...settingsOf(recipe), [this.parameter().name]: variation }));
  }
}
