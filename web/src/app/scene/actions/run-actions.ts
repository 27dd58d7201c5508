import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import {
  createRigRecipe,
  groupOfRun,
  isPresetRecipe,
  recipeOfRun,
  recipeWords,
  verbOf,
  type PresetRecipe,
  type RunRecord,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import { fileName, saveFile } from '../../files/save-file';
import { ExitDialog, type ExitSource } from '../dialogs/exit-dialog';
import { UpdatesDialog, type UpdatesChoice, type UpdatesSource } from '../dialogs/updates-dialog';
import { DraftStore } from '../draft.store';
import { SceneStore } from '../scene.store';
import { KeepInLibrary } from './keep-in-library';
import { moveStep, readRecipe, recipeToKeep, removeStep, switchStep, type Step } from './run-steps';
import { Teller } from './teller';

const RECIPE_HINT =
  'It goes by tags, names and shares of the frame, so it works in scenes of another size and rate. Values that were set by hand for single layers stay behind.';

/** The rig of the starter library that drives all copies of a run together. */
const ALL_COPIES = 'rig-all-copies';

/** What can be done with the runs of a scene: open, switch, move, remove, hand on, and make the exit that matches. */
@Injectable()
export class RunActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly dialog = inject(MatDialog);
  private readonly teller = inject(Teller);
  private readonly keeping = inject(KeepInLibrary);

  /** Opens a run in the sentence. */
  openRun(run: RunRecord, revision: 'used' | 'newest'): void {
    this.draft.reopen(run, revision);
  }

  openUpdate(id: string): void {
    const run = this.store.scene?.runs.find((entry) => entry.id === id);
    if (run) this.openRun(run, 'newest');
  }

  /** Shows all updates that wait, to be done for some or for all. */
  openUpdates(shelf: Shelf): void {
    const { scene } = this.store;
    if (!scene) return;
    this.dialog
      .open<UpdatesDialog, UpdatesSource, UpdatesChoice>(UpdatesDialog, {
        data: { scene, shelf },
        width: '760px',
        maxWidth: '94vw',
      })
      .afterClosed()
      .subscribe((choice) => {
        if (choice?.type === 'look') this.openRun(choice.run, 'newest');
        if (choice?.type === 'step') this.update(choice.step, scene);
      });
  }

  private update(step: Step, planned: Scene): void {
    if (this.store.scene !== planned) {
      return this.teller.tell('The scene was changed meanwhile. Open the updates again to see what they do now.');
    }
    if (this.store.do(step.label, step.edits)) this.teller.offerUndo(`${step.label}: done.`);
  }

  /** Begins a rig that drives all copies of a run together. */
  dialsFor({ id }: RunRecord): void {
    this.draft.start(createRigRecipe(ALL_COPIES, { by: 'group', group: groupOfRun(id) }));
  }

  leaveRun(): void {
    const recipe = this.draft.recipe;
    if (!recipe) return;
    this.draft.start(recipe);
    this.draft.setLive(false);
  }

  switch(run: RunRecord): void {
    this.stepOver((scene) => switchStep(scene, run));
  }

  moveTo(run: RunRecord, to: number): void {
    this.stepOver((scene) => moveStep(scene, run, to));
  }

  removeRun(run: RunRecord): void {
    if (!this.stepOver((scene) => removeStep(scene, run))) return;
    this.teller.offerUndo('The run was removed, and what it replaced is back.');
  }

  duplicate(run: RunRecord): void {
    this.draft.start({ ...recipeOfRun(run, 'newest'), pick: { by: 'rule' } });
    this.teller.tell('Say in the sentence which layers it is to go on.');
  }

  makeExit(run: RunRecord, shelf: Shelf): void {
    const { scene } = this.store;
    if (!scene) return;
    this.dialog
      .open<ExitDialog, ExitSource, PresetRecipe>(ExitDialog, { data: { run, scene, shelf }, width: '420px' })
      .afterClosed()
      .subscribe((recipe) => {
        if (recipe) this.draft.start(recipe);
      });
  }

  keepRecipe(run: RunRecord): void {
    const recipe = recipeToKeep(run);
    const name = fileName(`recipe ${run.preset?.name ?? run.sentence.split(' ').slice(0, 2).join(' ')}`);
    saveFile(`${name}.json`, new Blob([`${JSON.stringify(recipe, null, 1)}\n`], { type: 'application/json' }));
  }

  /** Saves a run's recipe in the library: as a new item, or as a new revision of one. */
  saveRecipe(run: RunRecord, shelf: Shelf): void {
    const recipe = recipeToKeep(run);
    const preset = isPresetRecipe(recipe) ? shelf.preset(recipe.preset.id)?.name : undefined;
    const verb = verbOf(recipe.operation);
    this.keeping.ask({
      kind: 'recipe',
      says: recipeWords(recipe, shelf),
      hint: RECIPE_HINT,
      name: preset === undefined ? verb : `${verb}: ${preset}`,
      shelf,
      content: { kind: 'recipe', body: recipe },
      summary: 'from a run',
    });
  }

  async useRecipe(file: File): Promise<void> {
    const read = readRecipe(await file.text());
    if (!read.ok) return this.teller.tell(read.message);
    this.draft.start(read.recipe);
    this.teller.tell('The recipe is in the sentence now, as a dry run.');
  }

  private stepOver(stepFor: (scene: Scene) => Step): boolean {
    const { scene } = this.store;
    if (!scene) return false;
    const { label, edits } = stepFor(scene);
    return edits.length > 0 && this.store.do(label, edits);
  }
}
