import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { FontAxis } from '@wexikine/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { KeptFiles, ownFontLabel } from '../../../files/kept-files';
import { enterMany } from '../../../fields/many-entry';
import { LookPart } from '../../../looks/look-part';
import { LookAxes } from './look-axes';
import { common, FONT_NAMES, fontEdits, wordEdits, wordLayers, type WordSource } from '../../../looks/looks';

const WEIGHTS = [100, 200, 300, 400, 500, 600, 700, 800, 900];
const ALIGNS: readonly WordSource['align'][] = ['left', 'middle', 'right'];
/** Limits of what words are set with, and what stands where nothing is stated. */
const SPACINGS = {
  lineHeight: { label: 'line height', usual: 1.2, least: 0.5, most: 4, example: '1.3' },
  wordSpacing: { label: 'word spacing', usual: 0, least: -1_000, most: 1_000, example: '8' },
} as const;

interface FontChoice {
  readonly axes?: readonly FontAxis[];
  readonly name: string;
  readonly file?: string;
  readonly label: string;
}

/** What words say, and how they are set. */
@Component({
  selector: 'wx-look-words',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LookAxes],
  templateUrl: './look-words.html',
  styleUrl: '../../../looks/look.scss',
})
export class LookWords extends LookPart {
  private readonly files = inject(KeptFiles);
  private readonly own = toSignal(this.files.fonts$, { initialValue: [] });
  protected readonly weights = WEIGHTS;
  protected readonly aligns = ALIGNS;
  protected readonly words = computed(() => wordLayers(this.layers()));
  /** Those of the application, one's own, and those that words are set in though they are not at hand. */
  protected readonly fonts = computed((): readonly FontChoice[] => {
    const shipped = FONT_NAMES.map((name): FontChoice => ({ name, label: name }));
    const own = this.own().map((font): FontChoice => ({ ...font, label: ownFontLabel(font) }));
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
  protected readonly axes = computed(() => this.fonts()[this.font()]?.axes ?? []);
  protected readonly word = computed(() => ({
    text: this.ofWords('text'),
    weight: this.ofWords('weight'),
    size: this.ofWords('size'),
    align: this.ofWords('align'),
  }));
  protected readonly lineHeight = computed(() => this.spacingText('lineHeight'));
  protected readonly wordSpacing = computed(() => this.spacingText('wordSpacing'));

  constructor() {
    super();
    void this.files.load().catch(() => undefined);
  }

  private ofWords<K extends keyof WordSource>(field: K): WordSource[K] | null {
    return common(this.words(), ({ source }) => (source as WordSource)[field]);
  }

  private spacingText(field: keyof typeof SPACINGS): string {
    const value = common(this.words(), ({ source }) => (source as WordSource)[field] ?? SPACINGS[field].usual);
    return value === null ? '' : String(value);
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
    const change = enterMany(this.valueOf(event));
    if (!change) return this.problem.set('Write a size such as 48, or ×1.2 for each.');
    const edits = this.words().flatMap((layer) => {
      const size = change((layer.source as WordSource).size);
      return wordEdits([layer], { size: Math.min(2_000, Math.max(1, Math.round(size * 100) / 100)) });
    });
    this.do('Set the size of the words', edits);
  }

  protected setSpacing(field: keyof typeof SPACINGS, event: Event): void {
    const { label, usual, least, most, example } = SPACINGS[field];
    const change = enterMany(this.valueOf(event));
    if (!change) return this.problem.set(`Write a ${label} such as ${example}, or +0.1 to change each.`);
    const edits = this.words().flatMap((layer) => {
      const value = change((layer.source as WordSource)[field] ?? usual);
      return wordEdits([layer], { [field]: Math.min(most, Math.max(least, Math.round(value * 1_000) / 1_000)) });
    });
    this.do(`Set the ${label}`, edits);
  }
}
