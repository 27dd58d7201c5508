import { Injectable, inject } from '@angular/core';
import {
  createKeysRecipe,
  createPresetCompiler,
  createShelf,
  describeFinding,
  retuneRig,
  type RigRecipe,
  type RunRecord,
  type Shelf,
} from '@wexikine/core';
import { personName } from '../../api/person';
import { LibraryService } from '../../library/library.service';
import { DraftStore } from '../draft.store';
import { withRig } from '../first-recipe';
import { SceneStore } from '../scene.store';
import { Teller } from './teller';

/** A run's rig with its dials set otherwise. Changes with the same `merge` that follow each other are one step. */
export interface DialChange {
  readonly run: string;
  readonly recipe: RigRecipe;
  readonly label: string;
  readonly merge?: string;
}

/** Turns dials of rigs that are applied; the scene follows at once, and each turn is one step to undo. */
@Injectable()
export class DialActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly teller = inject(Teller);
  private readonly compile = createPresetCompiler();
  private shelf: Shelf = createShelf([]);

  constructor() {
    inject(LibraryService).shelf$.subscribe((shelf) => (this.shelf = shelf));
  }

  /** Says a rig in the sentence, over the layers that are picked. */
  startRig(): void {
    const { scene } = this.store;
    const { recipe } = this.draft;
    const rig = [...this.shelf.items.values()].find((item) => item.kind === 'rig' && item.state === 'published');
    if (recipe && scene && rig?.kind === 'rig') this.draft.start(withRig(recipe, rig, scene));
  }

  /** Says in the sentence that what rigs give layers is to become keys. */
  startKeys(layers: readonly string[]): void {
    this.draft.start(createKeysRecipe('turn-into-keys', { by: 'layers', layers: [...layers] }));
  }

  set({ run, recipe, label, merge }: DialChange): void {
    const tuned = this.tuned(run, recipe);
    if (tuned) this.store.do(label, [{ type: 'set-run', run: tuned }], merge);
  }

  /** A run with another recipe, not yet done; null where that cannot be, which is told. */
  tuned(run: string, recipe: RigRecipe): RunRecord | null {
    const { scene } = this.store;
    if (!scene) return null;
    const context = { by: personName(), when: new Date().toISOString() };
    const tuned = retuneRig(scene, this.shelf, run, recipe, context, this.compile);
    if (tuned.ok) return tuned.run;
    this.teller.tell(tuned.findings.map((finding) => describeFinding(finding, scene)).join(' '));
    return null;
  }
}
