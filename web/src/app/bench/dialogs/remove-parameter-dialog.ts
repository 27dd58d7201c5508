import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { Parameter } from '@wexikine/core';

/** The parameter that is to go, and where it is used. */
export interface RemoveQuestion {
  readonly parameter: Parameter;
  readonly uses: readonly string[];
  readonly canInline: boolean;
}

/** Says where a parameter is used, before it is removed. */
@Component({
  selector: 'wx-remove-parameter-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>&#64;{{ question.parameter.name }} is used</h2>
    <mat-dialog-content>
      <p>In {{ question.uses.length === 1 ? 'one place' : question.uses.length + ' places' }}:</p>
      <ul>
        @for (use of question.uses; track $index) {
          <li>{{ use }}</li>
        }
      </ul>
      @if (question.canInline) {
        <p>
          Its default, <code>{{ question.parameter.default }}</code>, is written in its place. Undo brings it back.
        </p>
      } @else {
        <p>A {{ question.parameter.kind }} has no value to write in its place. Change these places first.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>
        {{ question.canInline ? 'Cancel' : 'Close' }}
      </button>
      @if (question.canInline) {
        <button class="wx-button main" type="button" [mat-dialog-close]="true">Remove it</button>
      }
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 8px;
    }
    ul {
      margin: 0;
      padding-left: 18px;
      max-height: 220px;
      overflow: auto;
    }
    code {
      font-family: var(--font-mono);
    }
  `,
})
export class RemoveParameterDialog {
  protected readonly question = inject<RemoveQuestion>(MAT_DIALOG_DATA);
}
