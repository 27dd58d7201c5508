import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';
import { WORDS } from './words';

/** A glossary of the application's words, and the way to everything else that explains it. */
@Component({
  selector: 'wx-help-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  // The page scrolls, so the keyboard must be able to reach it.
  host: { tabindex: '0', role: 'main', 'aria-label': 'Help' },
  template: `
    <div class="page">
      <h1>Help</h1>
      <p class="lead">
        Pick a preset, say on which layers and how far apart, look at the dry run, apply it, and change your mind later.
        In a scene, the <b>?</b> in each field of the sentence shows what it does.
      </p>
      <p class="ways">
        <a class="wx-button" routerLink="/shortcuts">Keyboard shortcuts</a>
        <a class="wx-button" routerLink="/scenes" [queryParams]="{ guide: 'again' }">The guided first batch, again</a>
      </p>
      @for (group of groups; track group.title) {
        <section>
          <h2>{{ group.title }}</h2>
          <dl>
            @for (entry of group.words; track entry.word) {
              <div>
                <dt>{{ entry.word }}</dt>
                <dd>{{ entry.meaning }}</dd>
              </div>
            }
          </dl>
        </section>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
      overflow: auto;
    }
    .page {
      max-width: 1020px;
      margin: 0 auto;
      padding: 28px 24px 60px;
    }
    h1 {
      font: 700 28px/1.2 var(--font-head);
    }
    .lead {
      max-width: 640px;
      margin: 8px 0 16px;
      font-size: 16px;
    }
    .ways {
      display: flex;
      gap: 8px;
      margin-bottom: 24px;
    }
    h2 {
      margin: 22px 0 6px;
      font: 650 18px/1.3 var(--font-head);
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
      gap: 14px 28px;
      margin: 0;
    }
    dt {
      font-weight: 650;
    }
    dd {
      margin: 2px 0 0;
      color: var(--ink-soft);
    }
  `,
})
export class HelpPage {
  protected readonly groups = WORDS;
}
