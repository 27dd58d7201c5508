import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  isSeen,
  PASSED,
  PASSED_WORDS,
  tracksOf,
  type Layer,
  type Passed,
  type PassOnRecipe,
  type Scene,
  type SentenceField,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { NumberField } from '../../fields/number-field';
import { ValueField } from '../../fields/value-field';
import { ChoiceEditor } from './choice-editor';
import { VALUES_CHOICES } from './choices';

/** The fields of passing on: what, of which layer, how much later, and how far apart. */
@Component({
  selector: 'wx-pass-on-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChoiceEditor, NumberField, ValueField],
  templateUrl: './pass-on-editor.html',
  styles: `
    :host {
      display: grid;
      gap: 8px;
      width: 300px;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
  `,
})
export class PassOnEditor {
  readonly field = input.required<SentenceField | 'add-parameter'>();
  readonly recipe = input.required<PassOnRecipe>();
  readonly scene = input.required<Scene>();
  readonly changed = output<PassOnRecipe>();

  protected readonly all = PASSED;
  protected readonly words = PASSED_WORDS;
  protected readonly valuesChoices = VALUES_CHOICES;
  protected readonly layers = computed(() => this.scene().layers.filter(isSeen));
  protected readonly isLinked = computed(() => this.recipe().from.isLinked === true);
  protected readonly check = computed(() => timeCheck(this.scene().rate));

  protected set(part: Partial<PassOnRecipe>): void {
    this.changed.emit({ ...this.recipe(), ...part });
  }

  protected has(one: Passed): boolean {
    return this.recipe().what.includes(one);
  }

  /** At least one thing stays. */
  protected flip(one: Passed): void {
    const { what } = this.recipe();
    const next = PASSED.filter((name) => (name === one ? !what.includes(one) : what.includes(name)));
    if (next.length > 0) this.set({ what: next });
  }

  protected setFrom(event: Event): void {
    const layer = (event.target as HTMLSelectElement).value;
    this.set({ from: { ...this.recipe().from, layer } });
  }

  protected flipLink(): void {
    const { layer, isLinked } = this.recipe().from;
    this.set({ from: { layer, ...(isLinked === true ? {} : { isLinked: true as const }) } });
  }

  /** "Moon, 4 keys": so that one finds the layer that moves. */
  protected nameOf(layer: Layer): string {
    const keys = tracksOf(layer).reduce((sum, [, own]) => sum + own.length, 0);
    return keys === 0 ? layer.name : `${layer.name}, ${keys === 1 ? '1 key' : `${keys} keys`}`;
  }

  protected setValues(values: string): void {
    this.set({ values: values as PassOnRecipe['values'] });
  }
}
