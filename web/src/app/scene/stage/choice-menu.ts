import { ChangeDetectionStrategy, Component, input, output, viewChild } from '@angular/core';
import { MatMenu, MatMenuModule } from '@angular/material/menu';
import { Icon } from '../../icons/icon';

/** One of what a menu offers; the value null switches it off. */
export interface MenuChoice<T> {
  readonly value: T | null;
  readonly label: string;
}

/** A menu in which one thing is chosen and has a tick. */
@Component({
  selector: 'wx-choice-menu',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  template: `
    <mat-menu class="dense">
      @for (one of choices(); track one.value) {
        <button
          mat-menu-item
          role="menuitemradio"
          [attr.aria-checked]="one.value === value()"
          (click)="chosen.emit(one.value)"
        >
          <wx-icon [name]="one.value === value() ? 'check' : icon()" />{{ one.label }}
        </button>
      }
    </mat-menu>
  `,
})
export class ChoiceMenu<T extends string | number> {
  readonly choices = input.required<readonly MenuChoice<T>[]>();
  readonly value = input.required<T | null>();
  /** The picture beside what is not chosen. */
  readonly icon = input.required<string>();
  readonly chosen = output<T | null>();
  /** For what opens it. */
  readonly menu = viewChild.required(MatMenu);
}
