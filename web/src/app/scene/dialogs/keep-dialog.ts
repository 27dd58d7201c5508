import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Shelf } from '@wexikine/core';

/** What is to be kept in the library. */
export interface KeepSource {
  readonly kind: 'recipe' | 'look';
  /** What it says or sets, in words. */
  readonly says: string;
  readonly hint: string;
  readonly name: string;
  readonly shelf: Shelf;
}

/** How it is to be kept: under a name, as a new item or as a new revision of one. */
export interface KeepWishes {
  readonly name: string;
  readonly note: string;
  readonly over: string | null;
}

/** Asks for the name under which a recipe or a look goes into the library. */
@Component({
  selector: 'wx-keep-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>A {{ data.kind }} in the library</h2>
    <mat-dialog-content>
      <p class="says">{{ data.says }}</p>
      <p class="quiet-text">{{ data.hint }}</p>
      <label class="field-label"
        >Keep it as
        <select class="text-field" (change)="choose($event)">
          <option value="">a new {{ data.kind }}</option>
          @for (item of standing; track item.id) {
            <option [value]="item.id" [selected]="item.id === over()">a new revision of {{ item.name }}</option>
          }
        </select>
      </label>
      <label class="field-label"
        >Name <input class="text-field" maxlength="200" [value]="name()" (input)="name.set(read($event))"
      /></label>
      <label class="field-label"
        >Note <input class="text-field" maxlength="2000" [value]="note()" (input)="note.set(read($event))"
      /></label>
      @if (problem(); as text) {
        <p class="problem" role="alert">{{ text }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" [disabled]="problem() !== null" (click)="keep()">Keep it</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 12px;
    }
    .says {
      font: 600 15px/1.5 var(--font-head);
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class KeepDialog {
  protected readonly data = inject<KeepSource>(MAT_DIALOG_DATA);
  private readonly ref = inject<MatDialogRef<KeepDialog, KeepWishes>>(MatDialogRef);
  protected readonly standing = [...this.data.shelf.items.values()].filter(
    (item) => item.kind === this.data.kind && item.state === 'published',
  );
  protected readonly over = signal<string | null>(null);
  protected readonly name = signal(this.data.name);
  protected readonly note = signal('');
  protected readonly problem = computed(() => {
    if (this.name().trim() === '') return 'Give it a name.';
    return /[<>]/.test(this.name()) ? 'A name is plain text, without < and >.' : null;
  });

  protected choose(event: Event): void {
    const id = this.read(event);
    this.over.set(id === '' ? null : id);
    const item = this.standing.find((entry) => entry.id === id);
    if (!item) return;
    this.name.set(item.name);
    this.note.set(item.note);
  }

  protected read(event: Event): string {
    return (event.target as HTMLInputElement | HTMLSelectElement).value;
  }

  protected keep(): void {
    this.ref.close({ name: this.name().trim(), note: this.note(), over: this.over() });
  }
}
