import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

/** What an unknown address shows. */
@Component({
  selector: 'wx-not-found-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <main>
      <h1>There is nothing at this address</h1>
      <p>The link may be old, or mistyped.</p>
      <a class="wx-button main" routerLink="/scenes">Go to the scenes</a>
    </main>
  `,
  styles: `
    main {
      display: grid;
      gap: 12px;
      justify-items: start;
      padding: 64px;
    }
  `,
})
export class NotFoundPage {}
