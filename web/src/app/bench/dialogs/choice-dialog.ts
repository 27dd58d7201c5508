import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';

/** What is asked, and the answers. */
export interface ChoiceQuestion {
  readonly title: string;
  readonly text: string;
  readonly choices: readonly { readonly value: string; readonly label: string; readonly isMain?: boolean }[];
  /** Without a way out but the choices. */
  readonly mustChoose?: boolean;
}

/** A question with a few answers. */
@Component({
  selector: 'wx-choice-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ question.title }}</h2>
    <mat-dialog-content>
      <p>{{ question.text }}</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      @if (!question.mustChoose) {
        <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      }
      @for (choice of question.choices; track choice.value) {
        <button class="wx-button" type="button" [class.main]="choice.isMain" [mat-dialog-close]="choice.value">
          {{ choice.label }}
        </button>
      }
    </mat-dialog-actions>
  `,
})
export class ChoiceDialog {
  protected readonly question = inject<ChoiceQuestion>(MAT_DIALOG_DATA);

  constructor() {
    inject(MatDialogRef<ChoiceDialog>).disableClose = this.question.mustChoose === true;
  }
}
