import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { NO_LAYER, type Parameter, type Rate, type Shelf } from '@wexikine/core';
import { ColourSwatch } from './colour-swatch';
import { parameterCheck } from './checks';
import { ValueField } from './value-field';

/** A layer that a parameter can point to. */
export interface LayerChoice {
  readonly id: string;
  readonly name: string;
}

let made = 0;

/** A field for one value of a parameter, as its kind asks for it: a switch, a list, a colour, or a text that is checked. */
@Component({
  selector: 'wx-parameter-value',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, ValueField],
  template: `
    @switch (parameter().kind) {
      @case ('switch') {
        <label class="choice">
          <input
            type="checkbox"
            [checked]="value() === 'on'"
            (change)="changed.emit(value() === 'on' ? 'off' : 'on')"
          />
          <span>{{ label() }}</span>
        </label>
      }
      @case ('choice') {
        <label class="field-label" [for]="id">{{ label() }}</label>
        <select class="text-field" [id]="id" (change)="pick($event)">
          @for (option of parameter().options ?? []; track option.name) {
            <option [value]="option.name" [selected]="option.name === value()">{{ option.label }}</option>
          }
        </select>
      }
      @case ('layer') {
        <label class="field-label" [for]="id">{{ label() }}</label>
        <select class="text-field" [id]="id" (change)="pick($event)">
          <option [value]="none" [selected]="value() === none">none, the layer itself</option>
          @for (layer of layers(); track layer.id) {
            <option [value]="layer.id" [selected]="layer.id === value()">{{ layer.name }}</option>
          }
        </select>
      }
      @default {
        <div class="line">
          <wx-value-field
            [label]="label()"
            [value]="value()"
            [rate]="rate()"
            [check]="check()"
            (changed)="changed.emit($event)"
          />
          @if (parameter().kind === 'colour') {
            <wx-colour-swatch [label]="label() + ', picked'" [value]="value()" (changed)="changed.emit($event)" />
          }
          @if (parameter().kind === 'curve' && curves().length > 0) {
            <select class="text-field" aria-label="A curve of the library" (change)="pick($event)">
              <option value="" [selected]="!value().startsWith('curve ')">own</option>
              @for (curve of curves(); track curve.id) {
                <option [value]="'curve ' + curve.id" [selected]="value() === 'curve ' + curve.id">
                  {{ curve.name }}
                </option>
              }
            </select>
          }
        </div>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      min-width: 0;
    }
    .line {
      display: flex;
      gap: 6px;
      align-items: end;
    }
    wx-value-field {
      flex: 1;
    }
    .line select {
      width: 92px;
    }
  `,
})
export class ParameterValue {
  readonly parameter = input.required<Parameter>();
  readonly value = input.required<string>();
  readonly label = input.required<string>();
  readonly rate = input.required<Rate>();
  readonly shelf = input.required<Shelf>();
  readonly layers = input<readonly LayerChoice[]>([]);
  readonly changed = output<string>();

  protected readonly id = `parameter-value-${++made}`;
  protected readonly none = NO_LAYER;
  protected readonly check = computed(() => parameterCheck(this.parameter(), this.shelf()));
  protected readonly curves = computed(() =>
    [...this.shelf().items.values()]
      .filter((item) => item.kind === 'curve' || (item.kind === 'house' && item.body.type === 'curve'))
      .filter(({ id, state }) => state !== 'retired' || this.value() === `curve ${id}`),
  );

  protected pick(event: Event): void {
    const { value } = event.target as HTMLInputElement | HTMLSelectElement;
    if (value !== '') this.changed.emit(value);
  }
}
