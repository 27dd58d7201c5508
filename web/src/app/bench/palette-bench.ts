import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  contrastPairs,
  MOST_COLOURS,
  paletteSchema,
  RAMP_STEPS,
  rampOf,
  SIGHTS,
  seenAs,
  type LibraryDetail,
  type Palette,
  type PaletteItem,
  type Sight,
} from '@wexikine/core';
import { ColourSwatch } from '../fields/colour-swatch';
import { Icon } from '../icons/icon';
import { PalettePicture } from '../library/palette-picture';
import { EffectsList } from './effects-list';
import { ItemRecordView } from './item-record';

type Ramp = NonNullable<Palette['ramps']>[number];

/** Contrast that words need on a ground, and large words. Source: WCAG 2.2, 1.4.3. */
const [WORDS, LARGE] = [4.5, 3];

/** A palette on the bench: named colours, ramps between them, contrast of each pair, and how other eyes see it. */
@Component({
  selector: 'wx-palette-bench',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, EffectsList, Icon, ItemRecordView, PalettePicture],
  templateUrl: './palette-bench.html',
  styleUrls: ['./value-bench.scss', './palette-bench.scss'],
})
export class PaletteBench {
  readonly item = input.required<PaletteItem>();
  readonly detail = input.required<LibraryDetail>();
  readonly changed = output<{ readonly label: string; readonly body: Palette }>();

  protected readonly most = MOST_COLOURS;
  protected readonly sights = SIGHTS;
  protected readonly problem = signal<string | null>(null);
  protected readonly body = computed(() => this.item().body);
  protected readonly ramps = computed((): readonly Ramp[] => this.body().ramps ?? []);
  /** Pairs of colours, the ones that are hardest to tell apart first. */
  protected readonly pairs = computed(() =>
    contrastPairs(this.body())
      .slice(0, 12)
      .map(({ a, b, ratio }) => ({
        names: `${a} and ${b}`,
        ratio: ratio.toFixed(1),
        words: ratio >= WORDS ? 'words can be read' : ratio >= LARGE ? 'large words can be read' : 'too near for words',
        colours: [this.colourOf(a), this.colourOf(b)],
      })),
  );

  protected valueOf(event: Event): string {
    return (event.target as HTMLInputElement).value.trim();
  }

  protected rampColours(name: string): string[] {
    return rampOf(this.body(), name);
  }

  protected seen(colour: string, sight: Sight): string {
    return seenAs(colour, sight);
  }

  private colourOf(name: string): string {
    return this.body().colours.find((one) => one.name === name)?.colour ?? '';
  }

  protected setColour(place: number, colour: string): void {
    const colours = this.body().colours.map((one, i) => (i === place ? { ...one, colour } : one));
    this.give('Set a colour', { ...this.body(), colours });
  }

  /** A new name, which the ramps through that colour follow. */
  protected rename(place: number, name: string): void {
    const before = this.body().colours[place].name;
    const colours = this.body().colours.map((one, i) => (i === place ? { ...one, name } : one));
    const ramps = this.ramps().map((ramp) => ({
      ...ramp,
      through: ramp.through.map((one) => (one === before ? name : one)),
    }));
    this.give('Rename a colour', this.withRamps(colours, ramps));
  }

  protected add(): void {
    const { colours } = this.body();
    const name = this.freeName('colour', colours);
    this.give('Add a colour', { ...this.body(), colours: [...colours, { name, colour: '#f3c98b' }] });
  }

  protected remove(place: number): void {
    const { name } = this.body().colours[place];
    const used = this.ramps().find(({ through }) => through.includes(name));
    if (used) return this.problem.set(`The ramp “${used.name}” goes through ${name}. Change or remove that first.`);
    this.give('Remove a colour', { ...this.body(), colours: this.body().colours.filter((_, i) => i !== place) });
  }

  protected addRamp(): void {
    const { colours } = this.body();
    if (colours.length < 2) return this.problem.set('A ramp needs two colours. Add one first.');
    const through = [colours[0].name, colours[colours.length - 1].name];
    const ramp: Ramp = { name: this.freeName('ramp', this.ramps()), through, steps: 7 };
    this.give('Add a ramp', this.withRamps(this.body().colours, [...this.ramps(), ramp]));
  }

  protected setRamp(place: number, change: Partial<Ramp>): void {
    const ramps = this.ramps().map((one, i) => (i === place ? { ...one, ...change } : one));
    this.give('Set a ramp', this.withRamps(this.body().colours, ramps));
  }

  /** The colours that a ramp goes through: its first, one between or none, its last. */
  protected setThrough(place: number, at: 'first' | 'between' | 'last', name: string): void {
    const { through } = this.ramps()[place];
    const [first, between, last] = [through[0], through.length === 3 ? through[1] : '', through[through.length - 1]];
    const next = { first, between, last, [at]: name };
    this.setRamp(place, { through: [next.first, next.between, next.last].filter((one) => one !== '') });
  }

  protected setSteps(place: number, text: string): void {
    const steps = Number(text);
    const { least, most } = RAMP_STEPS;
    if (!Number.isInteger(steps) || steps < least || steps > most)
      return this.problem.set(`Steps: write a whole number from ${least} to ${most}.`);
    this.setRamp(place, { steps });
  }

  protected removeRamp(place: number): void {
    this.give(
      'Remove a ramp',
      this.withRamps(
        this.body().colours,
        this.ramps().filter((_, i) => i !== place),
      ),
    );
  }

  private withRamps(colours: Palette['colours'], ramps: readonly Ramp[]): Palette {
    return { colours, ...(ramps.length > 0 ? { ramps: [...ramps] } : {}) };
  }

  private freeName(word: string, taken: readonly { readonly name: string }[]): string {
    const names = new Set(taken.map(({ name }) => name));
    let number = taken.length + 1;
    while (names.has(`${word} ${number}`)) number++;
    return `${word} ${number}`;
  }

  private give(label: string, body: Palette): void {
    const read = paletteSchema.safeParse(body);
    this.problem.set(read.success ? null : read.error.issues[0].message);
    if (read.success) this.changed.emit({ label, body: read.data });
  }
}
