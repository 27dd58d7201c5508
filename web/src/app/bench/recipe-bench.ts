import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { SceneSummary } from '@wexikine/core';
import { SceneMenu } from './scene-menu';

/** What a recipe says; it is changed where it can be seen, in a scene. */
@Component({
  selector: 'wx-recipe-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatMenuModule, SceneMenu],
  template: `
    <p>{{ words() }}</p>
    <p class="quiet-text">
      To change what it says, use it in a scene, change the sentence there, and save it as a new revision of this
      recipe. Its name and note are changed here.
    </p>
    <button class="wx-button" type="button" [matMenuTriggerFor]="scenes.menu()" (menuOpened)="scenes.load()">
      Use in a scene
    </button>
    <wx-scene-menu #scenes (chosen)="sceneChosen.emit($event)" />
  `,
  styles: `
    :host {
      display: grid;
      justify-items: start;
      align-content: start;
      gap: 16px;
      padding: 32px;
      max-width: 820px;
    }

    p:first-child {
      font: 600 20px/1.6 var(--font-head);
    }
  `,
  host: { role: 'region', 'aria-label': 'What it says' },
})
export class RecipeBench {
  readonly words = input.required<string>();
  readonly sceneChosen = output<SceneSummary>();
}
