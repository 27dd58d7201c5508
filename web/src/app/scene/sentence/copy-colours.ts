import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { MultiplyRecipe } from '@wexikine/core';
import { NumberField } from '../../fields/number-field';
import { ColourList, type ListedColour } from './colour-list';

type Colours = NonNullable<MultiplyRecipe['colours']>;

/** The colours of copies: which, in what way they come, and how many are drawn as outlines. */
@Component({
  selector: 'wx-copy-colours',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourList, NumberField],
  template: `
    <strong>Colours, with how often each comes</strong>
    <label class="field-label"
      >They come
      <select class="text-field" (change)="set({ how: $any($event.target).value })">
        <option value="random" [selected]="value().how === 'random'">by chance, as often as they say</option>
        <option value="turns" [selected]="value().how === 'turns'">by turns</option>
        <option value="ramp" [selected]="value().how === 'ramp'">as a ramp, the first to the last copy</option>
      </select>
    </label>
    <wx-colour-list [colours]="value().colours" [hasWeights]="value().how === 'random'" (changed)="list($event)" />
    <wx-number-field
      label="Drawn as outlines, %"
      [least]="0"
      [most]="100"
      [value]="value().outlined * 100"
      (changed)="set({ outlined: $event / 100 })"
    />
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
  `,
})
export class CopyColours {
  readonly value = input.required<Colours>();
  readonly changed = output<Colours>();

  protected set(change: Partial<Colours>): void {
    this.changed.emit({ ...this.value(), ...change });
  }

  protected list(colours: readonly ListedColour[]): void {
    this.set({ colours: [...colours] });
  }
}
