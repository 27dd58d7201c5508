import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router } from '@angular/router';
import {
  createPreset,
  createRig,
  matchingExit,
  type CreateItem,
  type HouseType,
  type HouseValue,
  type KeptLook,
  type Palette,
  type LabelItems,
  type LibraryEntry,
  type LibraryItem,
  type Phase,
  type PresetItem,
} from '@wexikine/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { personName } from '../api/person';
import { fileName, saveFile } from '../files/save-file';
import { LibraryService } from './library.service';

const UNDO_FOR = 8_000;
const TOLD_FOR = 9_000;

const NEW_HOUSE: Readonly<Record<HouseType, HouseValue>> = {
  duration: { type: 'duration', value: '12f' },
  number: { type: 'number', value: 1 },
  curve: { type: 'curve', value: { type: 'bezier', x1: 0.35, y1: 0, x2: 0.65, y2: 1 } },
  colour: { type: 'colour', value: '#f3c98b' },
};

const NEW_LOOK: KeptLook = {
  parts: ['shadow'],
  look: { shadow: '#000000' },
  rest: { 'shadow.y': 8, 'shadow.blur': 12, 'shadow.opacity': 0.5 },
};
const NEW_PALETTE: Palette = {
  colours: [
    { name: 'dark', colour: '#1f2a33' },
    { name: 'light', colour: '#f3c98b' },
  ],
  ramps: [{ name: 'dark to light', through: ['dark', 'light'], steps: 7 }],
};

/** A kind of item that can be begun. */
export type Beginning =
  | { readonly kind: 'preset'; readonly phase: Phase }
  | { readonly kind: 'rig' }
  | { readonly kind: 'look' }
  | { readonly kind: 'palette' }
  | { readonly kind: 'curve' }
  | { readonly kind: 'house'; readonly type: HouseType };

function contentFor(beginning: Beginning): { readonly name: string; readonly content: CreateItem['content'] } {
  switch (beginning.kind) {
    case 'preset':
      return { name: `New ${beginning.phase}`, content: { kind: 'preset', body: createPreset(beginning.phase) } };
    case 'rig':
      return { name: 'New rig', content: { kind: 'rig', body: createRig() } };
    case 'look':
      return { name: 'New look', content: { kind: 'look', body: NEW_LOOK } };
    case 'palette':
      return { name: 'New palette', content: { kind: 'palette', body: NEW_PALETTE } };
    case 'curve':
      return { name: 'New curve', content: { kind: 'curve', body: { easing: NEW_HOUSE.curve.value as never } } };
    case 'house':
      return { name: `new ${beginning.type}`, content: { kind: 'house', body: NEW_HOUSE[beginning.type] } };
  }
}

/** What can be done with library items from anywhere: begin, copy, label, retire, export. Every failure is told. */
@Injectable({ providedIn: 'root' })
export class LibraryActions {
  private readonly api = inject(ApiService);
  private readonly library = inject(LibraryService);
  private readonly snackBar = inject(MatSnackBar);
  private readonly router = inject(Router);

  /** Begins an item as a draft and opens it. */
  async begin(beginning: Beginning): Promise<void> {
    const { name, content } = contentFor(beginning);
    await this.createAndOpen({ name, note: '', tags: [], collection: null, content });
  }

  /** A copy of an item as a draft of its own, opened. */
  async duplicate(item: LibraryItem): Promise<void> {
    const { name, note, tags, collection, kind, body } = item;
    const content = { kind, body } as CreateItem['content'];
    await this.createAndOpen({ name: `${name} (copy)`, note, tags, collection, content });
  }

  /** An entrance's mirror image as a new draft, linked to it by name, opened. */
  async makeExit({ id, name, tags, collection, body }: PresetItem): Promise<void> {
    await this.createAndOpen({
      name: `${name} (exit)`.slice(0, 200),
      note: `Mirrors the entrance ${name}.`,
      tags: [...tags],
      collection,
      content: { kind: 'preset', body: matchingExit(body, id) },
    });
  }

  /** A draft made elsewhere, such as a recorded one, opened. */
  async createAndOpen(draft: Omit<CreateItem, 'by'>): Promise<void> {
    const entry = await this.ask(this.api.createItem({ by: personName(), ...draft }));
    if (!entry) return;
    this.library.take([entry]);
    await this.router.navigate(['/library', entry.item.id]);
  }

  /** A draft made elsewhere; the message offers to open it. */
  async createDraft(draft: Omit<CreateItem, 'by'>, done: string): Promise<void> {
    const entry = await this.ask(this.api.createItem({ by: personName(), ...draft }));
    if (!entry) return;
    this.library.take([entry]);
    this.offer(done, 'Open it', () => this.router.navigate(['/library', entry.item.id]));
  }

  /** Changes labels of several items; the message offers the way back. */
  async label(change: Omit<LabelItems, 'by'>, done: string, back?: () => Promise<void>): Promise<boolean> {
    const entries = await this.ask(this.api.labelItems({ by: personName(), ...change }));
    if (!entries) return false;
    this.library.take(entries);
    if (back) this.offer(done, 'Undo', back);
    else this.tell(done);
    return true;
  }

  async retire(items: readonly LibraryItem[], retired: boolean): Promise<boolean> {
    const ids = items.map(({ id }) => id);
    const what = items.length === 1 ? `“${items[0].name}”` : `${items.length} items`;
    const done = retired
      ? `${what} retired: kept where ${items.length === 1 ? 'it is' : 'they are'} used, offered nowhere else.`
      : `${what} brought back.`;
    return this.label({ ids, retired }, done, async () => {
      await this.label({ ids, retired: !retired }, 'Taken back.');
    });
  }

  /** Saves items with all that they need as a pack; none stands for the whole library. */
  async exportPack(items: readonly LibraryItem[]): Promise<void> {
    const blob = await this.ask(this.api.pack(items.map(({ id }) => id)));
    if (!blob) return;
    const name = items.length === 1 ? fileName(items[0].name, 'pack') : items.length === 0 ? 'library' : 'pack';
    saveFile(`${name}.zip`, blob);
    this.tell(items.length === 0 ? 'The whole library was exported.' : 'Exported, with all that they need.');
  }

  /** Asks the server; a failure is told, and null comes back. */
  async ask<T>(request: Observable<T>): Promise<T | null> {
    try {
      return await firstValueFrom(request);
    } catch (error) {
      this.tell((error as ApiProblem).message);
      return null;
    }
  }

  /** Tells something and offers a way on, for a while. */
  offer(message: string, action: string, work: () => Promise<unknown>): void {
    this.snackBar
      .open(message, action, { duration: UNDO_FOR })
      .onAction()
      .subscribe(() => void work());
  }

  tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: TOLD_FOR });
  }

  /** The entry as the library has it now. */
  entryOf(id: string): LibraryEntry | null {
    return this.library.state.entries.find(({ item }) => item.id === id) ?? null;
  }
}
