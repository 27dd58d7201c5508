import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { counted, type LibraryDetail } from '@wexikine/core';
import { usersByUse, type ItemUser } from './item-users';

/** Where an item is used, its revisions, and what was done with it. */
@Component({
  selector: 'wx-drawer-record',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink],
  templateUrl: './drawer-record.html',
  styleUrl: './drawer-record.scss',
})
export class DrawerRecord {
  /** Null while it loads. */
  readonly detail = input.required<LibraryDetail | null>();
  readonly users = input.required<readonly ItemUser[]>();
  protected readonly groups = computed(() => usersByUse(this.users()));
  protected readonly counted = counted;
  protected readonly revisions = computed(() => [...(this.detail()?.record.revisions ?? [])].reverse());
}
