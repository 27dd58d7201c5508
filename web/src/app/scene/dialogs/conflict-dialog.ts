import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule } from '@angular/material/dialog';
import type { SceneChange } from '@wexikine/core';
import type { Conflict } from '../scene.store';

/** Whose changes are to count. */
export type ConflictChoice = 'theirs' | 'mine' | 'new';

const NAMES_SHOWN = 6;

function changedWhat({ layers, removedLayers, header }: SceneChange): string {
  const parts = [
    layers.length > 0 ? `${layers.length} ${layers.length === 1 ? 'layer' : 'layers'}` : null,
    removedLayers.length > 0 ? `${removedLayers.length} removed` : null,
    header ? 'the scene’s settings' : null,
  ];
  return parts.filter((part) => part !== null).join(', ') || 'runs';
}

/** Tells that another window saved this scene, what it changed, and lets one choose. */
@Component({
  selector: 'wx-conflict-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, MatDialogModule],
  template: `
    <h2 mat-dialog-title>This scene was changed in another window</h2>
    <mat-dialog-content>
      <p>Your latest changes are not saved yet, and nothing is lost. Since you last saved:</p>
      <ul>
        @for (change of conflict.changes; track change.version) {
          <li>
            <span class="mono">{{ change.when | date: 'HH:mm' }}</span>
            <span class="what"
              ><strong>{{ change.by }}</strong
              >: {{ change.what || 'Changed it' }}</span
            >
            <small>{{ what(change) }}</small>
          </li>
        }
      </ul>
      @if (conflict.both.length > 0) {
        <p class="both"><strong>Changed on both sides:</strong> {{ names }}</p>
      } @else {
        <p>No layer was changed on both sides, so your changes fit beside theirs.</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="wx-button" type="button" mat-dialog-close="theirs">Take theirs</button>
      <button class="wx-button" type="button" mat-dialog-close="new">Save mine as a new scene</button>
      <button class="wx-button main" type="button" mat-dialog-close="mine" cdkFocusInitial>
        {{ conflict.both.length > 0 ? 'Keep mine where both changed' : 'Keep both' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      padding-left: 18px;
    }
    li .mono {
      margin-right: 8px;
    }
    small {
      display: block;
      color: var(--ink-soft);
    }
    .both {
      padding: 8px 12px;
      border-radius: 8px;
      background: var(--saffron-wash);
      color: var(--ink);
    }
    mat-dialog-actions {
      gap: 8px;
      justify-content: flex-end;
    }
  `,
})
export class ConflictDialog {
  protected readonly conflict = inject<Conflict>(MAT_DIALOG_DATA);
  protected readonly names = this.listNames();
  protected readonly what = changedWhat;

  private listNames(): string {
    const { both } = this.conflict;
    const shown = both.slice(0, NAMES_SHOWN).join(', ');
    return both.length > NAMES_SHOWN ? `${shown} and ${both.length - NAMES_SHOWN} more` : shown;
  }
}
