import { Injectable, inject } from '@angular/core';
import { takeDialsApart, type DialsTurned, type Edit, type Scene } from '@wexikine/core';
import { DialActions } from '../actions/dial-actions';

/** Changes of keys that stand on layers made of dials, as edits of the runs whose dials they are. */
@Injectable()
export class DialKeys {
  private readonly dials = inject(DialActions);

  /** Edits of layers as they are, those of dials as edits of their runs; what keeps a run from it is told. */
  editsOf(scene: Scene, edits: readonly Edit[]): Edit[] {
    const { edits: own, turned } = takeDialsApart(scene, edits);
    return [...own, ...this.turn(turned)];
  }

  /** Runs with their dials set otherwise; those that cannot be are told. */
  turn(turned: readonly DialsTurned[]): Edit[] {
    return turned.flatMap(({ run, recipe }): Edit[] => {
      const tuned = this.dials.tuned(run.id, recipe);
      return tuned ? [{ type: 'set-run', run: tuned }] : [];
    });
  }
}
