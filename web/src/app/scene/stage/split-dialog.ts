import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';

/** Columns and rows that something is split into. */
export interface SplitGrid {
  readonly columns: number;
  readonly rows: number;
}

const MOST = 50;

/** Asks into how many columns and rows a picture or a card is to be split. */
@Component({
  selector: 'wx-split-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>Split into columns and rows</h2>
    <mat-dialog-content>
      <div class="fields">
        <label class="field-label"
          >Columns
          <input
            class="text-field mono"
            cdkFocusInitial
            inputmode="numeric"
            [value]="columns()"
            (input)="columns.set(read($event))"
        /></label>
        <label class="field-label"
          >Rows <input class="text-field mono" inputmode="numeric" [value]="rows()" (input)="rows.set(read($event))"
        /></label>
      </div>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      } @else {
        <p class="quiet-text">Every part stands where it stood, in a group that keeps the layer’s keys and runs.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" [disabled]="problem() !== null" (click)="close()">
        Split into {{ count() }} parts
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    .fields {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 10px;
    }
  `,
})
export class SplitDialog {
  private readonly reference = inject(MatDialogRef<SplitDialog, SplitGrid>);
  protected readonly columns = signal(3);
  protected readonly rows = signal(1);
  protected readonly count = computed(() => (this.problem() === null ? this.columns() * this.rows() : 0));
  protected readonly problem = computed(() => {
    const fine = (value: number): boolean => Number.isInteger(value) && value >= 1 && value <= MOST;
    if (!fine(this.columns()) || !fine(this.rows())) return `Write whole numbers from 1 to ${MOST}.`;
    return this.columns() * this.rows() < 2 ? 'That is one part. Write more columns or rows.' : null;
  });

  protected read(event: Event): number {
    const { value } = event.target as HTMLInputElement;
    return value.trim() === '' ? NaN : Number(value);
  }

  protected close(): void {
    this.reference.close({ columns: this.columns(), rows: this.rows() });
  }
}
