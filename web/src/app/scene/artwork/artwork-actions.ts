import { Injectable, inject } from '@angular/core';
import type { Edit, Layer, Point } from '@wexikine/core';
import { DraftStore } from '../draft.store';
import { SceneStore } from '../scene.store';
import { Teller } from '../actions/teller';
import { broughtWords, pictureLayers, roomForEach } from './artwork-layers';
import { readPictureFile, type BroughtFile } from './picture-file';

/** Pictures at once; each is read by itself, so that memory stays bounded. */
const MOST_AT_ONCE = 200;
/** With less room than this a picture would be nothing to look at. */
const LEAST_LETTERS = 20_000;

/** Brings in one's own pictures as layers: dropped, pasted or chosen. */
@Injectable()
export class ArtworkActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly teller = inject(Teller);
  private isBusy = false;

  /** Makes a layer of each file that is a picture, and says what came and what did not. Gives the new layers. */
  async bring(files: readonly File[], at: Point | null = null): Promise<readonly Layer[]> {
    if (files.length === 0 || this.isBusy) return [];
    if (files.length > MOST_AT_ONCE) {
      this.teller.tell(`At most ${MOST_AT_ONCE} pictures at once. Bring them in in parts.`);
      return [];
    }
    const each = roomForEach(this.store.scene?.layers ?? [], files.length);
    if (each < LEAST_LETTERS) {
      this.teller.tell('The scene holds 40 MB of pictures already. Remove some, or bring in fewer.');
      return [];
    }
    this.isBusy = true;
    try {
      const read: BroughtFile[] = [];
      for (const [i, file] of files.entries()) {
        if (files.length > 3) this.teller.tell(`Reading picture ${i + 1} of ${files.length}…`);
        read.push(await readPictureFile(file, each));
      }
      const layers = this.add(read, at);
      this.teller.tell(broughtWords(read));
      return layers;
    } finally {
      this.isBusy = false;
    }
  }

  private add(read: readonly BroughtFile[], at: Point | null): readonly Layer[] {
    const { scene } = this.store;
    const pictures = read.flatMap((file) => ('href' in file ? [file] : []));
    if (!scene || pictures.length === 0) return [];
    const layers = pictureLayers(scene, pictures, at, () => `layer-${crypto.randomUUID().slice(0, 18)}`);
    const edits = layers.map((layer, i): Edit => ({ type: 'add-layer', index: scene.layers.length + i, layer }));
    const what = layers.length === 1 ? `“${layers[0].name}”` : `${layers.length} pictures`;
    if (!this.store.do(`Bring in ${what}`, edits)) return [];
    const { recipe } = this.draft;
    if (recipe) this.draft.change({ ...recipe, pick: { by: 'layers', layers: layers.map(({ id }) => id) } });
    return layers;
  }
}
