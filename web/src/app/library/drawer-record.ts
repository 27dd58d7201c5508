import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { LibraryDetail, LibraryItem, Reference } from '@wexikine/core';
import { counted } from './counted';

/** An item that takes something from another one, and where. */
export interface ItemUser {
  readonly item: LibraryItem;
  readonly uses: readonly Reference[];
}

/** Where an item is used, its revisions, and what was done with it. */
@Component({
  selector: 'wx-drawer-record',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink],
  templateUrl: './drawer-record.html',
  styleUrl: './drawer-record.scss',
})
export class DrawerRecord {
  readonly kind = input.required<LibraryItem['kind']>();
  /** Null while it loads. */
  readonly detail = input.required<LibraryDetail | null>();
  readonly users = input.required<readonly ItemUser[]>();
  protected readonly counted = counted;
  protected readonly revisions = computed(() => [...(this.detail()?.record.revisions ?? [])].reverse());
}
