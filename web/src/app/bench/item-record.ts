import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { houseText, easingText, type HouseValue, type LibraryDetail, type NamedCurve } from '@wexikine/core';

/** An item's revisions, the scenes that use it, and its history. */
@Component({
  selector: 'wx-item-record',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, RouterLink],
  template: `
    @if (revisions().length > 0) {
      <h2>Revisions</h2>
      <table>
        <tbody>
          @for (revision of revisions(); track revision.revision) {
            <tr>
              <td>
                <b>r{{ revision.revision }}</b>
              </td>
              <td class="mono">{{ revision.text }}</td>
              <td>{{ revision.summary || 'no note' }}</td>
              <td>{{ revision.author }} · {{ revision.when | date: 'd MMM y' }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
    @if (detail().uses.length > 0) {
      <h2>Used in scenes</h2>
      <table>
        <tbody>
          @for (use of detail().uses; track use.scene + use.revision) {
            <tr>
              <td>
                <a [routerLink]="['/scenes', use.scene]">{{ use.sceneName }}</a>
              </td>
              <td>r{{ use.revision }}</td>
              <td>{{ use.layers === 1 ? '1 layer' : use.layers + ' layers' }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
    @if (detail().changes.length > 0) {
      <h2>History</h2>
      <table>
        <tbody>
          @for (change of detail().changes.slice(0, 12); track $index) {
            <tr>
              <td>{{ change.what }}</td>
              <td>{{ change.by }} · {{ change.when | date: 'd MMM, HH:mm' }}</td>
            </tr>
          }
        </tbody>
      </table>
    }
  `,
  styles: `
    :host {
      display: block;
      max-width: 640px;
    }
    h2 {
      margin-top: 18px;
      font: 600 13px/1.8 var(--font-text);
      color: var(--ink-soft);
    }
    table {
      width: 100%;
      border-collapse: collapse;
      font-size: 13px;
    }
    td {
      padding: 3px 14px 3px 0;
      border-bottom: 1px solid var(--line);
      overflow-wrap: anywhere;
    }
    td:last-child {
      text-align: right;
      color: var(--ink-soft);
      white-space: nowrap;
      padding-right: 0;
    }
  `,
})
export class ItemRecordView {
  readonly detail = input.required<LibraryDetail>();
  protected readonly revisions = computed(() => {
    const { kind, revisions } = this.detail().record;
    return revisions
      .map(({ revision, summary, author, when, body }) => {
        const text =
          kind === 'house'
            ? houseText(body as HouseValue)
            : kind === 'curve'
              ? (easingText((body as NamedCurve).easing) ?? '')
              : '';
        return { revision, summary, author, when, text: text.length > 44 ? `${text.slice(0, 42)}…` : text };
      })
      .reverse();
  });
}
