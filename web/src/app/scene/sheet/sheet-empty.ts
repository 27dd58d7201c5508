import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { Icon } from '../../icons/icon';

/** What stands in the sheet where it has no rows: how layers come, or that nothing was found. */
@Component({
  selector: 'wx-sheet-empty',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  template: `
    <div role="gridcell">
      @if (query() === '') {
        <h3>This scene has no layers yet</h3>
        <p>Add cards or words; a list of names, one a line, gives a layer each.</p>
        <p>Pictures, clips, sounds, SVG files and fonts can be dropped anywhere on the scene, or pasted.</p>
        <button class="wx-button main" type="button" (click)="addLayers.emit()">
          <wx-icon name="add" />Add layers
        </button>
      } @else {
        <p>No layer is called or tagged like “{{ query() }}”.</p>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
      padding: 40px 24px;
    }

    div {
      display: grid;
      justify-items: start;
      gap: 10px;
    }
  `,
  host: { role: 'row' },
})
export class SheetEmpty {
  /** What was searched for. */
  readonly query = input.required<string>();
  readonly addLayers = output();
}
