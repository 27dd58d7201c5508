import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Parameter, Rate, Recipe, Variation } from '@wexikine/core';
import { parameterCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';
import { Icon } from '../../icons/icon';
import { ChoiceEditor } from './choice-editor';
import type { Choice } from './choices';

const WAYS: readonly Choice[] = [
  { value: 'fixed', label: 'The same for all', note: '' },
  { value: 'cycle', label: 'By turns', note: 'a list, again and again' },
  { value: 'ramp', label: 'Along the order', note: 'evenly from the first to the last' },
  { value: 'random', label: 'At random', note: 'the same for the same seed' },
];

const MOST_SEED = 10_000;

function negated(text: string): string {
  return text.startsWith('-') ? text.slice(1) : `-${text}`;
}

/** The first value that a variation holds. */
function firstText(variation: Variation): string {
  switch (variation.by) {
    case 'fixed':
      return variation.value;
    case 'cycle':
      return variation.values[0];
    case 'ramp':
    case 'random':
      return variation.from;
  }
}

/** A parameter's value in this run: the same for all layers, by turns, along the order or at random. */
@Component({
  selector: 'wx-parameter-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, Icon, ValueField],
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
  readonly recipe = input.required<Recipe>();
  readonly rate = input.required<Rate>();
  readonly changed = output<Recipe>();
  readonly removed = output<string>();

  protected readonly ways = WAYS;
  protected readonly check = computed(() => parameterCheck(this.parameter().kind));
  protected readonly variation = computed(
    (): Variation =>
      this.recipe().parameters[this.parameter().name] ?? { by: 'fixed', value: this.parameter().default },
  );

  protected choose(by: string): void {
    const text = firstText(this.variation());
    if (by === 'cycle') this.give({ by, values: [text, negated(text)] });
    else if (by === 'ramp') this.give({ by, from: text, to: text });
    else if (by === 'random') this.give({ by, from: text, to: negated(text), seed: 1 });
    else this.give({ by: 'fixed', value: text });
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

  protected roll(): void {
    const variation = this.variation();
    if (variation.by === 'random') this.give({ ...variation, seed: (variation.seed % MOST_SEED) + 1 });
  }

  private give(variation: Variation): void {
    const recipe = this.recipe();
    this.changed.emit({ ...recipe, parameters: { ...recipe.parameters, [this.parameter().name]: variation } });
  }
}
