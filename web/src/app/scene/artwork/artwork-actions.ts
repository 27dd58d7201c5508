import { Injectable, inject, signal } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { inPlaceOf, isSeen, type Edit, type Layer, type Point, type Scene } from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { KeptFiles } from '../../files/kept-files';
import { Teller } from '../actions/teller';
import { DraftStore } from '../draft.store';
import { SceneStore } from '../scene.store';
import { Sounds } from '../sound/sounds';
import { StageActions } from '../stage/stage-actions';
import { broughtWords, pictureLayer, placesFor, soundLayer } from './artwork-layers';
import { ArtworkReader, Cancelled } from './artwork-reader';
import { pictureOf } from './file-in-place';
import { DrawingDialog, type DrawingAnswer, type DrawingQuestion, type ReadDrawing } from './drawing-dialog';
import type { BroughtFile } from './messages';
import { ReadingDialog, type Reading } from './reading-dialog';

/** Files at once; each is read by itself, so that memory stays bounded. */
export const MOST_AT_ONCE = 300;
/** Reading that takes longer than this says how far it has come. */
const PATIENCE_MS = 500;

const newId = (): string => `layer-${crypto.randomUUID().slice(0, 18)}`;

type Picture = Extract<BroughtFile, { type: 'picture' | 'clip' }>;

/** Brings in one's own pictures, drawings and fonts: dropped, pasted or chosen. */
@Injectable()
export class ArtworkActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly teller = inject(Teller);
  private readonly dialog = inject(MatDialog);
  private readonly files = inject(KeptFiles);
  private readonly sounds = inject(Sounds);
  private readonly stage = inject(StageActions);
  private isBusy = false;

  /** Makes layers of files, and says what came and what did not. Gives the new layers that are to be selected. */
  async bring(files: readonly File[], at: Point | null = null): Promise<readonly Layer[]> {
    if (files.length === 0 || this.isBusy) return [];
    if (files.length > MOST_AT_ONCE) {
      this.teller.tell(`At most ${MOST_AT_ONCE} files at once. Bring them in in parts.`);
      return [];
    }
    this.isBusy = true;
    const reader = new ArtworkReader();
    try {
      const read = await this.readAll(files, reader);
      if (read.some(({ type }) => type === 'font')) await this.files.load();
      return await this.place(read, reader, at);
    } catch (error) {
      const isStopped = error instanceof Cancelled;
      this.teller.tell(
        isStopped ? 'Reading was stopped; nothing came in.' : `Nothing came in: ${(error as Error).message}`,
      );
      return [];
    } finally {
      reader.close();
      this.isBusy = false;
    }
  }

  /** Puts another picture in the place of those that layers show; a drawing comes in as one picture. */
  async replace(file: File, layers: readonly string[]): Promise<void> {
    if (this.isBusy) return;
    this.isBusy = true;
    const reader = new ArtworkReader();
    try {
      const [read] = await this.readAll([file], reader);
      const source = await pictureOf(read, reader);
      if (!source) return this.teller.tell(`Nothing was replaced. ${broughtWords([read])}`);
      const byId = new Map(this.store.scene?.layers.map((layer) => [layer.id, layer]));
      const edits = layers.map((layer): Edit => ({
        type: 'set-layer',
        layer,
        fields: { source: inPlaceOf(byId.get(layer)?.source, source) },
      }));
      const what = layers.length === 1 ? 'a picture' : `${layers.length} pictures`;
      this.store.do(`Replace ${what} by “${read.name}”`, edits);
      this.teller.offerUndo(`“${read.name}” took the place of ${what}.`);
    } catch (error) {
      this.teller.tell(
        error instanceof Cancelled ? 'Nothing was replaced.' : `Nothing was replaced: ${(error as Error).message}`,
      );
    } finally {
      reader.close();
      this.isBusy = false;
    }
  }

  private async readAll(files: readonly File[], reader: ArtworkReader): Promise<BroughtFile[]> {
    const [done, name] = [signal(0), signal('')];
    const reading: Reading = { done, name, count: files.length, cancel: () => reader.close() };
    const timer = setTimeout(
      () => this.dialog.open(ReadingDialog, { data: reading, width: '420px', disableClose: true, id: 'reading' }),
      PATIENCE_MS,
    );
    await this.files.load().catch(() => undefined);
    try {
      const read: BroughtFile[] = [];
      for (const file of files) {
        name.set(file.name);
        read.push(await reader.read(file, this.files.fonts));
        done.set(read.length);
      }
      return read;
    } finally {
      clearTimeout(timer);
      this.dialog.getDialogById('reading')?.close();
    }
  }

  private async place(
    read: readonly BroughtFile[],
    reader: ArtworkReader,
    at: Point | null,
  ): Promise<readonly Layer[]> {
    const { scene } = this.store;
    if (!scene) return [];
    const drawings = read.filter((file): file is ReadDrawing => file.type === 'drawing');
    const wholes = drawings.length === 0 ? [] : await this.ask({ drawings, reader, scene });
    const left = wholes ? read : read.filter(({ type }) => type !== 'drawing');
    const things = left.filter((file): file is Picture | ReadDrawing =>
      ['picture', 'clip', 'drawing'].includes(file.type),
    );
    const places = placesFor(scene, things, at);
    const layers: Layer[] = [];
    const chosen: Layer[] = [];
    for (const [i, thing] of things.entries()) {
      if (thing.type !== 'drawing') {
        const layer = pictureLayer(scene, thing, places[i], newId);
        layers.push(layer);
        chosen.push(layer);
        continue;
      }
      const whole = wholes?.[drawings.indexOf(thing)] ?? [];
      const { drawing, name } = thing;
      const made = await reader.draw({ drawing, whole, name, ...places[i], length: scene.length, isKept: true });
      layers.push(...made.layers);
      const [root] = made.layers;
      const parts = made.layers.filter(({ parent }) => root !== undefined && parent === root.id);
      chosen.push(...(parts.length > 0 ? parts : made.layers.slice(0, 1)));
    }
    const heard = await this.hear(scene, left);
    for (const layer of heard.layers) {
      layers.push(layer);
      chosen.push(layer);
    }
    this.add(scene, layers, chosen, [...things, ...left.filter(({ type }) => type === 'sound')]);
    const words = broughtWords(heard.read);
    const seen = chosen.filter(({ parent, kind }) => parent === null && kind === 'picture').map(({ id }) => id);
    if (seen.length < 2) this.teller.tell(words);
    else this.teller.offer(words, 'Set out…', () => void this.stage.setOut(new Set(seen)));
    return chosen;
  }

  /** Layers of the sounds among files, from the scene's beginning; those that this browser cannot decode say so. */
  private async hear(
    scene: Scene,
    read: readonly BroughtFile[],
  ): Promise<{ readonly layers: readonly Layer[]; readonly read: readonly BroughtFile[] }> {
    const layers: Layer[] = [];
    const told: BroughtFile[] = [];
    for (const file of read) {
      if (file.type !== 'sound') {
        told.push(file);
        continue;
      }
      try {
        const kept = await this.sounds.keep(file.file, file.name);
        layers.push(soundLayer(scene, { name: file.name, ...kept }, 0, newId));
        told.push(file);
      } catch (error) {
        told.push({ type: 'problem', name: file.name, problem: (error as Error).message });
      }
    }
    return { layers, read: told };
  }

  private async ask(question: DrawingQuestion): Promise<DrawingAnswer | null> {
    const asked = this.dialog.open<DrawingDialog, DrawingQuestion, DrawingAnswer>(DrawingDialog, {
      data: question,
      width: '820px',
      maxWidth: '94vw',
    });
    return (await firstValueFrom(asked.afterClosed())) ?? null;
  }

  private add(scene: Scene, layers: readonly Layer[], chosen: readonly Layer[], things: readonly BroughtFile[]): void {
    if (layers.length === 0) return;
    const first = this.store.scene?.layers.length ?? scene.layers.length;
    const edits = layers.map((layer, i): Edit => ({ type: 'add-layer', index: first + i, layer }));
    const kind = things.every(({ type }) => type === 'picture') ? 'pictures' : 'files';
    const what = things.length === 1 ? `“${things[0].name}”` : `${things.length} ${kind}`;
    if (!this.store.do(`Bring in ${what}`, edits)) return;
    const seen = chosen.filter(isSeen);
    if (seen.length > 0) this.draft.pick({ by: 'layers', layers: seen.map(({ id }) => id) });
  }
}
