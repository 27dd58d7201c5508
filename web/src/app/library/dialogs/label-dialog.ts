import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { collectionSchema, tagSchema, type LabelItems, type LibraryItem } from '@wexikine/core';
import { Icon } from '../../icons/icon';

/** The items whose labels are to change. */
export interface LabelQuestion {
  readonly what: 'tags' | 'collection';
  readonly items: readonly LibraryItem[];
  /** Tags and collections that the library has already. */
  readonly tags: readonly string[];
  readonly collections: readonly string[];
}

/** The labels that were chosen. */
export type LabelAnswer = Pick<LabelItems, 'addTags' | 'removeTags' | 'collection'>;

/** Tags for several items, or the collection they go to. */
@Component({
  selector: 'wx-label-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatDialogModule],
  template: `
    <h2 mat-dialog-title>{{ isTags ? 'Tag' : 'Move' }} {{ count }}</h2>
    <mat-dialog-content>
      @if (isTags && standing().length > 0) {
        <div class="tags" role="group" aria-label="Tags that they have">
          @for (tag of standing(); track tag) {
            <button
              class="chip"
              type="button"
              [class.gone]="removed().includes(tag)"
              [attr.aria-pressed]="!removed().includes(tag)"
              (click)="toggle(tag)"
            >
              {{ tag }}<wx-icon [name]="removed().includes(tag) ? 'undo' : 'close'" />
            </button>
          }
        </div>
      }
      <label class="field-label">
        {{ isTags ? 'New tags, with commas between' : 'Collection' }}
        <input
          class="text-field"
          cdkFocusInitial
          [attr.list]="isTags ? 'known-tags' : 'known-collections'"
          [value]="text()"
          (input)="text.set($any($event.target).value)"
          (keydown.enter)="done()"
        />
      </label>
      <datalist id="known-tags">
        @for (tag of question.tags; track tag) {
          <option [value]="tag"></option>
        }
      </datalist>
      <datalist id="known-collections">
        @for (name of question.collections; track name) {
          <option [value]="name"></option>
        }
      </datalist>
      @if (problem(); as sentence) {
        <p class="problem" role="alert">{{ sentence }}</p>
      } @else {
        <p class="quiet-text">
          {{
            isTags
              ? 'Tags are found by the search.'
              : 'A name that is not there yet makes a new collection. Leave it empty to take them out.'
          }}
        </p>
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" [disabled]="answer() === null" (click)="done()">
        {{ isTags ? 'Tag' : 'Move' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 12px;
    }
    .tags {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    .gone {
      text-decoration: line-through;
      color: var(--ink-soft);
    }
  `,
})
export class LabelDialog {
  protected readonly question = inject<LabelQuestion>(MAT_DIALOG_DATA);
  private readonly reference = inject(MatDialogRef<LabelDialog, LabelAnswer>);
  protected readonly isTags = this.question.what === 'tags';
  protected readonly count =
    this.question.items.length === 1 ? `“${this.question.items[0].name}”` : `${this.question.items.length} items`;
  protected readonly text = signal(this.isTags ? '' : this.commonCollection());
  protected readonly removed = signal<readonly string[]>([]);
  protected readonly standing = signal(
    [...new Set(this.question.items.flatMap(({ tags }) => tags))].sort(),
  ).asReadonly();

  private readonly words = computed(() =>
    this.text()
      .split(',')
      .map((word) => word.trim())
      .filter((word) => word !== ''),
  );

  protected readonly problem = computed(() => {
    if (!this.isTags) {
      const parsed = collectionSchema.safeParse(this.text().trim() || null);
      return parsed.success ? null : parsed.error.issues[0].message;
    }
    const wrong = this.words()
      .map((word) => tagSchema.safeParse(word))
      .find(({ success }) => !success);
    return wrong?.error?.issues[0].message ?? null;
  });

  protected readonly answer = computed((): LabelAnswer | null => {
    if (this.problem() !== null) return null;
    if (!this.isTags) return { collection: this.text().trim() || null };
    if (this.words().length === 0 && this.removed().length === 0) return null;
    return { addTags: this.words(), removeTags: [...this.removed()] };
  });

  protected toggle(tag: string): void {
    this.removed.update((removed) =>
      removed.includes(tag) ? removed.filter((other) => other !== tag) : [...removed, tag],
    );
  }

  protected done(): void {
    const answer = this.answer();
    if (answer) this.reference.close(answer);
  }

  private commonCollection(): string {
    const [first] = this.question.items;
    return this.question.items.every(({ collection }) => collection === first.collection)
      ? (first.collection ?? '')
      : '';
  }
}
