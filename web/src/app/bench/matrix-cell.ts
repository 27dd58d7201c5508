import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Completion } from './completions';
import { FormulaEditor, type EditEnd } from './formula-editor';
import { FormulaText } from './formula-text';
import type { Place } from './matrix-cells';

/** A cell of the matrix: its formula, what it comes to or why it does not, and the editor while it is typed in. */
@Component({
  selector: 'wx-matrix-cell',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FormulaEditor, FormulaText],
  template: `
    @if (isEditing()) {
      <wx-formula-editor
        [text]="typed() ?? text() ?? ''"
        [label]="label()"
        [completions]="completions()"
        (changed)="written.emit($event)"
        (ended)="ended.emit($event)"
      />
    } @else if (text(); as formula) {
      <wx-formula-text [text]="formula" />
    }
    @if (problem(); as told) {
      <small class="problem" role="alert">{{ told }}</small>
    } @else if (resolved(); as value) {
      <small>{{ value }}</small>
    }
  `,
  styleUrl: './matrix-cell.scss',
  host: {
    role: 'gridcell',
    '[attr.data-cell]': 'place().row + "/" + place().column',
    '[attr.tabindex]': 'isCurrent() && !isEditing() ? 0 : -1',
    '[attr.aria-label]': 'isEditing() ? null : label() + ": " + (text() || "empty")',
    '[class.editing]': 'isEditing()',
    '[class.wrong]': 'problem() !== null',
  },
})
export class MatrixCell {
  readonly place = input.required<Place>();
  /** What it is, such as “opacity at Rest”. */
  readonly label = input.required<string>();
  /** Its formula; null where there is none. */
  readonly text = input.required<string | null>();
  /** What the formula comes to. */
  readonly resolved = input<string | null>(null);
  /** Why the formula comes to nothing, as a sentence. */
  readonly problem = input<string | null>(null);
  /** Text with which typing over what stood began. */
  readonly typed = input<string | null>(null);
  readonly completions = input.required<readonly Completion[]>();
  readonly isCurrent = input.required<boolean>();
  readonly isEditing = input.required<boolean>();
  readonly written = output<string>();
  readonly ended = output<EditEnd>();
}
