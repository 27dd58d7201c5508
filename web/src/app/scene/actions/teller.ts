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

  /** Says what was done, and offers to go on with it. */
  offer(message: string, action: string, work: () => void): void {
    this.snackBar.open(message, action, { duration: UNDO_MS }).onAction().subscribe(work);
  }

  offerUndo(message: string): void {
    this.snackBar
      .open(message, 'Undo', { duration: UNDO_MS })
      .onAction()
      .subscribe(() => this.store.undo());
  }
}
