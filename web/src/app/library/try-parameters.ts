import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { isNumberKind, literalWords, type Parameter, type PresetItem, type RigItem, type Shelf } from '@wexikine/core';
import { readLiteral, writeLiteral } from '../fields/literal';
import { ParameterValue } from '../fields/parameter-value';

/** The specimen's rate, at which frames are counted. */
const RATE = { num: 25, den: 1 };

function parametersOf(item: PresetItem | RigItem): readonly Parameter[] {
  return item.kind === 'rig' ? item.body.dials : item.body.parameters;
}

interface Slider {
  readonly parameter: Parameter;
  readonly text: string;
  readonly words: string;
  readonly unit: string;
  readonly number: number;
  readonly from: number;
  readonly to: number;
  readonly step: number;
}

function numberOf(text: string | undefined): number | null {
  return text === undefined ? null : (readLiteral(text, RATE)?.number ?? null);
}

/** The parameters of a preset to be tried: numbers as sliders within their soft limits, others as their fields. */
@Component({
  selector: 'wx-try-parameters',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ParameterValue],
  template: `
    @for (slider of sliders(); track slider.parameter.name) {
      @if (isSlider(slider)) {
        <div class="slider">
          <label [for]="'try-' + slider.parameter.name" [title]="slider.parameter.note">{{
            slider.parameter.label
          }}</label>
          <input
            type="range"
            [id]="'try-' + slider.parameter.name"
            [min]="slider.from"
            [max]="slider.to"
            [step]="slider.step"
            [value]="slider.number"
            (input)="slide(slider, $event)"
          />
          <output class="mono" [for]="'try-' + slider.parameter.name">{{ slider.words }}</output>
        </div>
      } @else {
        <wx-parameter-value
          [parameter]="slider.parameter"
          [label]="slider.parameter.label"
          [value]="slider.text"
          [rate]="rate"
          [shelf]="shelf()"
          (changed)="give(slider.parameter, $event)"
        />
      }
    } @empty {
      <p class="quiet-text">There is nothing to set.</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    .slider {
      display: grid;
      grid-template-columns: 104px 1fr 58px;
      align-items: center;
      gap: 10px;
    }
    input {
      accent-color: var(--pine);
      min-width: 0;
    }
    output {
      padding: 2px 6px;
      border: 1px solid var(--line);
      border-radius: 6px;
      background: var(--paper-high);
      text-align: right;
      font-size: 13px;
      white-space: nowrap;
    }
  `,
})
export class TryParameters {
  readonly item = input.required<PresetItem | RigItem>();
  readonly tried = input.required<Readonly<Record<string, string>>>();
  readonly shelf = input.required<Shelf>();
  readonly changed = output<{ readonly name: string; readonly text: string }>();

  protected readonly rate = RATE;
  protected readonly sliders = computed((): Slider[] =>
    parametersOf(this.item()).map((parameter) => {
      const tied = parameter.house === undefined ? null : this.shelf().houseText(parameter.house);
      const text = this.tried()[parameter.name] ?? tied?.text ?? parameter.default;
      const literal = readLiteral(text, RATE);
      return {
        parameter,
        text,
        words: literalWords(text),
        unit: literal?.unit ?? '',
        number: literal?.number ?? 0,
        from: numberOf(parameter.from ?? parameter.min) ?? 0,
        to: numberOf(parameter.to ?? parameter.max) ?? 100,
        step: numberOf(parameter.step) ?? 1,
      };
    }),
  );

  protected isSlider({ parameter: { kind }, text }: Slider): boolean {
    return isNumberKind(kind) && kind !== 'switch' && readLiteral(text, RATE) !== null;
  }

  protected slide({ parameter, unit }: Slider, event: Event): void {
    this.give(parameter, writeLiteral({ number: Number((event.target as HTMLInputElement).value), unit }));
  }

  protected give({ name }: Parameter, text: string): void {
    this.changed.emit({ name, text });
  }
}
