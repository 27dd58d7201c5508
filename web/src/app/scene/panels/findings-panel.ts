import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  describeFinding,
  layersOfFinding,
  mendsOf,
  severityOf,
  type Finding,
  type Mend,
  type Recipe,
  type Scene,
  type Severity,
} from '@wexikine/core';
import { Icon } from '../../icons/icon';

/** Where a finding leads: a layer and a time. */
export interface Place {
  readonly layer: string | null;
  readonly time: number | null;
}

const ICONS: Readonly<Record<Severity, string>> = { error: 'error', warning: 'warning', note: 'info' };
const ORDER: readonly Severity[] = ['error', 'warning', 'note'];

/** What the checks found, in the dry run or in the scene; a click goes to the layer and the time, or mends it. */
@Component({
  selector: 'wx-findings-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  template: `
    <p class="about">{{ isDryRun() ? 'In the dry run' : 'In the scene as it stands' }}</p>
    <ul>
      @for (row of rows(); track $index) {
        <li [class]="row.severity">
          <wx-icon [name]="row.icon" />
          <span
            ><span class="visually-hidden">{{ row.severity }}: </span>{{ row.text }}</span
          >
          @for (mend of row.mends; track mend.label) {
            <button class="wx-button" type="button" (click)="mended.emit(mend)">{{ mend.label }}</button>
          }
          @if (row.run; as run) {
            <button class="wx-button" type="button" (click)="updateWanted.emit(run)">Look at it</button>
          }
          @if (row.place.layer !== null || row.place.time !== null) {
            <button class="wx-button quiet" type="button" (click)="goTo.emit(row.place)">Go there</button>
          }
        </li>
      } @empty {
        <li class="note">
          <wx-icon name="check_circle" /><span>{{
            isDryRun()
              ? 'Nothing was found. The dry run fits its layers and the scene.'
              : 'Nothing was found in this scene.'
          }}</span>
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
    .about {
      padding: 8px 14px 0;
      font-size: 12px;
      color: var(--ink-soft);
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 2px 14px 6px;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
      padding: 7px 0;
      border-bottom: 1px solid var(--line);
    }
    li > span {
      flex: 1 1 220px;
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
  /** The scene as it is drawn. */
  readonly scene = input.required<Scene>();
  readonly standing = input.required<Scene>();
  /** The recipe of the dry run; null where the scene is shown as it stands. */
  readonly recipe = input.required<Recipe | null>();
  /** Ids of the layers of the dry run in their order. */
  readonly taking = input<readonly string[]>([]);
  readonly goTo = output<Place>();
  readonly mended = output<Mend>();
  /** Id of a run whose update is to be looked at. */
  readonly updateWanted = output<string>();

  protected readonly isDryRun = computed(() => this.recipe() !== null);

  protected readonly rows = computed(() =>
    this.findings()
      .map((finding) => {
        const severity = severityOf(finding);
        const place: Place = { layer: layersOfFinding(finding)[0] ?? null, time: 'at' in finding ? finding.at : null };
        return {
          severity,
          icon: ICONS[severity],
          text: describeFinding(finding, this.scene()),
          place: finding.code === 'no-cues' ? { layer: null, time: null } : place,
          mends: mendsOf(finding, this.recipe(), this.standing(), this.scene(), this.taking()),
          run: finding.code === 'update-waiting' ? finding.run : null,
        };
      })
      .sort((a, b) => ORDER.indexOf(a.severity) - ORDER.indexOf(b.severity)),
  );
}
