import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { SceneStore } from '../scene.store';

const SHOWN_MS = 5_000;
const UNDO_MS = 8_000;

/** Says in passing what was done, and offers to take it back. */
@Injectable()
export class Teller {
  private readonly snackBar = inject(MatSnackBar);
  private readonly store = inject(SceneStore);

  tell(message: string): void {
    this.snackBar.open(message, undefined, { duration: SHOWN_MS });
  }

  offerUndo(message: string): void {
    this.snackBar
      .open(message, 'Undo', { duration: UNDO_MS })
      .onAction()
      .subscribe(() => this.store.undo());
  }
}
