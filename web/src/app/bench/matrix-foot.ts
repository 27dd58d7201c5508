import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { inFamilies } from '../fields/in-families';
import { Icon } from '../icons/icon';
import type { RowChoice } from './row-head';

/** What can be added to the matrix: a channel, a moment, or what a layer does. */
@Component({
  selector: 'wx-matrix-foot',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  template: `
    <button
      type="button"
      [matMenuTriggerFor]="channelMenu"
      [matMenuTriggerRestoreFocus]="false"
      [disabled]="choices().length === 0"
      (menuClosed)="closed.emit()"
    >
      <wx-icon name="add" />channel
    </button>
    <button type="button" (click)="momentAdded.emit()"><wx-icon name="add" />moment</button>
    <button type="button" (click)="record.emit()"><wx-icon name="radio_button_checked" />record from a layer</button>
    <mat-menu #channelMenu="matMenu" class="dense channels">
      @for (family of families(); track family.family) {
        <div role="group" [attr.aria-label]="family.family">
          <strong class="menu-heading" aria-hidden="true">{{ family.family }}</strong>
          @for (choice of family.items; track choice.label) {
            <button mat-menu-item (click)="channelAdded.emit(choice)">{{ choice.label }}</button>
          }
        </div>
      }
    </mat-menu>
  `,
  styleUrl: './matrix-foot.scss',
})
export class MatrixFoot {
  /** Channels that have no row yet. */
  readonly choices = input.required<readonly RowChoice[]>();
  readonly channelAdded = output<RowChoice>();
  readonly momentAdded = output();
  readonly record = output();
  /** The menu of channels was closed, with or without a choice. */
  readonly closed = output();

  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly families = computed(() => inFamilies(this.choices(), ({ channels }) => channels[0]));

  /** Gives the focus back to the button of the channels. */
  focus(): void {
    this.element.querySelector('button')?.focus();
  }
}
