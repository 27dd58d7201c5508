import { ChangeDetectionStrategy, Component, inject, type Signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import { MatProgressBarModule } from '@angular/material/progress-bar';

/** How far reading has come. */
export interface Reading {
  readonly done: Signal<number>;
  readonly count: number;
  readonly name: Signal<string>;
  readonly cancel: () => void;
}

/** Says how far reading has come, and lets one stop it. */
@Component({
  selector: 'wx-reading-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule, MatProgressBarModule],
  template: `
    <h2 mat-dialog-title>Reading {{ reading.count === 1 ? 'a file' : reading.count + ' files' }}</h2>
    <mat-dialog-content>
      <p class="quiet-text">{{ reading.done() }} of {{ reading.count }} done, now “{{ reading.name() }}”</p>
      <mat-progress-bar
        aria-label="Files that are read"
        [mode]="reading.count === 1 ? 'indeterminate' : 'determinate'"
        [value]="(100 * reading.done()) / reading.count"
      />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" (click)="reading.cancel()">Stop reading</button>
    </mat-dialog-actions>
  `,
  styles: `
    p {
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class ReadingDialog {
  protected readonly reading = inject<Reading>(MAT_DIALOG_DATA);
}
