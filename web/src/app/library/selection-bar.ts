import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Icon } from '../icons/icon';
import { LabelDialog, type LabelAnswer, type LabelQuestion } from './dialogs/label-dialog';
import { LibraryActions } from './library-actions.service';
import { LibraryService } from './library.service';
import type { LibraryRow } from './rows';

/** What can be done with all the items that are ticked. */
@Component({
  selector: 'wx-selection-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  template: `
    <div role="toolbar" aria-label="With the selected items">
      <strong>{{ rows().length === 1 ? '1 item' : rows().length + ' items' }}</strong>
      <button class="wx-button" type="button" (click)="ask('tags')"><wx-icon name="sell" />Tag</button>
      <button class="wx-button" type="button" (click)="ask('collection')"><wx-icon name="folder" />Move</button>
      @if (isRetired()) {
        <button class="wx-button" type="button" (click)="retire(false)"><wx-icon name="unarchive" />Bring back</button>
      } @else {
        <button
          class="wx-button"
          type="button"
          [disabled]="retirable().length === 0"
          [title]="retirable().length === 0 ? 'Drafts cannot retire' : ''"
          (click)="retire(true)"
        >
          <wx-icon name="archive" />Retire
        </button>
      }
      <button class="wx-button" type="button" (click)="export()"><wx-icon name="download" />Export</button>
      <span class="space"></span>
      @if (rows().length < shown()) {
        <button class="wx-button quiet" type="button" (click)="all.emit()">Select all {{ shown() }}</button>
      }
      <button class="icon-button" type="button" aria-label="Select none" title="Select none" (click)="none.emit()">
        <wx-icon name="close" />
      </button>
    </div>
  `,
  styles: `
    div {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      padding: 8px 8px 8px 16px;
      border: 1px solid var(--line);
      border-radius: 12px;
      background: var(--paper-high);
      box-shadow: var(--shadow);
    }
    strong {
      margin-right: 6px;
    }
    .space {
      flex: 1;
    }
  `,
})
export class SelectionBar {
  readonly rows = input.required<readonly LibraryRow[]>();
  /** How many items the library shows. */
  readonly shown = input.required<number>();
  readonly all = output();
  readonly none = output();

  private readonly actions = inject(LibraryActions);
  private readonly library = inject(LibraryService);
  private readonly dialog = inject(MatDialog);
  private readonly items = computed(() => this.rows().map(({ item }) => item));
  protected readonly isRetired = computed(() => this.items().every(({ state }) => state === 'retired'));
  protected readonly retirable = computed(() => this.items().filter(({ state }) => state === 'published'));

  protected async retire(retired: boolean): Promise<void> {
    if (await this.actions.retire(retired ? this.retirable() : this.items(), retired)) this.none.emit();
  }

  protected async export(): Promise<void> {
    await this.actions.exportPack(this.items());
  }

  protected ask(what: LabelQuestion['what']): void {
    const entries = this.library.state.entries.map(({ item }) => item);
    const data: LabelQuestion = {
      what,
      items: this.items(),
      tags: [...new Set(entries.flatMap(({ tags }) => tags))].sort(),
      collections: [...new Set(entries.flatMap(({ collection }) => collection ?? []))].sort(),
    };
    this.dialog
      .open<LabelDialog, LabelQuestion, LabelAnswer>(LabelDialog, { data, width: '420px' })
      .afterClosed()
      .subscribe((answer) => {
        if (answer) void this.label(answer);
      });
  }

  private async label(answer: LabelAnswer): Promise<void> {
    const ids = this.items().map(({ id }) => id);
    const what = ids.length === 1 ? `“${this.items()[0].name}”` : `${ids.length} items`;
    const done = answer.collection === undefined ? `${what} tagged.` : `${what} moved.`;
    await this.actions.label({ ids, ...answer }, done);
  }
}
