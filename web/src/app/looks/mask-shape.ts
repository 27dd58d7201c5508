import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { fileAddress, fileType, type Mask } from '@wexikine/core';
import { KeptFiles, ownFontLabel } from '../files/kept-files';
import { FONT_NAMES } from './looks';

const BY = { transparency: 'where it is there', brightness: 'how bright it is' } as const;
const WEIGHTS = [200, 300, 400, 500, 600, 700, 800] as const;

interface MaskFont {
  readonly font: string;
  readonly fontFile?: string;
  readonly label: string;
}

/** What a mask is made of besides its box: a path, words, or a picture. */
@Component({
  selector: 'wx-mask-shape',
  // Its fields stand in the grid of the mask.
  host: { style: 'display: contents' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './look.scss',
  templateUrl: './mask-shape.html',
})
export class MaskShape {
  readonly mask = input.required<Mask>();
  /** Which of the masks it is, such as "Mask 2". */
  readonly called = input.required<string>();
  /** A look of the library has no files. */
  readonly isInLibrary = input(false);
  readonly changed = output<Partial<Mask>>();
  readonly wrong = output<string>();

  private readonly files = inject(KeptFiles);
  private readonly kept = toSignal(this.files.files$, { initialValue: [] });
  private readonly own = toSignal(this.files.fonts$, { initialValue: [] });
  protected readonly by = BY;
  protected readonly ways = Object.keys(BY) as (keyof typeof BY)[];
  protected readonly weights = WEIGHTS;
  protected readonly pictures = computed(() =>
    this.kept()
      .filter(({ name }) => fileType(name).kind === 'picture')
      .map(({ name, title }) => ({ href: fileAddress(name), title })),
  );
  protected readonly fonts = computed((): readonly MaskFont[] => [
    ...FONT_NAMES.map((font) => ({ font, label: font })),
    ...this.own()
      .filter(() => !this.isInLibrary())
      .map((own) => ({ font: own.name, fontFile: own.file, label: ownFontLabel(own) })),
  ]);
  protected readonly font = computed(() => {
    const { font, fontFile } = this.mask().words ?? {};
    return this.fonts().findIndex((one) => one.font === font && one.fontFile === fontFile);
  });

  protected valueOf(event: Event): string {
    return (event.target as HTMLInputElement).value;
  }

  /** A path over the mask's own box, 0…100 across and down. */
  protected setPath(text: string): void {
    if (!/^\s*M[\sMLHVCSQTAZmlhvcsqtaz\d.,eE+-]*$/.test(text))
      return this.wrong.emit('Write SVG path data over a box of 100 by 100, such as M50 0 L100 100 L0 100 Z.');
    this.changed.emit({ d: text.trim().slice(0, 100_000) });
  }

  protected setCorners(text: string): void {
    const corners = Number(text);
    if (!Number.isInteger(corners) || corners < 3 || corners > 60)
      return this.wrong.emit('Write a whole number of corners from 3 to 60.');
    this.changed.emit({ corners });
  }

  protected setText(text: string): void {
    const words = this.mask().words;
    if (text.trim() === '') return this.wrong.emit('A mask of words needs at least one letter.');
    if (words) this.changed.emit({ words: { ...words, text: text.slice(0, 500) } });
  }

  protected setFont(place: number): void {
    const [words, chosen] = [this.mask().words, this.fonts()[place]];
    if (!words || !chosen) return;
    const { font, fontFile } = chosen;
    const { text, weight } = words;
    this.changed.emit({ words: { text, weight, font, ...(fontFile === undefined ? {} : { fontFile }) } });
  }

  protected setWeight(weight: number): void {
    const words = this.mask().words;
    if (words) this.changed.emit({ words: { ...words, weight } });
  }

  protected setPicture(change: Partial<NonNullable<Mask['picture']>>): void {
    const { picture } = this.mask();
    if (picture) this.changed.emit({ picture: { ...picture, ...change } });
  }
}
