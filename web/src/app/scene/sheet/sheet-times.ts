import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Layer, Ticks } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { TimeOverview } from './overview';
import type { TimeAxis } from './time-axis';

/** What stands below the run sheet: which stretch of time is shown, and where it lies in the scene. */
@Component({
  selector: 'wx-sheet-times',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, TimeOverview],
  template: `
    <div class="time-tools">
      <button
        class="icon-button"
        type="button"
        aria-label="Show more time"
        title="Show more time (−, or Ctrl and the wheel)"
        [disabled]="axis().isWhole()"
        (click)="axis().zoom(0.5)"
      >
        <wx-icon name="zoom_out" />
      </button>
      <button
        class="icon-button"
        type="button"
        aria-label="Show less time, closer"
        title="Closer (+, or Ctrl and the wheel)"
        (click)="axis().zoom(2)"
      >
        <wx-icon name="zoom_in" />
      </button>
      <button
        class="wx-button quiet"
        type="button"
        title="Fit the run (R)"
        [disabled]="!hasRun()"
        (click)="runWanted.emit()"
      >
        Show the run
      </button>
      <button
        class="wx-button quiet"
        type="button"
        title="The whole scene (Shift+R)"
        [disabled]="axis().isWhole()"
        (click)="axis().show(null)"
      >
        Whole scene
      </button>
    </div>
    <wx-time-overview
      [layers]="layers()"
      [length]="length()"
      [time]="time()"
      [shown]="axis().window()"
      [width]="axis().width()"
      (shownChange)="axis().show($event)"
    />
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: var(--columns);
      align-items: center;
      height: 30px;
      border-top: 1px solid var(--line);
      background: var(--paper-low);

      .time-tools {
        grid-column: 1 / -2;
        display: flex;
        align-items: center;
        padding-left: 6px;
        min-width: 0;
        overflow: hidden;
      }

      .icon-button {
        width: 26px;
        height: 26px;
        font-size: 18px;
      }

      .wx-button {
        min-height: 24px;
        padding: 0 8px;
        font-size: 12px;
        white-space: nowrap;
      }
    }
  `,
})
export class SheetTimes {
  readonly axis = input.required<TimeAxis>();
  /** The layers of the rows. */
  readonly layers = input.required<readonly Layer[]>();
  readonly length = input.required<Ticks>();
  readonly time = input.required<Ticks>();
  readonly hasRun = input.required<boolean>();
  readonly runWanted = output();
}
