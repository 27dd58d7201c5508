import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatMenuModule } from '@angular/material/menu';
import { leftOut } from '@wexikine/core';
import { Icon } from '../icons/icon';
import { UndoButtons } from '../undo-buttons';
import { Teller } from './actions/teller';
import { downloadPage, downloadScene } from './download';
import { RunState } from './run-state';
import { SaveNote } from './save-note';
import { SceneStore } from './scene.store';

const BAKED =
  'What rigs drive, and motion along paths, stands in the page as keys, at most 0.25 px off: it cannot carry formulas.';

/** What the top bar says of an open scene: its name, whether it is saved, undo and redo, what was found, and the exports. */
@Component({
  selector: 'wx-scene-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, SaveNote, UndoButtons],
  templateUrl: './scene-bar.html',
  styleUrl: './scene-bar.scss',
})
export class SceneBar {
  readonly findingsWanted = output();
  protected readonly store = inject(SceneStore);
  protected readonly run = inject(RunState);
  private readonly teller = inject(Teller);
  protected readonly history = toSignal(this.store.history$, { requireSync: true });
  protected readonly save = toSignal(this.store.save$, { requireSync: true });

  protected exportJson(): void {
    if (this.store.scene) void downloadScene(this.store.scene);
  }

  protected async exportPage(): Promise<void> {
    const { scene } = this.store;
    if (!scene) return;
    await downloadPage(scene);
    const isBaked = scene.runs.some(({ rig, off }) => rig && off !== true) || scene.layers.some(({ path }) => path);
    const told = [...(isBaked ? [BAKED] : []), ...[leftOut(scene)].filter((sentence) => sentence !== null)];
    if (told.length > 0) this.teller.tell(told.join(' '));
  }
}
