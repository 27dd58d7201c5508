import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Easing, PresetEasing, Shelf } from '@wexikine/core';
import { EasingEditor } from '../../fields/easing/easing-editor';
import { keyEasing, saidEasing } from './key-easing';

/** The curve that is begun with, and what may be chosen from. */
export interface CurveSource {
  readonly ease: Easing;
  readonly shelf: Shelf;
  /** What it is put on: "12 keys". */
  readonly words: string;
}

/** Asks for an easing, of every kind and from the library; closes with it. */
@Component({
  selector: 'wx-curve-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingEditor, MatDialogModule],
  template: `
    <h2 mat-dialog-title>The curve after {{ source.words }}</h2>
    <mat-dialog-content>
      <wx-easing-editor [ease]="said()" [shelf]="source.shelf" (changed)="said.set($event)" />
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" (click)="put()">Put it on</button>
    </mat-dialog-actions>
  `,
})
export class CurveDialog {
  private readonly reference = inject(MatDialogRef<CurveDialog, Easing>);
  protected readonly source = inject<CurveSource>(MAT_DIALOG_DATA);
  protected readonly said = signal<PresetEasing>(saidEasing(this.source.ease));

  protected put(): void {
    const ease = keyEasing(this.said(), this.source.shelf);
    if (ease) this.reference.close(ease);
  }
}
