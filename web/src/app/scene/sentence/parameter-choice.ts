import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Parameter } from '@wexikine/core';

/** The parameters that are not set yet, to set one of them. */
@Component({
  selector: 'wx-parameter-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <strong>Set for this run</strong>
    <div class="choices">
      @for (entry of parameters(); track entry.name) {
        <button class="choice" type="button" (click)="chosen.emit(entry)">
          <span
            >{{ entry.label }} <small>usually {{ entry.default }}</small></span
          >
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
  `,
})
export class ParameterChoice {
  readonly parameters = input.required<readonly Parameter[]>();
  readonly chosen = output<Parameter>();
}
