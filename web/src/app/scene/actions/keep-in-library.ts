import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { lookOfLayer, STYLE_PART_FACTS, type CreateItem, type Layer, type Shelf } from '@wexikine/core';
import { ApiService } from '../../api/api.service';
import { personName } from '../../api/person';
import { LibraryActions } from '../../library/library-actions.service';
import { KeepDialog, type KeepSource, type KeepWishes } from '../dialogs/keep-dialog';
import { Teller } from './teller';

/** Something of a scene that is to become an item of the library. */
export interface ToKeep extends KeepSource {
  readonly content: CreateItem['content'];
  /** What a further revision changed. */
  readonly summary: string;
}

const LOOK_HINT =
  'It is put on other layers by a style, in any scene, and can be changed for all of them in the library. Mattes stay behind.';

/** Keeps what was made in a scene in the library: as a new item, or as a new revision of one. */
@Injectable()
export class KeepInLibrary {
  private readonly dialog = inject(MatDialog);
  private readonly api = inject(ApiService);
  private readonly library = inject(LibraryActions);
  private readonly teller = inject(Teller);

  /** Asks for its name, then keeps it. */
  ask(what: ToKeep): void {
    this.dialog
      .open<KeepDialog, KeepSource, KeepWishes>(KeepDialog, { data: what, width: '460px' })
      .afterClosed()
      .subscribe((wishes) => {
        if (wishes) void this.keep(what, wishes);
      });
  }

  /** Keeps the look that a layer has. */
  askForLook(layer: Layer, shelf: Shelf): void {
    const body = lookOfLayer(layer, STYLE_PART_FACTS);
    if (!body)
      return this.teller.tell(`“${layer.name}” has no look to keep. Give it a fill, a border or a shadow first.`);
    const labels = body.parts.map((part) => STYLE_PART_FACTS[part].label);
    this.ask({
      kind: 'look',
      says: `It sets ${new Intl.ListFormat('en', { type: 'conjunction' }).format(labels)}, as “${layer.name}” has them.`,
      hint: LOOK_HINT,
      name: `Look of ${layer.name}`.slice(0, 200),
      shelf,
      content: { kind: 'look', body },
      summary: `as “${layer.name}”`.slice(0, 500),
    });
  }

  private async keep({ content, summary }: ToKeep, { name, note, over }: KeepWishes): Promise<void> {
    const by = personName();
    const begun =
      over === null
        ? this.api.createItem({ by, name, note, tags: [], collection: null, content })
        : this.api.saveDraft(over, { by, base: this.library.entryOf(over)?.draftVersion ?? 0, name, note, content });
    const draft = await this.library.ask(begun);
    if (!draft) return;
    const moved = await this.library.ask(
      this.api.moveDraft(draft.item.id, {
        by,
        base: draft.draftVersion,
        to: 'published',
        summary: over === null ? 'first' : summary,
      }),
    );
    if (moved) this.teller.tell(`“${name}” is in the library, for every scene.`);
  }
}
