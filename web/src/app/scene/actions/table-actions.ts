import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { cuesFromCsv, cuesToCsv, type Matched } from '@wexikine/core';
import { fileName, saveFile } from '../../files/save-file';
import { DataDialog, type DataSource } from '../dialogs/data-dialog';
import type { CueChange } from '../panels/cues-panel';
import { SceneStore } from '../scene.store';
import { Teller } from './teller';

/** What tables bring into a scene and take out of it: cues and data columns. */
@Injectable()
export class TableActions {
  private readonly store = inject(SceneStore);
  private readonly dialog = inject(MatDialog);
  private readonly teller = inject(Teller);

  setCues({ label, cues }: CueChange): void {
    this.store.do(label, [{ type: 'set-scene', fields: { cues: [...cues] } }]);
  }

  moveCue(id: string, at: number): void {
    const cues = this.store.scene?.cues.map((cue) => (cue.id === id ? { ...cue, at } : cue)) ?? [];
    const name = cues.find((cue) => cue.id === id)?.name ?? '';
    this.setCues({ label: `Move “${name}”`, cues });
  }

  exportCues(): void {
    const { scene } = this.store;
    if (scene) saveFile(`${fileName(scene.name)} cues.csv`, new Blob([cuesToCsv(scene)], { type: 'text/csv' }));
  }

  async importCues(file: File): Promise<void> {
    const { scene } = this.store;
    if (!scene) return;
    const read = cuesFromCsv(await file.text(), scene.rate, () => `cue-${crypto.randomUUID().slice(0, 13)}`);
    if (!read.ok) return this.teller.tell(read.message);
    const standing = new Set(scene.cues.map(({ at }) => at));
    const added = read.cues.filter(({ at }) => !standing.has(at));
    this.setCues({ label: `Import ${added.length} cues`, cues: [...scene.cues, ...added] });
    this.teller.tell(`${added.length} cues came in; ${read.cues.length - added.length} were there already.`);
  }

  openData(picked: ReadonlySet<string>): void {
    const { scene } = this.store;
    if (!scene) return;
    this.dialog
      .open<DataDialog, DataSource, Matched>(DataDialog, { data: { scene, picked }, width: '640px' })
      .afterClosed()
      .subscribe((matched) => {
        if (matched) this.store.do(`Give data to ${matched.layers} layers`, matched.edits);
      });
  }
}
