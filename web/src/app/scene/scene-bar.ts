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

  protected async exportJson(): Promise<void> {
    const { scene } = this.store;
    if (scene) await this.write('The scene file', () => downloadScene(scene));
  }

  protected async exportPage(): Promise<void> {
    const { scene } = this.store;
    if (!scene) return;
    const isBaked = scene.runs.some(({ rig, off }) => rig && off !== true) || scene.layers.some(({ path }) => path);
    const about = [isBaked ? BAKED : null, leftOut(scene)];
    await this.write('The page', () => downloadPage(scene), about);
  }

  /** Writes a file, and says why it was not written, or what it lacks and what else is to be known of it. */
  private async write(what: string, write: () => Promise<number>, about: readonly (string | null)[] = []) {
    try {
      const told = [lacks(what, await write()), ...about].filter((sentence) => sentence !== null);
      if (told.length > 0) this.teller.tell(told.join(' '));
    } catch (error) {
      const reason = error instanceof Error ? error.message : 'a file cannot be read';
      this.teller.tell(`${what} was not written: ${reason}. Export again in a moment.`);
    }
  }
}

/** What an exported file lacks. */
function lacks(what: string, gone: number): string | null {
  if (gone === 0) return null;
  return gone === 1
    ? `${what} lacks a file that the scene uses: it is no longer on the server.`
    : `${what} lacks ${gone} files that the scene uses: they are no longer on the server.`;
}
