import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Difference } from '@wexikine/core';

/** What differs between two revisions, in words. */
@Component({
  selector: 'wx-differences-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (difference of differences(); track $index) {
        <li>
          <span>{{ difference.what }}</span>
          @if (difference.before === null) {
            <ins>{{ difference.after }}</ins> <i>new</i>
          } @else if (difference.after === null) {
            <del>{{ difference.before }}</del> <i>gone</i>
          } @else {
            <del>{{ difference.before }}</del> → <ins>{{ difference.after }}</ins>
          }
        </li>
      } @empty {
        <li class="quiet-text">There is no difference.</li>
      }
    </ul>
  `,
  styles: `
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      display: grid;
      gap: 4px;
      font-size: 13px;
    }
    span {
      color: var(--ink-soft);
      margin-right: 6px;
    }
    del,
    ins {
      font-family: var(--font-mono);
      font-size: 12px;
      overflow-wrap: anywhere;
    }
    del {
      color: var(--ink-faint);
    }
    ins {
      text-decoration: none;
      font-weight: 600;
    }
    i {
      font-size: 12px;
      color: var(--saffron-text);
    }
  `,
})
export class DifferencesList {
  readonly differences = input.required<readonly Difference[]>();
}
