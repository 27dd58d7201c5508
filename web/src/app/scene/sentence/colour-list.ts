import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  contrastRatio,
  createShelf,
  isOffered,
  oklabFromCss,
  paletteColours,
  rampColour,
  type PaletteItem,
} from '@wexikine/core';
import { ColourSwatch } from '../../fields/colour-swatch';
import { Icon } from '../../icons/icon';
import { LibraryService } from '../../library/library.service';

/** A colour of a list, and how often it comes against the others. */
export interface ListedColour {
  readonly colour: string;
  readonly weight: number;
}

const MOST = 64;
const RAMP = 5;

/** A list of colours: each as text and picked, with how often it comes where that counts; ramps, and contrast of neighbours. */
@Component({
  selector: 'wx-colour-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, Icon],
  template: `
    <ol aria-label="Colours">
      @for (one of colours(); track $index) {
        <li>
          <wx-colour-swatch
            [label]="'Colour ' + ($index + 1) + ', picked'"
            [value]="one.colour"
            (changed)="setColour($index, $event)"
          />
          <input
            class="text-field mono"
            [attr.aria-label]="'Colour ' + ($index + 1)"
            [value]="one.colour"
            (change)="setColour($index, text($event))"
          />
          @if (hasWeights()) {
            <input
              class="text-field mono weight"
              inputmode="decimal"
              title="How often it comes against the others"
              [attr.aria-label]="'How often colour ' + ($index + 1) + ' comes'"
              [value]="one.weight"
              (change)="setWeight($index, text($event))"
            />
          }
          <button
            class="icon-button"
            type="button"
            [disabled]="colours().length === 1"
            [attr.aria-label]="'Take colour ' + ($index + 1) + ' away'"
            (click)="remove($index)"
          >
            <wx-icon name="close" />
          </button>
        </li>
      }
    </ol>
    <div class="tools">
      <button class="wx-button quiet" type="button" [disabled]="colours().length >= most" (click)="add()">
        + colour
      </button>
      @if (colours().length > 1 && colours().length < 4) {
        <button
          class="wx-button quiet"
          type="button"
          title="Even steps in OKLCH between these colours"
          (click)="makeRamp()"
        >
          Ramp of five
        </button>
      }
      @if (choices().length > 0) {
        <select class="text-field" aria-label="Take the colours of a palette" (change)="take($event)">
          <option value="" selected>from a palette…</option>
          @for (choice of choices(); track choice.label) {
            <option>{{ choice.label }}</option>
          }
        </select>
      }
    </div>
    @if (closest(); as sentence) {
      <p class="quiet-text">{{ sentence }}</p>
    }
    @if (problem(); as sentence) {
      <p class="problem" role="alert">{{ sentence }}</p>
    }
  `,
  styles: `
    ol {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 6px;
      max-height: 240px;
      margin: 0;
      padding: 0;
      overflow: auto;
      list-style: none;
    }
    li {
      display: flex;
      gap: 6px;
      align-items: center;
    }
    li .text-field {
      flex: 1;
      min-width: 0;
    }
    li .weight {
      flex: none;
      width: 52px;
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
    }
    .tools select {
      width: 150px;
    }
    .problem {
      color: var(--rose);
    }
  `,
})
export class ColourList {
  readonly colours = input.required<readonly ListedColour[]>();
  readonly hasWeights = input(false);
  readonly changed = output<readonly ListedColour[]>();
  protected readonly most = MOST;
  protected readonly problem = signal<string | null>(null);

  /** The two colours that are told apart worst by lightness. */
  protected readonly closest = computed(() => {
    const list = this.colours();
    let least = Infinity;
    let pair = '';
    list.forEach((a, i) =>
      list.slice(i + 1).forEach((b, j) => {
        const ratio = contrastRatio(a.colour, b.colour);
        if (ratio >= least) return;
        least = ratio;
        pair = `Colours ${i + 1} and ${i + j + 2}`;
      }),
    );
    return pair === '' ? null : `${pair} are nearest in lightness: contrast ${least.toFixed(1)} to 1.`;
  });

  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  /** Palettes of the library and their ramps, with their colours. */
  protected readonly choices = computed(() =>
    [...this.shelf().items.values()]
      .filter((item): item is PaletteItem => item.kind === 'palette' && isOffered(item))
      .flatMap(({ name, body }) => [
        { label: name, colours: paletteColours(body) },
        ...(body.ramps ?? []).map((ramp) => ({
          label: `${name}, ${ramp.name}`,
          colours: paletteColours(body, ramp.name),
        })),
      ]),
  );

  /** Takes the colours of a palette instead of these, as they are now. */
  protected take(event: Event): void {
    const field = event.target as HTMLSelectElement;
    const choice = this.choices().find(({ label }) => label === field.value);
    field.value = '';
    if (choice) this.emit(choice.colours.map((colour) => ({ colour, weight: 1 })));
  }

  protected text(event: Event): string {
    return (event.target as HTMLInputElement).value.trim();
  }

  protected setColour(place: number, colour: string): void {
    if (oklabFromCss(colour) === null)
      return this.problem.set(`“${colour.slice(0, 30)}” is not a colour. Write one such as #f3c98b.`);
    this.emit(this.colours().map((one, i) => (i === place ? { ...one, colour } : one)));
  }

  protected setWeight(place: number, text: string): void {
    const weight = Number(text.replace(',', '.'));
    if (!(weight > 0 && weight <= 1_000)) return this.problem.set('Write how often it comes, such as 2: above 0.');
    this.emit(this.colours().map((one, i) => (i === place ? { ...one, weight } : one)));
  }

  protected add(): void {
    this.emit([...this.colours(), { colour: '#f3c98b', weight: 1 }]);
  }

  protected remove(place: number): void {
    this.emit(this.colours().filter((_, i) => i !== place));
  }

  protected makeRamp(): void {
    const texts = this.colours().map(({ colour }) => colour);
    this.emit(Array.from({ length: RAMP }, (_, i) => ({ colour: rampColour(texts, i / (RAMP - 1)), weight: 1 })));
  }

  private emit(colours: readonly ListedColour[]): void {
    this.problem.set(null);
    this.changed.emit(colours);
  }
}
