import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Step } from '../history';

/** The named steps of this session: done ones, and undone ones that can be done again. */
@Component({
  selector: 'wx-history-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (step of done(); track $index; let last = $last) {
        <li [class.now]="last">
          <span>{{ step.label }}</span>
          @if (last) {
            <button class="wx-button" type="button" (click)="undo.emit()">Undo</button>
          }
        </li>
      }
      @for (step of undoneNext(); track $index; let first = $first) {
        <li class="undone">
          <span>{{ step.label }}</span>
          @if (first) {
            <button class="wx-button" type="button" (click)="redo.emit()">Redo</button>
          }
        </li>
      }
    </ol>
    @if (done().length === 0 && undone().length === 0) {
      <p>Nothing was changed since this scene was opened. Each step will be named here.</p>
    }
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
      overflow: auto;
      padding: 6px 14px;
    }
    ol {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      gap: 12px;
      align-items: center;
      padding: 6px 0;
      border-bottom: 1px solid var(--line);
    }
    li span {
      flex: 1;
    }
    .now {
      font-weight: 600;
    }
    .undone,
    p {
      color: var(--ink-soft);
    }
    .undone span {
      font-style: italic;
    }
    p {
      padding: 12px 0;
    }
  `,
})
export class HistoryPanel {
  readonly done = input.required<readonly Step[]>();
  readonly undone = input.required<readonly Step[]>();
  readonly undo = output();
  readonly redo = output();

  protected undoneNext(): readonly Step[] {
    return this.undone().toReversed();
  }
}
