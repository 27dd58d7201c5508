import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  createShelf,
  formatEasing,
  type CurveItem,
  type Easing,
  type LibraryDetail,
  type LibraryItem,
  type NamedCurve,
} from '@wexikine/core';
import { Icon } from '../icons/icon';
import { ItemPicture } from '../library/item-picture';
import { LibraryActions } from '../library/library-actions.service';
import { LibraryService } from '../library/library.service';
import { EasingEditor } from '../fields/easing/easing-editor';
import { EffectsList } from './effects-list';
import { ItemRecordView } from './item-record';

/** A named curve on the bench: its editor, how it moves, and what would change with it. */
@Component({
  selector: 'wx-curve-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [EasingEditor, EffectsList, Icon, ItemPicture, ItemRecordView],
  template: `
    <div class="editor">
      <wx-easing-editor
        [ease]="item().body.easing"
        [behind]="published()"
        [shelf]="shelf()"
        [canRefer]="false"
        (changed)="give($event)"
      />
      <wx-item-record [detail]="detail()" />
    </div>
    <aside>
      <wx-item-picture [item]="item()" [playing]="true" />
      <section>
        <h2>As CSS</h2>
        <div class="css">
          <code tabindex="0" aria-label="CSS text">{{ css() }}</code>
          <button class="icon-button" type="button" aria-label="Copy as CSS" title="Copy as CSS" (click)="copy()">
            <wx-icon name="content_copy" />
          </button>
        </div>
      </section>
      <wx-effects-list [item]="item()" />
    </aside>
  `,
  styleUrl: './value-bench.scss',
})
export class CurveBench {
  readonly item = input.required<CurveItem>();
  readonly detail = input.required<LibraryDetail>();
  readonly revisions = input.required<readonly LibraryItem[]>();
  readonly changed = output<NamedCurve>();

  private readonly actions = inject(LibraryActions);
  protected readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly css = computed(() => formatEasing(this.item().body.easing) ?? '');
  protected readonly published = computed((): Easing | null => {
    const [newest] = this.revisions();
    if (newest?.kind !== 'curve') return null;
    const isSame = JSON.stringify(newest.body) === JSON.stringify(this.item().body);
    return isSame ? null : newest.body.easing;
  });

  protected give(easing: unknown): void {
    this.changed.emit({ easing: easing as Easing });
  }

  protected async copy(): Promise<void> {
    await navigator.clipboard.writeText(this.css());
    this.actions.tell('Copied.');
  }
}
