import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { counted, cuesFromCsv, cuesToCsv } from '@wexikine/core';
import { firstValueFrom } from 'rxjs';
import { fileName, saveFile } from '../../files/save-file';
import { DataDialog, type DataAnswer, type DataSource } from '../dialogs/data-dialog';
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
    const known = read.cues.length - added.length;
    if (added.length > 0)
      this.setCues({ label: `Import ${counted(added.length, 'cue')}`, cues: [...scene.cues, ...added] });
    const came = added.length === 0 ? 'No new cues came in' : `${counted(added.length, 'cue')} came in`;
    this.teller.tell(known === 0 ? `${came}.` : `${came}; ${counted(known, 'was', 'were')} there already.`);
  }

  /** Asks for a table. Gives the layers that are to be selected after it; null leaves the selection. */
  async openData(picked: ReadonlySet<string>): Promise<readonly string[] | null> {
    const { scene } = this.store;
    if (!scene) return null;
    const opened = this.dialog.open<DataDialog, DataSource, DataAnswer>(DataDialog, {
      data: { scene, picked },
      width: '640px',
    });
    const answer = await firstValueFrom(opened.afterClosed());
    if (!answer || !this.store.do(answer.label, answer.edits)) return null;
    if (answer.told !== null) this.teller.offerUndo(answer.told);
    return answer.selected;
  }
}
