import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Layer, Scene } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { layersFromNames } from './new-layers';

const MOST_AT_ONCE = 2_000;

/** New layers, or files that shall become some. */
export type AddedLayers = { readonly layers: Layer[] } | { readonly files: readonly File[] };

/** Makes many layers at once: one for each name, laid out in a grid. */
@Component({
  selector: 'wx-add-layers-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Add layers</h2>
    <mat-dialog-content>
      <label class="field-label"
        >Names, one a line
        <textarea
          class="text-field"
          rows="7"
          cdkFocusInitial
          placeholder="Moonrise walk&#10;Meteor count"
          [value]="text()"
          (input)="text.set($any($event.target).value)"
        ></textarea>
      </label>
      <div class="row">
        <label class="field-label"
          >Kind
          <select class="text-field" (change)="kind.set($any($event.target).value)">
            <option value="card">cards</option>
            <option value="word">words</option>
          </select>
        </label>
        <label class="field-label"
          >Tag <input class="text-field" maxlength="60" [value]="tag()" (input)="tag.set($any($event.target).value)"
        /></label>
      </div>
      @if (problem(); as sentence) {
        <p class="problem" role="alert">{{ sentence }}</p>
      } @else {
        <p class="quiet-text">
          They are laid out in a grid over the frame and last as long as the scene. Pictures, clips, sounds, SVG files
          and fonts can also be dropped on the scene, or pasted.
        </p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <label class="wx-button quiet pictures"
        ><wx-icon name="upload_file" />From files…
        <input
          type="file"
          multiple
          accept="image/*,video/webm,video/mp4,audio/*,.svg,.ttf,.otf,.woff2"
          aria-label="Files to bring in"
          (change)="bring($event)"
        />
      </label>
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button
        class="wx-button main"
        type="button"
        [disabled]="names().length === 0 || problem() !== null"
        (click)="add()"
      >
        Add {{ names().length === 1 ? '1 layer' : names().length + ' layers' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 12px;
    }
    textarea {
      height: auto;
      padding: 8px 10px;
      resize: vertical;
    }
    .pictures {
      margin-right: auto;
      cursor: pointer;
    }
    .pictures:focus-within {
      outline: 2px solid var(--pine);
    }
    .pictures input {
      position: absolute;
      width: 1px;
      opacity: 0;
    }
    .row {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 10px;
    }
  `,
})
export class AddLayersDialog {
  private readonly scene = inject<Scene>(MAT_DIALOG_DATA);
  private readonly reference = inject(MatDialogRef<AddLayersDialog, AddedLayers>);
  protected readonly text = signal('');
  protected readonly kind = signal<'card' | 'word'>('card');
  protected readonly tag = signal('card');

  protected readonly names = computed(() =>
    this.text()
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== ''),
  );

  protected readonly problem = computed(() => {
    if (this.names().length > MOST_AT_ONCE) return `At most ${MOST_AT_ONCE} layers at once. Add them in parts.`;
    return this.names().some((name) => name.length > 200) ? 'A name has at most 200 characters.' : null;
  });

  protected add(): void {
    const newId = (): string => `layer-${crypto.randomUUID().slice(0, 18)}`;
    this.reference.close({ layers: layersFromNames(this.scene, this.names(), this.kind(), this.tag().trim(), newId) });
  }

  protected bring(event: Event): void {
    const files = [...((event.target as HTMLInputElement).files ?? [])];
    if (files.length > 0) this.reference.close({ files });
  }
}
