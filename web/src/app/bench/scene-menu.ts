import { ChangeDetectionStrategy, Component, inject, output, signal, viewChild } from '@angular/core';
import { MatMenu, MatMenuModule } from '@angular/material/menu';
import type { SceneSummary } from '@wexikine/core';
import { ApiService } from '../api/api.service';
import { LibraryActions } from '../library/library-actions.service';

/** A menu of all scenes, asked for anew whenever it is opened. */
@Component({
  selector: 'wx-scene-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatMenuModule],
  template: `
    <mat-menu>
      @for (scene of scenes(); track scene.id) {
        <button mat-menu-item (click)="chosen.emit(scene)">{{ scene.name }}</button>
      } @empty {
        <button mat-menu-item disabled>No scenes</button>
      }
    </mat-menu>
  `,
})
export class SceneMenu {
  readonly chosen = output<SceneSummary>();
  /** For what opens it, which asks for the scenes as it does. */
  readonly menu = viewChild.required(MatMenu);
  private readonly api = inject(ApiService);
  private readonly actions = inject(LibraryActions);
  protected readonly scenes = signal<readonly SceneSummary[]>([]);

  load(): void {
    void this.actions.ask(this.api.scenes()).then((scenes) => this.scenes.set(scenes ?? []));
  }
}
