import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { Icon } from './icons/icon';
import { PersonButton } from './person-button';
import { TopBar } from './top-bar';
import { ThemeService } from './theme/theme.service';
import { NgTemplateOutlet } from '@angular/common';

/** The frame around every screen: name, places, what the screen puts beside them, theme and shortcuts. */
@Component({
  selector: 'wx-app',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterOutlet, RouterLink, RouterLinkActive, Icon, NgTemplateOutlet, PersonButton],
  templateUrl: './app.html',
  styleUrl: './app.scss',
})
export class App {
  private readonly themes = inject(ThemeService);
  protected readonly theme = toSignal(this.themes.theme$, { requireSync: true });
  protected readonly topBar = inject(TopBar);

  protected toggleTheme(): void {
    this.themes.toggle();
  }
}
