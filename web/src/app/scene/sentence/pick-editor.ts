import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { pickLayers, type Pick, type PickTerm, type SavedPick, type Scene } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { beginTerm, editorTerms, pickOfTerms, TERM_KINDS, type Term, type TermKind } from './pick-terms';
import { TermEditor } from './term-editor';

/** Who takes part: one condition or several joined by and, or and not; ticked rows; a pick that was kept under a name. */
@Component({
  selector: 'wx-pick-editor',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, TermEditor],
  template: `
    <strong>Which layers</strong>
    @for (term of terms(); track $index; let i = $index) {
      <div class="term" [class.further]="i > 0 && term.join === 'and'">
        <div class="head">
          @if (i > 0) {
            <button
              class="chip join"
              type="button"
              title="Change between and, or; and binds closer"
              (click)="flipJoin(i)"
            >
              {{ term.join }}
            </button>
          }
          <button
            class="chip"
            type="button"
            [class.on]="term.isNot"
            [attr.aria-pressed]="term.isNot"
            (click)="flipNot(i)"
          >
            not
          </button>
          <select class="text-field" aria-label="Condition" (change)="setKind(i, $event)">
            @for (kind of kinds; track kind.value) {
              <option [value]="kind.value" [selected]="kind.value === term.is.by">{{ kind.label }}</option>
            }
          </select>
          @if (terms().length > 1) {
            <button class="icon-button" type="button" aria-label="Remove this condition" (click)="remove(i)">
              <wx-icon name="close" />
            </button>
          }
        </div>
        <wx-term-editor [term]="term.is" [scene]="scene()" (changed)="setTerm(i, $event)" />
      </div>
    }
    <div class="foot">
      <button class="wx-button" type="button" (click)="add()"><wx-icon name="add" />Another condition</button>
      <span class="space"></span>
      @if (isNaming()) {
        <input
          #name
          class="text-field"
          aria-label="Name of this pick"
          placeholder="Name"
          maxlength="200"
          (keydown.enter)="keep(name.value)"
        />
        <button class="wx-button" type="button" (click)="keep(name.value)">Keep</button>
      } @else {
        <button class="wx-button quiet" type="button" (click)="isNaming.set(true)">
          <wx-icon name="bookmark" />Keep as …
        </button>
      }
    </div>
    @if (saved().length > 0) {
      <div class="field-label" role="group" aria-label="Kept picks">
        Kept with this scene
        <div class="chips">
          @for (entry of saved(); track entry.id) {
            <span class="kept">
              <button
                class="chip"
                type="button"
                [class.on]="isSaved(entry.id)"
                [attr.aria-pressed]="isSaved(entry.id)"
                (click)="changed.emit({ by: 'saved', pick: entry.id })"
              >
                {{ entry.name }}
              </button>
              <button
                class="icon-button"
                type="button"
                [attr.aria-label]="'Forget ' + entry.name"
                (click)="forgotten.emit(entry.id)"
              >
                <wx-icon name="close" />
              </button>
            </span>
          }
        </div>
      </div>
    }
    <p class="quiet-text">{{ summary() }}</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      width: 340px;
    }
    .term {
      display: grid;
      gap: 8px;
      padding-bottom: 10px;
      border-bottom: 1px solid var(--line);
    }
    .further {
      padding-left: 14px;
    }
    .head,
    .foot,
    .chips,
    .kept {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    .chips {
      flex-wrap: wrap;
      font-weight: 400;
    }
    .kept {
      gap: 0;
    }
    .head select {
      flex: 1;
    }
    .space {
      flex: 1;
    }
    .foot input {
      width: 110px;
    }
  `,
})
export class PickEditor {
  readonly scene = input.required<Scene>();
  readonly pick = input.required<Pick>();
  readonly count = input.required<number>();
  readonly changed = output<Pick>();
  readonly kept = output<SavedPick>();
  readonly forgotten = output<string>();

  protected readonly kinds = TERM_KINDS;
  protected readonly isNaming = signal(false);
  protected readonly terms = computed(() => editorTerms(this.pick()));
  protected readonly saved = computed(() => this.scene().picks ?? []);

  protected readonly summary = computed(() => {
    const caught = pickLayers(this.scene(), this.pick()).length;
    const out = caught - this.count();
    const taking = this.count() === 1 ? '1 layer takes part.' : `${this.count()} layers take part.`;
    const skipped = out > 0 ? ` ${out} locked, hidden or guides stay out.` : '';
    return this.pick().by === 'layers' ? `Ticked in the run sheet: ${taking}${skipped}` : taking + skipped;
  });

  protected isSaved(id: string): boolean {
    const pick = this.pick();
    return pick.by === 'saved' && pick.pick === id;
  }

  protected setTerm(index: number, is: PickTerm): void {
    this.change(index, { is });
  }

  protected setKind(index: number, event: Event): void {
    this.setTerm(index, beginTerm((event.target as HTMLSelectElement).value as TermKind, this.scene(), this.pick()));
  }

  protected flipNot(index: number): void {
    this.change(index, { isNot: !this.terms()[index].isNot });
  }

  protected flipJoin(index: number): void {
    this.change(index, { join: this.terms()[index].join === 'and' ? 'or' : 'and' });
  }

  protected add(): void {
    const terms = this.terms();
    const join = terms.length > 1 ? terms[terms.length - 1].join : 'and';
    this.give([...terms, { join, isNot: false, is: beginTerm('rule', this.scene(), this.pick()) }]);
  }

  protected remove(index: number): void {
    this.give(this.terms().toSpliced(index, 1));
  }

  protected keep(name: string): void {
    if (name.trim() === '') return;
    this.isNaming.set(false);
    this.kept.emit({ id: `pick-${crypto.randomUUID().slice(0, 8)}`, name: name.trim(), pick: this.pick() });
  }

  private change(index: number, fields: Partial<Term>): void {
    this.give(this.terms().with(index, { ...this.terms()[index], ...fields }));
  }

  private give(terms: readonly Term[]): void {
    this.changed.emit(pickOfTerms(terms));
  }
}
