import { A11yModule } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { cssFromLch, cssFromOklab, lchFromCss, oklabFromCss, type Lch } from '@wexikine/core';
import { Icon } from '../icons/icon';
import { KnownColours } from './known-colours';

/** Reads a colour of the screen, where the browser can (EyeDropper API). */
interface EyeDropper {
  readonly open: () => Promise<{ readonly sRGBHex: string }>;
}

const PLAIN: Lch = { l: 0.7, c: 0.1, h: 80, alpha: 1 };
/** The most colourful that is offered; what no screen shows is brought nearer to grey. */
const MOST_CHROMA = 0.32;
/** Places at which the track of a slider is coloured. */
const STOPS = 9;
const OFFERED = 32;

interface Slider {
  readonly part: 'l' | 'c' | 'h';
  readonly label: string;
  readonly most: number;
  readonly step: number;
}

const SLIDERS: readonly Slider[] = [
  { part: 'l', label: 'Lightness', most: 1, step: 0.01 },
  { part: 'c', label: 'Colourfulness', most: MOST_CHROMA, step: 0.005 },
  { part: 'h', label: 'Hue', most: 360, step: 1 },
];

/**
 * A colour as a small field that opens a chooser: lightness, colourfulness and hue as people see them (OKLCH), the colours of the
 * library, and the screen's own where the browser lets one pick there.
 */
@Component({
  selector: 'wx-colour-swatch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [A11yModule, CdkConnectedOverlay, CdkOverlayOrigin, Icon],
  templateUrl: './colour-swatch.html',
  styleUrl: './colour-swatch.scss',
})
export class ColourSwatch {
  readonly label = input.required<string>();
  /** CSS text; what is none, and none at all, is shown as an empty field. */
  readonly value = input<string | null>(null);
  /** CSS hexadecimal text. */
  readonly changed = output<string>();

  protected readonly sliders = SLIDERS;
  protected readonly isOpen = signal(false);
  protected readonly known = toSignal(inject(KnownColours).colours$, { initialValue: [] });
  protected readonly offered = computed(() => this.known().slice(0, OFFERED));
  protected readonly hasDropper = 'EyeDropper' in globalThis;
  protected readonly shown = computed(() => {
    const lab = oklabFromCss(this.value() ?? '');
    return lab ? cssFromOklab(lab) : null;
  });
  /** What the sliders stand at; a grey keeps the hue that they had. */
  protected readonly lch = linkedSignal<string | null, Lch>({
    source: this.value,
    computation: (text, before) => {
      const read = lchFromCss(text ?? '');
      if (!read) return before?.value ?? PLAIN;
      return read.c < 0.002 && before ? { ...read, h: before.value.h } : { ...read, h: (read.h + 360) % 360 };
    },
  });
  protected readonly hex = computed(() => cssFromLch(this.lch()));

  protected trackOf({ part, most }: Slider): string {
    const stops = Array.from({ length: STOPS }, (_, i) =>
      cssFromLch({ ...this.lch(), alpha: 1, [part]: (most * i) / (STOPS - 1) }),
    );
    return `linear-gradient(to right, ${stops.join(', ')})`;
  }

  protected slide({ part }: Slider, event: Event): void {
    const value = Number((event.target as HTMLInputElement).value);
    this.lch.update((lch) => ({ ...lch, [part]: value }));
  }

  /** A slider that is let go of is one change. */
  protected give(): void {
    this.changed.emit(this.hex());
  }

  protected take(colour: string): void {
    const read = lchFromCss(colour);
    if (!read) return;
    this.lch.set({ ...read, h: (read.h + 360) % 360 });
    this.changed.emit(cssFromLch(read));
  }

  /** Picking on the screen can be given up. */
  protected async pick(): Promise<void> {
    const dropper = new (globalThis as unknown as { EyeDropper: new () => EyeDropper }).EyeDropper();
    const found = await dropper.open().catch(() => null);
    if (found) this.take(found.sRGBHex);
  }

  protected textOf({ part }: Slider): string {
    const value = this.lch()[part];
    if (part === 'h') return `${Math.round(value)}°`;
    return part === 'l' ? `${Math.round(value * 100)} %` : value.toFixed(3);
  }
}
