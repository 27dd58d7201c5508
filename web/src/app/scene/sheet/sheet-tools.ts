import { ChangeDetectionStrategy, Component, input, model, output } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import type { Parameter } from '@wexikine/core';
import { Icon } from '../../icons/icon';
import { ViewSwitch, type SheetView } from './view-switch';

/** Which rows are shown: those that take part, or all. */
export type SheetScope = 'taking' | 'all';

/** What stands above the run sheet: other views, which rows and columns are shown, what the marks mean, and what can be added. */
@Component({
  selector: 'wx-sheet-tools',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, ViewSwitch],
  templateUrl: './sheet-tools.html',
  styleUrl: './sheet-tools.scss',
})
export class SheetTools {
  /** How many layers the scene has, and how many take part. */
  readonly total = input.required<number>();
  readonly takingCount = input.required<number>();
  readonly isTakingOnly = input.required<boolean>();
  readonly hasRigs = input.required<boolean>();
  readonly hasRun = input.required<boolean>();
  readonly parameters = input.required<readonly Parameter[]>();
  /** Names of the parameters that have a column. */
  readonly shown = input.required<ReadonlySet<string>>();
  readonly query = model.required<string>();
  readonly scopeChosen = output<SheetScope>();
  readonly columnShown = output<{ readonly name: string; readonly isOn: boolean }>();
  readonly viewWanted = output<SheetView>();
  readonly dataWanted = output();
  readonly addLayers = output();
}
