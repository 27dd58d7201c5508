import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { isInTwo, type Choice } from './choices';

let made = 0;

/** One of a few choices, each with a note. */
@Component({
  selector: 'wx-choice-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <fieldset>
      <legend>{{ label() }}</legend>
      <div class="choices" [class.two]="isInTwo(choices())">
        @for (choice of choices(); track choice.value) {
          <label class="choice" [class.on]="choice.value === value()">
            <input
              type="radio"
              [name]="name"
              [checked]="choice.value === value()"
              (change)="chosen.emit(choice.value)"
            />
            <span
              >{{ choice.label }}
              @if (choice.note) {
                <small>{{ choice.note }}</small>
              }
            </span>
          </label>
        }
      </div>
    </fieldset>
  `,
  styles: `
    fieldset {
      border: 0;
      margin: 0;
      padding: 0;
      min-width: 0;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      width: 372px;
    }
    legend {
      padding: 0 0 6px;
      font-weight: 600;
    }
  `,
})
export class ChoiceEditor {
  readonly label = input.required<string>();
  readonly choices = input.required<readonly Choice[]>();
  readonly value = input.required<string>();
  readonly chosen = output<string>();
  protected readonly isInTwo = isInTwo;
  protected readonly name = `choice-${++made}`;
}
