import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { ConflictDialog, type ConflictChoice } from '../dialogs/conflict-dialog';
import { SceneStore, type Conflict } from '../scene.store';

/** What to do where somebody else saved the scene meanwhile. */
@Injectable()
export class ConflictActions {
  private readonly store = inject(SceneStore);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);

  /** Tells what others did, and asks what is to become of both. */
  ask(conflict: Conflict): void {
    this.dialog
      .open<ConflictDialog, Conflict, ConflictChoice>(ConflictDialog, {
        data: conflict,
        disableClose: true,
        width: '560px',
      })
      .afterClosed()
      .subscribe((choice) => void this.resolve(conflict, choice ?? 'mine'));
  }

  private async resolve(conflict: Conflict, choice: ConflictChoice): Promise<void> {
    if (choice === 'theirs') return this.store.takeTheirs(conflict);
    if (choice === 'mine') return this.store.keepMine(conflict);
    const id = await this.store.saveAsNew(conflict).catch(() => null);
    if (id === null) return this.ask(conflict);
    await this.router.navigate(['/scenes', id]);
  }
}
