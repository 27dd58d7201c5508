import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import {
  compareItems,
  createShelf,
  describePackProblem,
  formulaProblem,
  referencesOf,
  type ItemUse,
  type LibraryItem,
} from '@wexikine/core';
import { LibraryService } from '../../library/library.service';
import { DifferencesList } from '../differences-list';
import { effectsOf } from '../effects';

/** What is about to be published. */
export interface PublishQuestion {
  readonly item: LibraryItem;
  readonly published: LibraryItem | null;
  readonly uses: readonly ItemUse[];
}

/** What publishing would change, here and in everything that takes from the item; then a line for the record. */
@Component({
  selector: 'wx-publish-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DifferencesList, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Publish r{{ revision }} of “{{ question.item.name }}”</h2>
    <mat-dialog-content>
      @if (wrong(); as text) {
        <p class="problem" role="alert">It cannot be published yet. {{ text }}</p>
      }
      @if (question.published) {
        <section>
          <h3>Against r{{ question.published.revision }}</h3>
          <wx-differences-list [differences]="differences()" />
        </section>
      }
      @if (effects().length > 0) {
        <section>
          <h3>What takes from it, and would change</h3>
          <table>
            <tbody>
              @for (effect of effects(); track effect.id) {
                <tr>
                  <td>{{ effect.name }}</td>
                  <td>{{ effect.where }}</td>
                  <td class="mono">{{ effect.words }}</td>
                </tr>
              }
            </tbody>
          </table>
        </section>
      } @else if (isTaken()) {
        <p class="quiet-text">What takes from it comes out the same.</p>
      }
      @if (question.uses.length > 0) {
        <p class="quiet-text">{{ usesWords() }} Keys that were made stay as they are until their run is run again.</p>
      }
      <label class="field-label"
        >What changed, for those who use it
        <input
          class="text-field"
          maxlength="500"
          cdkFocusInitial
          [value]="summary()"
          [placeholder]="question.published ? 'smaller default rise; tilt can alternate' : 'First published.'"
          (input)="summary.set($any($event.target).value)"
          (keydown.enter)="done()"
        />
      </label>
      <p class="quiet-text">A published revision never changes. The next change begins a new draft.</p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button class="wx-button quiet" type="button" mat-dialog-close>Cancel</button>
      <button class="wx-button main" type="button" [disabled]="wrong() !== null" (click)="done()">Publish</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 14px;
    }
    section {
      max-height: 200px;
      overflow: auto;
    }
    h3 {
      font: 600 12px/1.6 var(--font-text);
      color: var(--ink-soft);
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 13px;
    }
    td {
      padding: 2px 10px 2px 0;
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class PublishDialog {
  protected readonly question = inject<PublishQuestion>(MAT_DIALOG_DATA);
  private readonly reference = inject(MatDialogRef<PublishDialog, string>);
  private readonly library = inject(LibraryService);
  private readonly shelf = toSignal(this.library.shelf$, { initialValue: createShelf([]) });
  protected readonly revision = (this.question.published?.revision ?? 0) + 1;
  protected readonly summary = signal('');

  protected readonly differences = computed(() => {
    const { item, published } = this.question;
    return published ? compareItems(published, item, (id) => this.shelf().items.get(id)?.name ?? id) : [];
  });
  /** Why it cannot be published, which the server would say too. */
  protected readonly wrong = computed(() => {
    const [problem] = formulaProblem(this.question.item, this.shelf());
    return problem ? describePackProblem(problem) : null;
  });
  protected readonly effects = computed(() => effectsOf(this.question.item, this.shelf()));
  protected readonly isTaken = computed(() =>
    [...this.shelf().items.values()].some((item) =>
      referencesOf(item).some(({ id, use }) => id === this.question.item.id && use !== 'matches'),
    ),
  );

  protected usesWords(): string {
    const scenes = new Set(this.question.uses.map(({ scene }) => scene)).size;
    const layers = this.question.uses.reduce((sum, use) => sum + use.layers, 0);
    return `Used in ${scenes === 1 ? 'one scene' : `${scenes} scenes`} on ${layers === 1 ? 'one layer' : `${layers} layers`}.`;
  }

  protected done(): void {
    if (this.wrong() !== null) return;
    const text = this.summary().trim();
    this.reference.close(text === '' && this.question.published === null ? 'First published.' : text);
  }
}
