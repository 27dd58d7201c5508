import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import {
  createAdjust,
  formatShort,
  isPresetRecipe,
  type LayerValues,
  type Mend,
  type PresetRecipe,
  type SavedPick,
  type Shelf,
} from '@wexikine/core';
import { DraftStore } from '../draft.store';
import { VariantsDialog, type VariantsSource } from '../dialogs/variants-dialog';
import type { SharePoint } from '../preview/marks';
import type { AdjustWanted } from '../keys/keys-view';
import { SceneStore } from '../scene.store';
import { withOverride } from '../sheet/cells';
import type { HandValue } from '../sheet/cell-editor';
import type { Reorder } from '../sheet/row-order';
import { pickedOnly, reordered, ticked } from './run-steps';

/** What the sheet, the preview and the findings change in the sentence. */
@Injectable()
export class RecipeActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly dialog = inject(MatDialog);

  /** Ticking layers turns the pick into a list of layers. */
  tick(layers: readonly string[], isOn: boolean): void {
    const [recipe, scene] = [this.draft.recipe, this.store.scene];
    if (recipe && scene) this.draft.change(ticked(recipe, scene, layers, isOn));
  }

  /** An adjustment of the keys that were picked by hand, as far as a rule can say it, in the sentence. */
  adjust({ layers, channels, from, to }: AdjustWanted): void {
    const { scene } = this.store;
    const { recipe } = this.draft;
    if (!scene || !recipe) return;
    const [first, last] = [from, to].map((at) => formatShort(at, scene.rate));
    const adjust = createAdjust({ by: 'layers', layers: [...layers] });
    const keys = { which: 'all' as const, channels: [...channels], from: first, to: last };
    this.draft.change({ ...adjust, order: recipe.order, seed: recipe.seed, keys });
    this.draft.setLive(true);
  }

  pickOnly(layers: readonly string[]): void {
    const { recipe } = this.draft;
    if (recipe && layers.length > 0) this.draft.change(pickedOnly(recipe, layers));
  }

  setByHand({ layer, field, text }: HandValue): void {
    const { recipe } = this.draft;
    if (recipe) this.draft.change(withOverride(recipe, layer, field, text));
  }

  reorder(move: Reorder, planned: readonly LayerValues[]): void {
    const { recipe } = this.draft;
    const layers = [...planned].sort((a, b) => a.place - b.place);
    if (recipe) {
      this.draft.change(
        reordered(
          recipe,
          layers.map(({ layer }) => layer),
          move,
        ),
      );
    }
  }

  moveOrderPoint({ x, y }: SharePoint): void {
    const { recipe } = this.draft;
    if (recipe?.order.by === 'out-from') this.draft.change({ ...recipe, order: { ...recipe.order, x, y } });
  }

  keepPick(saved: SavedPick): void {
    const { scene } = this.store;
    if (!scene) return;
    const picks = [...(scene.picks ?? []), saved];
    if (this.store.do(`Keep a pick as “${saved.name}”`, [{ type: 'set-scene', fields: { picks } }])) {
      const { recipe } = this.draft;
      if (recipe) this.draft.change({ ...recipe, pick: { by: 'saved', pick: saved.id } });
    }
  }

  forgetPick(id: string): void {
    const picks = this.store.scene?.picks?.filter((pick) => pick.id !== id) ?? [];
    this.store.do('Forget a kept pick', [{ type: 'set-scene', fields: { picks } }]);
  }

  openVariants(shelf: Shelf): void {
    const [scene, recipe] = [this.store.scene, this.draft.recipe];
    if (!scene || !recipe || !isPresetRecipe(recipe)) return;
    this.dialog
      .open<VariantsDialog, VariantsSource, PresetRecipe>(VariantsDialog, {
        data: { scene, recipe, shelf, run: this.draft.run },
        width: '1080px',
        maxWidth: '96vw',
      })
      .afterClosed()
      .subscribe((kept) => {
        if (kept) this.draft.change(kept);
      });
  }

  mend(mend: Mend): void {
    if ('recipe' in mend) this.draft.change(mend.recipe);
    else this.store.do(mend.label, mend.edits);
  }
}
