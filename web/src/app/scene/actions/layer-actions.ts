import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import type { Edit, Layer, Preset } from '@wexikine/core';
import { RecordDialog, type RecordSource } from '../../library/record-dialog';
import { LibraryActions } from '../../library/library-actions.service';
import { AddLayersDialog, type AddedLayers } from '../dialogs/add-layers-dialog';
import { DraftStore } from '../draft.store';
import type { LayerStep } from '../../looks/layer-step';
import { SceneStore } from '../scene.store';
import { Selection } from '../selection';
import { Teller } from './teller';

/** What can be done with the layers of a scene one by one: add, change, remove, record as a preset. */
@Injectable()
export class LayerActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly dialog = inject(MatDialog);
  private readonly teller = inject(Teller);
  private readonly library = inject(LibraryActions);
  private readonly selection = inject(Selection);

  /** Does a step that a panel asks for. */
  step({ label, edits, merge }: LayerStep & { readonly merge?: string }): void {
    this.store.do(label, edits, merge);
  }

  /** Asks for new layers; the sentence is about them, and they are selected. Files that were chosen instead are handed on. */
  add(bring: (files: readonly File[]) => void): void {
    const { scene } = this.store;
    if (!scene) return;
    this.dialog
      .open<AddLayersDialog, unknown, AddedLayers>(AddLayersDialog, { data: scene, width: '480px' })
      .afterClosed()
      .subscribe((added) => {
        if (added && 'files' in added) return bring(added.files);
        const layers = added?.layers ?? [];
        if (layers.length === 0) return;
        const first = this.store.scene?.layers.length ?? 0;
        const edits = layers.map((layer, i): Edit => ({ type: 'add-layer', index: first + i, layer }));
        this.store.do(`Add ${layers.length === 1 ? `“${layers[0].name}”` : `${layers.length} layers`}`, edits);
        const ids = layers.map(({ id }) => id);
        this.draft.pick({ by: 'layers', layers: ids });
        this.selection.only(ids);
      });
  }

  /** Removes a layer; of a group, everything in it first. */
  remove(id: string): void {
    const layers = this.store.scene?.layers ?? [];
    const layer = layers.find((candidate) => candidate.id === id);
    if (!layer) return;
    const inside = (parent: string): string[] =>
      layers.filter((candidate) => candidate.parent === parent).flatMap((child) => [...inside(child.id), child.id]);
    const edits = [...inside(id), id].map((gone): Edit => ({ type: 'remove-layer', layer: gone }));
    if (this.store.do(`Remove “${layer.name}”`, edits)) this.teller.offerUndo(`“${layer.name}” was removed.`);
  }

  /** The keys of a layer as a new preset, on the bench. */
  recordPreset({ id, name }: Layer): void {
    const { scene } = this.store;
    if (!scene) return;
    this.dialog
      .open<RecordDialog, RecordSource, Preset>(RecordDialog, {
        data: { scene, layer: id },
        width: '760px',
        maxWidth: '94vw',
      })
      .afterClosed()
      .subscribe((body) => {
        if (!body) return;
        const content = { kind: 'preset' as const, body };
        const note = `Recorded from “${name}” in ${scene.name}.`;
        void this.library.createAndOpen({
          name: `From ${name}`.slice(0, 200).replace(/[<>]/g, ''),
          note,
          tags: [],
          collection: null,
          content,
        });
      });
  }
}
