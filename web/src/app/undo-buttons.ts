import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Icon } from './icons/icon';

interface Named {
  readonly label: string;
}

/** Undo and redo in the top bar; each says what it would do. */
@Component({
  selector: 'wx-undo-buttons',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  template: `
    @let last = done().at(-1);
    @let next = undone().at(-1);
    <button
      class="icon-button"
      type="button"
      [disabled]="!last"
      [attr.aria-label]="'Undo ' + (last?.label ?? '')"
      [title]="last ? 'Undo: ' + last.label : 'Nothing to undo'"
      (click)="undo.emit()"
    >
      <wx-icon name="undo" />
    </button>
    <button
      class="icon-button"
      type="button"
      [disabled]="!next"
      [attr.aria-label]="'Redo ' + (next?.label ?? '')"
      [title]="next ? 'Redo: ' + next.label : 'Nothing to redo'"
      (click)="redo.emit()"
    >
      <wx-icon name="redo" />
    </button>
  `,
  styles: `
    :host {
      display: contents;
    }
  `,
})
export class UndoButtons {
  /** Steps that were done, the last one last. */
  readonly done = input.required<readonly Named[]>();
  /** Steps that were undone, the next to redo last. */
  readonly undone = input.required<readonly Named[]>();
  readonly undo = output();
  readonly redo = output();
}
