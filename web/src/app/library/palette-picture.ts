import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { rampOf, type Palette } from '@wexikine/core';

/** A palette as stripes: its colours, and under them its ramps. */
@Component({
  selector: 'wx-palette-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (row of rows(); track $index) {
      <div [class.ramp]="$index > 0">
        @for (colour of row; track $index) {
          <span [style.background]="colour"></span>
        }
      </div>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      width: 100%;
      height: 100%;
    }
    div {
      display: flex;
      flex: 3;
    }
    .ramp {
      flex: 1;
    }
    span {
      flex: 1;
    }
  `,
  host: { 'aria-hidden': 'true' },
})
export class PalettePicture {
  readonly palette = input.required<Palette>();
  protected readonly rows = computed(() => {
    const palette = this.palette();
    return [
      palette.colours.map(({ colour }) => colour),
      ...(palette.ramps ?? []).map(({ name }) => rampOf(palette, name)),
    ];
  });
}
