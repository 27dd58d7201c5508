import { Injectable, inject } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { TitleStrategy, type RouterStateSnapshot } from '@angular/router';

/** Every route's title with the application's name behind it. */
@Injectable({ providedIn: 'root' })
export class PageTitles extends TitleStrategy {
  private readonly title = inject(Title);

  override updateTitle(state: RouterStateSnapshot): void {
    const own = this.buildTitle(state);
    this.title.setTitle(own === undefined ? 'Wexikine' : `${own} · Wexikine`);
  }
}
