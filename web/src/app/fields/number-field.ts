import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { numberCheck } from './checks';
import { ValueField } from './value-field';

/** Decimals that a number is shown with at most. */
const DECIMALS = 4;

/** A plain number between two limits, typed as every other value is; it counts when the field is left or with Enter. */
@Component({
  selector: 'wx-number-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ValueField],
  template: `
    <wx-value-field
      [label]="label()"
      [value]="text()"
      [least]="least()"
      [step]="step()"
      [check]="check()"
      [isLazy]="true"
      (changed)="give($event)"
    />
  `,
  styles: ':host { display: block; min-width: 0; }',
})
export class NumberField {
  readonly label = input.required<string>();
  readonly value = input.required<number>();
  readonly least = input(-1e6);
  readonly most = input(1e6);
  /** What an arrow key adds. */
  readonly step = input(1);
  readonly isWhole = input(false);
  readonly changed = output<number>();

  protected readonly text = computed(() => String(Number(this.value().toFixed(DECIMALS))));
  protected readonly check = computed(() => {
    const check = numberCheck(this.least(), this.most());
    return (text: string): string | null =>
      check(text) ?? (this.isWhole() && !Number.isInteger(Number(text)) ? 'Give a whole number.' : null);
  });

  protected give(text: string): void {
    this.changed.emit(Number(text));
  }
}
