import { DecimalPipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  BLEND_MODES,
  firstColour,
  formatChannelValue,
  isSeen,
  oklabFromCss,
  restValue,
  type Edit,
  type Layer,
  type LayerLook,
} from '@wexikine/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { KeptFiles } from '../../files/kept-files';
import { enterMany } from '../../fields/many-entry';
import {
  asHex,
  common,
  FONT_NAMES,
  fontEdits,
  lookEdits,
  paintedLayers,
  restEdits,
  wordEdits,
  wordLayers,
  type Gradient,
  type ManyStops,
  type WordSource,
} from './layer-looks';
import type { LayerStep } from './layer-panel';

const WEIGHTS = [100, 200, 300, 400, 500, 600, 700, 800, 900];
const ALIGNS: readonly WordSource['align'][] = ['left', 'middle', 'right'];
const NUMBERS = [
  { id: 'stroke.width', label: 'Stroke width' },
  { id: 'corner', label: 'Corner' },
  { id: 'letterSpacing', label: 'Letter spacing' },
] as const;
type NumberId = (typeof NUMBERS)[number]['id'];

type Matte = NonNullable<LayerLook['matte']>;

interface FontChoice {
  readonly name: string;
  readonly file?: string;
  readonly label: string;
}

/** Words, colours and outline of the selected layers, one or many; what differs among them is shown as mixed. */
@Component({
  selector: 'wx-layer-look',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DecimalPipe],
  templateUrl: './layer-look.html',
  styleUrl: './layer-look.scss',
})
export class LayerLookPanel {
  /** As they stand. */
  readonly layers = input.required<readonly Layer[]>();
  /** All of the scene, among which a matte is chosen. */
  readonly all = input.required<readonly Layer[]>();
  readonly step = output<LayerStep>();
  protected readonly blends = BLEND_MODES;
  protected readonly blend = computed(() => common(this.layers(), ({ look }) => look.blend ?? 'normal'));
  protected readonly matte = computed(() => common(this.layers(), ({ look }) => look.matte ?? 'none'));
  protected readonly matteId = computed(() => this.ofMatte('layer'));
  protected readonly matteHow = computed(() => this.ofMatte('how'));
  protected readonly isMatteShown = computed(() => this.ofMatte('isShown') === true);
  /** Layers that can be mattes of the selected ones: none of these, and none that is seen through one of them. */
  protected readonly mattes = computed(() => {
    const own = new Set(this.layers().map(({ id }) => id));
    const byId = new Map(this.all().map((layer) => [layer.id, layer]));
    const isCircle = (layer: Layer): boolean => {
      const seen = new Set<string>();
      for (let at: Layer | undefined = layer; at && !seen.has(at.id); at = byId.get(at.look.matte?.layer ?? '')) {
        if (own.has(at.id)) return true;
        seen.add(at.id);
      }
      return false;
    };
    return this.all().filter((layer) => isSeen(layer) && !isCircle(layer));
  });

  private readonly files = inject(KeptFiles);
  private readonly own = toSignal(this.files.fonts$, { initialValue: [] });
  /** Those of the application, one's own, and those that words are set in though they are not at hand. */
  protected readonly fonts = computed((): readonly FontChoice[] => {
    const shipped = FONT_NAMES.map((name): FontChoice => ({ name, label: name }));
    const own = this.own().map(({ name, file }): FontChoice => ({ name, file, label: `${name} (own)` }));
    const known = [...shipped, ...own];
    const missing = this.words().flatMap(({ source }): FontChoice[] => {
      const { font, fontFile } = source as WordSource;
      const isKnown = known.some(({ name, file }) => name === font && file === fontFile);
      return isKnown ? [] : [{ name: font, ...(fontFile ? { file: fontFile } : {}), label: `${font} (not at hand)` }];
    });
    return [...known, ...missing.filter((one, i) => missing.findIndex(({ label }) => label === one.label) === i)];
  });
  protected readonly font = computed(() => {
    const font = common(this.words(), ({ source }) => [
      (source as WordSource).font,
      (source as WordSource).fontFile ?? null,
    ]);
    return font === null
      ? -1
      : this.fonts().findIndex(({ name, file }) => name === font[0] && (file ?? null) === font[1]);
  });
  protected readonly weights = WEIGHTS;
  protected readonly aligns = ALIGNS;
  protected readonly problem = signal<string | null>(null);
  protected readonly words = computed(() => wordLayers(this.layers()));
  protected readonly painted = computed(() => paintedLayers(this.layers()));
  protected readonly word = computed(() => ({
    text: this.ofWords('text'),
    weight: this.ofWords('weight'),
    size: this.ofWords('size'),
    align: this.ofWords('align'),
  }));
  protected readonly fill = computed(() => common(this.painted(), ({ look }) => look.fill ?? 'none'));
  protected readonly stroke = computed(() => common(this.painted(), ({ look }) => look.stroke ?? 'none'));
  protected readonly gradient = computed((): Gradient | null => {
    const fill = this.fill();
    return fill !== null && typeof fill === 'object' && 'from' in fill ? fill : null;
  });
  protected readonly stops = computed((): ManyStops['stops'] => {
    const fill = this.fill();
    return fill !== null && typeof fill === 'object' && 'stops' in fill ? fill.stops : [];
  });
  protected readonly fillText = computed(() => {
    const fill = this.fill();
    return fill === null ? '' : (firstColour(fill) ?? '');
  });
  protected readonly numbers = computed(() =>
    NUMBERS.filter(({ id }) => id !== 'letterSpacing' || this.words().length > 0).map(({ id, label }) => {
      const value = common(this.painted(), (layer) => restValue(layer, id));
      return { id, label, text: value === null ? '' : formatChannelValue(id, value).replace('−', '-') };
    }),
  );
  protected readonly what = computed(() => {
    const { length } = this.layers();
    return length === 1 ? `“${this.layers()[0].name}”` : `${length} layers`;
  });

  constructor() {
    void this.files.load().catch(() => undefined);
  }

  private ofWords<K extends keyof WordSource>(field: K): WordSource[K] | null {
    return common(this.words(), ({ source }) => (source as WordSource)[field]);
  }

  protected setFont(place: number): void {
    const choice = this.fonts()[place];
    if (choice) this.do('Set the font', fontEdits(this.words(), choice.name, choice.file));
  }

  protected setText(event: Event): void {
    const { value } = event.target as HTMLTextAreaElement;
    if (value !== this.word().text) this.setWord('Set the words', { text: value.slice(0, 5_000) });
  }

  protected setWord(label: string, change: Partial<Omit<WordSource, 'type'>>): void {
    this.do(label, wordEdits(this.words(), change));
  }

  protected setSize(event: Event): void {
    const field = event.target as HTMLInputElement;
    const change = enterMany(field.value);
    if (!change) return this.problem.set('Write a size such as 48, or ×1.2 for each.');
    const edits = this.words().flatMap((layer) => {
      const size = change((layer.source as WordSource).size);
      return wordEdits([layer], { size: Math.min(2_000, Math.max(1, Math.round(size * 100) / 100)) });
    });
    this.do('Set the size of the words', edits);
  }

  protected setNumber(id: NumberId, event: Event): void {
    const change = enterMany((event.target as HTMLInputElement).value);
    if (!change) return this.problem.set('Write a number such as 4, or +2 to change each.');
    const least = id === 'letterSpacing' ? -1e6 : 0;
    this.do(
      `Set ${NUMBERS.find((one) => one.id === id)?.label.toLowerCase()}`,
      restEdits(this.painted(), id, (value) => Math.max(least, change(value))),
    );
  }

  protected setFill(text: string): void {
    if (this.isColour(text)) this.setLook('Set the fill', () => ({ fill: text === 'none' ? undefined : text.trim() }));
  }

  protected setStroke(text: string): void {
    if (!this.isColour(text)) return;
    this.setLook('Set the stroke', () => ({ stroke: text === 'none' ? undefined : text.trim() }));
  }

  /** A gradient from the fill to black, or back to where it began. */
  protected flipGradient(): void {
    this.setLook('Set the fill', ({ fill }) =>
      typeof fill === 'object'
        ? { fill: firstColour(fill) }
        : { fill: { from: fill ?? '#ffffff', to: '#000000', angle: 0 } },
    );
  }

  protected setGradient(change: Partial<Gradient>): void {
    const colours = [change.from, change.to].filter((one) => one !== undefined);
    if (!colours.every((one) => this.isColour(one))) return;
    this.setLook('Set the gradient', ({ fill }) =>
      typeof fill === 'object' && 'from' in fill ? { fill: { ...fill, ...change } } : {},
    );
  }

  /** One stop's colour, in every gradient that has as many. */
  protected setStop(place: number, colour: string): void {
    if (!this.isColour(colour) || colour.trim() === 'none') return;
    this.setLook('Set a stop of the gradient', ({ fill }) =>
      typeof fill === 'object' && 'stops' in fill
        ? {
            fill: {
              ...fill,
              stops: fill.stops.map((stop, i) => (i === place ? { ...stop, colour: colour.trim() } : stop)),
            },
          }
        : {},
    );
  }

  private ofMatte<K extends keyof Matte>(part: K): Matte[K] | null {
    const matte = this.matte();
    return matte === null || matte === 'none' ? null : matte[part];
  }

  protected setBlend(mode: string): void {
    const blend = BLEND_MODES.find((one) => one === mode);
    this.do(
      'Set the blending',
      lookEdits(this.layers(), () => ({ blend })),
    );
  }

  protected setMatte(id: string): void {
    const layer = this.mattes().find((one) => one.id === id);
    const matte: Matte | undefined = layer && { layer: layer.id, how: 'reveals', isShown: false };
    this.do(
      matte ? 'Set the matte' : 'Take the matte away',
      lookEdits(this.layers(), ({ matte: before }) => ({
        matte: matte && { ...matte, how: before?.how ?? 'reveals' },
      })),
    );
  }

  protected setMatteHow(how: Matte['how']): void {
    this.do(
      'Set the matte',
      lookEdits(this.layers(), ({ matte }) => ({ matte: matte && { ...matte, how } })),
    );
  }

  protected flipMatte(): void {
    const isShown = !this.isMatteShown();
    this.do(
      'Set the matte',
      lookEdits(this.layers(), ({ matte }) => ({ matte: matte && { ...matte, isShown } })),
    );
  }

  protected setAngle(event: Event): void {
    const change = enterMany((event.target as HTMLInputElement).value);
    if (!change) return this.problem.set('Write an angle such as 90.');
    const angle = change(this.gradient()?.angle ?? 0);
    this.setGradient({ angle: Math.min(360, Math.max(-360, angle)) });
  }

  protected hex(text: string | null): string {
    return asHex(text ?? '');
  }

  protected valueOf(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  private isColour(text: string): boolean {
    const isFine = text.trim() === 'none' || oklabFromCss(text.trim()) !== null;
    this.problem.set(
      isFine
        ? null
        : `“${text.slice(0, 30)}” is not a colour. Write one such as #f3c98b or oklch(70% 0.1 80), or none.`,
    );
    return isFine;
  }

  private setLook(
    label: string,
    change: (look: LayerLook) => { fill?: LayerLook['fill'] | undefined; stroke?: LayerLook['stroke'] | undefined },
  ): void {
    this.do(label, lookEdits(this.painted(), change));
  }

  private do(label: string, edits: readonly Edit[]): void {
    this.problem.set(null);
    if (edits.length > 0) this.step.emit({ label: `${label} of ${this.what()}`, edits });
  }
}
