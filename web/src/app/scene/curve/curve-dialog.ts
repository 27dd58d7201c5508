import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { linkedEasing, linkOf, unlinked, type Easing, type PresetEasing, type Shelf } from '@wexikine/core';
import { easingNow } from '../../fields/easing-chip';
import { EasingEditor } from '../../fields/easing-editor';

/** The curve that is begun with, and what may be chosen from. */
export interface CurveSource {
  readonly ease: Easing;
  readonly shelf: Shelf;
  /** What it is put on: "12 keys". */
  readonly words: string;
}

/** A key's easing as the editor says it: one of the library by its name. */
function saidEasing(ease: Easing): PresetEasing {
  const link = linkOf(ease);
  if (!link) return ease;
  const { id, revision, reversed } = link;
  return { type: 'curve', id, revision, is: unlinked(ease), ...(reversed === true ? { reversed } : {}) };
}

/** What was said as a key's easing; one of the library keeps its link. */
export function keyEasing(said: PresetEasing, shelf: Shelf): Easing | null {
  if (said.type === 'parameter') return null;
  if (said.type !== 'curve') return unlinked(said);
  const found = shelf.curve(said.id);
  const name = shelf.items.get(said.id)?.name;
  if (!found || name === undefined) return unlinked(easingNow(said, shelf));
  const link = { id: said.id, name, revision: found.revision };
  return linkedEasing(found.easing, said.reversed === true ? { ...link, reversed: true } : link);
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
