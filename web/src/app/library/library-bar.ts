import { ChangeDetectionStrategy, Component, inject, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { HOUSE_TYPES, PHASES } from '@wexikine/core';
import { Icon } from '../icons/icon';
import { LibraryActions } from './library-actions.service';

/** What can be done with the library as a whole: things come in and go out, and new ones are begun. */
@Component({
  selector: 'wx-library-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  templateUrl: './library-bar.html',
  styles: `
    :host {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      padding-right: 8px;
    }
  `,
})
export class LibraryBar {
  readonly imported = output();
  readonly tokensExported = output();
  protected readonly actions = inject(LibraryActions);
  protected readonly phaseChoices = PHASES;
  protected readonly houseTypes = HOUSE_TYPES;
}
