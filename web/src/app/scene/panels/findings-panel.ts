import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { describeFinding, layersOfFinding, severityOf, type Finding, type Scene, type Severity } from '@wexikine/core';
import { Icon } from '../../icons/icon';

export interface Place {
  readonly layer: string | null;
  readonly time: number | null;
}

const ICONS: Readonly<Record<Severity, string>> = { error: 'error', warning: 'warning', note: 'info' };

/** What the checks found in the dry run; a click goes to the layer and the time. */
@Component({
  selector: 'wx-findings-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  template: `
    <ul>
      @for (row of rows(); track $index) {
        <li [class]="row.severity">
          <wx-icon [name]="row.icon" />
          <span
            ><span class="visually-hidden">{{ row.severity }}: </span>{{ row.text }}</span
          >
          @if (row.place.layer !== null || row.place.time !== null) {
            <button class="wx-button" type="button" (click)="goTo.emit(row.place)">Go there</button>
          }
        </li>
      } @empty {
        <li class="note">
          <wx-icon name="check_circle" /><span>Nothing was found. The dry run fits its layers and the scene.</span>
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      height: 100%;
      overflow: auto;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 6px 14px;
    }
    li {
      display: flex;
      align-items: center;
      gap: 10px;
      padding: 7px 0;
      border-bottom: 1px solid var(--line);
    }
    li span {
      flex: 1;
    }
    wx-icon {
      font-size: 20px;
      color: var(--ink-soft);
    }
    .warning wx-icon {
      color: var(--saffron-text);
    }
    .error wx-icon {
      color: var(--rose);
    }
  `,
})
export class FindingsPanel {
  readonly findings = input.required<readonly Finding[]>();
  readonly scene = input.required<Scene>();
  readonly goTo = output<Place>();

  protected readonly rows = computed(() =>
    this.findings().map((finding) => {
      const severity = severityOf(finding);
      const place: Place = { layer: layersOfFinding(finding)[0] ?? null, time: 'at' in finding ? finding.at : null };
      return { severity, icon: ICONS[severity], text: describeFinding(finding, this.scene()), place };
    }),
  );
}
