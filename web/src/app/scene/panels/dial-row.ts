import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import type { Scene, Shelf } from '@wexikine/core';
import { Knob } from '../../fields/knob';
import { ParameterValue } from '../../fields/parameter-value';
import { Icon } from '../../icons/icon';
import type { DialRow as Row } from './dial-rows';

/** One dial: its knob, what it is set to and from where that comes, and what can be done with it. */
@Component({
  selector: 'wx-dial-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, Knob, ParameterValue],
  templateUrl: './dial-row.html',
  styleUrl: './dial-row.scss',
  host: { '[class.own]': 'row().isOwn' },
})
export class DialRow {
  readonly row = input.required<Row>();
  /** It is set for one layer alone. */
  readonly isAlone = input.required<boolean>();
  /** A key of it stands at the playhead. */
  readonly isKeyHere = input.required<boolean>();
  readonly isTried = input.required<boolean>();
  readonly canTry = input.required<boolean>();
  readonly scene = input.required<Scene>();
  readonly shelf = input.required<Shelf>();
  readonly turned = output<number>();
  readonly typed = output<string>();
  readonly keyFlipped = output();
  /** To the next key, or the one before. */
  readonly keySought = output<1 | -1>();
  readonly extremesTried = output();
  readonly reset = output();

  /** A value is typed in place of what it is set to. */
  protected readonly isOpen = signal(false);
}
