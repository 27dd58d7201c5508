import { inject, Injectable } from '@angular/core';
import {
  apply,
  fileAddress,
  isSame,
  layersOfEdits,
  replacingEdits,
  type Edit,
  type FileInPlace,
  type KeptFile,
  type Layer,
  type Scene,
  type StoredScene,
} from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { personName } from '../api/person';
import { saveRequest } from '../api/save-request';
import { loadFont, piecesOf } from '../drawing/measure-pieces';

/** Somebody else may save a scene between reading and saving it; so often it is tried again. */
const TRIES = 4;

/** What was changed in a scene, and what takes that back. */
interface ChangedScene {
  readonly scene: string;
  readonly layers: number;
  readonly made: readonly Edit[];
  readonly back: readonly Edit[];
}

/** A file that took the place of another, scene by scene. */
export interface Replacement {
  readonly scenes: readonly ChangedScene[];
  readonly layers: number;
}

/** Of edits that take a replacement back, those of layers that are still there and still as it made them. */
export function stillPossible({ layers }: Pick<Scene, 'layers'>, made: readonly Edit[], back: readonly Edit[]): Edit[] {
  const now = new Map(layers.map((layer) => [layer.id, layer]));
  const wanted = new Map<string, Partial<Layer>>();
  for (const edit of made) {
    if (edit.type === 'set-layer') wanted.set(edit.layer, { ...wanted.get(edit.layer), ...edit.fields });
    if (edit.type === 'set-base') wanted.set(edit.layer, { ...wanted.get(edit.layer), base: edit.base ?? undefined });
  }
  const isAsMade = (id: string): boolean => {
    const layer = now.get(id);
    const fields = Object.entries(wanted.get(id) ?? {}) as [keyof Layer, unknown][];
    return layer !== undefined && fields.every(([field, value]) => isSame(layer[field], value));
  };
  return back.filter((edit) => layersOfEdits([edit]).some((id) => wanted.has(id) && isAsMade(id)));
}

/** Puts a file in the place of another in every scene that uses it: in all of them, or in none. */
@Injectable({ providedIn: 'root' })
export class ReplaceEverywhere {
  private readonly api = inject(ApiService);

  /** Throws a sentence where a scene could not be changed; those before it are then as they were. */
  async replace({ name, uses }: KeptFile, file: FileInPlace, what: string): Promise<Replacement> {
    const address = fileAddress(name);
    if (file.kind === 'font') await loadFont(file.fontFile);
    const done: ChangedScene[] = [];
    for (const { scene, sceneName } of uses) {
      try {
        const changed = await this.change(scene, (standing) => replacingEdits(standing, address, file, piecesOf), what);
        if (changed) done.push(changed);
      } catch (error) {
        await this.takeBack({ scenes: done, layers: 0 }, `Take back: ${what}`);
        throw new Error(`“${sceneName}” could not be changed, so nothing was. ${(error as Error).message}`, {
          cause: error,
        });
      }
    }
    return { scenes: done, layers: done.reduce((sum, { layers }) => sum + layers, 0) };
  }

  async takeBack({ scenes }: Replacement, what: string): Promise<void> {
    for (const { scene, made, back } of scenes)
      await this.change(scene, (standing) => stillPossible(standing, made, back), what);
  }

  private async change(id: string, editsFor: (scene: Scene) => Edit[], what: string): Promise<ChangedScene | null> {
    for (let left = TRIES; ; left--) {
      const stored = await this.maybeScene(id);
      if (!stored) return null;
      const edits = editsFor(stored.scene);
      if (edits.length === 0) return null;
      const result = apply(stored.scene, edits);
      if (!result.ok) throw new Error('It is not as it should be. Open it, and look at its findings.');
      try {
        await firstValueFrom(this.api.saveScene(id, saveRequest(stored, result.scene, { by: personName(), what })));
        return { scene: id, layers: new Set(layersOfEdits(edits)).size, made: edits, back: result.inverse };
      } catch (error) {
        if ((error as ApiProblem).code !== 'conflict' || left <= 1) throw error;
      }
    }
  }

  /** A scene; null where it is deleted: it keeps the file, which stays kept for as long as it can be brought back. */
  private async maybeScene(id: string): Promise<StoredScene | null> {
    try {
      return await firstValueFrom(this.api.scene(id));
    } catch (error) {
      if ((error as ApiProblem).code === 'not-found') return null;
      throw error;
    }
  }
}
