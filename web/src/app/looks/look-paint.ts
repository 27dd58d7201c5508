import { DecimalPipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { firstColour, type ChannelId, type LayerLook } from '@wexikine/core';
import { ColourSwatch } from '../fields/colour-swatch';
import { enterMany } from '../fields/many-entry';
import { dashProblem, readDash } from './dash';
import { LookPart } from './look-part';
import { colourIn, common, paintedLayers, type Gradient, type ManyStops } from './looks';

type Cap = NonNullable<LayerLook['cap']>;
type Join = NonNullable<LayerLook['join']>;

const CAPS: Readonly<Record<Cap, string>> = { butt: 'flat', round: 'round', square: 'square' };
const JOINS: Readonly<Record<Join, string>> = { round: 'round', miter: 'pointed', bevel: 'cut off' };
const LABELS = {
  'stroke.width': 'Stroke width',
  corner: 'Corner',
} as const satisfies Partial<Record<ChannelId, string>>;
const MOST_DASHES = 32;

/** Fill, stroke and corners of shapes and words. */
@Component({
  selector: 'wx-look-paint',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, DecimalPipe],
  templateUrl: './look-paint.html',
  styleUrl: './look.scss',
})
export class LookPaint extends LookPart {
  protected readonly labels = LABELS;
  protected readonly capWords = CAPS;
  protected readonly joinWords = JOINS;
  protected readonly caps = Object.keys(CAPS) as Cap[];
  protected readonly joins = Object.keys(JOINS) as Join[];
  protected readonly painted = computed(() => paintedLayers(this.layers()));
  protected readonly channels = Object.keys(LABELS) as (keyof typeof LABELS)[];
  protected readonly fill = computed(() => common(this.painted(), ({ look }) => look.fill ?? 'none'));
  protected readonly stroke = computed(() => common(this.painted(), ({ look }) => look.stroke ?? 'none'));
  protected readonly hasStroke = computed(() => this.painted().some(({ look }) => look.stroke !== undefined));
  protected readonly cap = computed(() => common(this.painted(), ({ look }) => look.cap ?? 'butt'));
  protected readonly join = computed(() => common(this.painted(), ({ look }) => look.join ?? 'round'));
  protected readonly dash = computed(() => common(this.painted(), ({ look }) => look.dash ?? [])?.join(' ') ?? '');
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

  protected setFill(text: string): void {
    if (this.isColour(text)) this.set('Set the fill', () => ({ fill: colourIn(text) }));
  }

  protected setStroke(text: string): void {
    if (this.isColour(text)) this.set('Set the stroke', () => ({ stroke: colourIn(text) }));
  }

  protected setLine(part: 'cap' | 'join', value: string): void {
    const chosen = part === 'cap' ? { cap: value as Cap } : { join: value as Join };
    this.set(part === 'cap' ? 'Set the ends of lines' : 'Set the bends of lines', () => chosen);
  }

  protected setDash(event: Event): void {
    const lengths = readDash(this.valueOf(event), MOST_DASHES);
    if (!lengths) return this.problem.set(dashProblem(MOST_DASHES));
    this.set('Set the dashes', () => ({ dash: lengths.length > 0 ? [...lengths] : undefined }));
  }

  /** A gradient from the fill to black, or back to where it began. */
  protected flipGradient(): void {
    this.set('Set the fill', ({ fill }) =>
      typeof fill === 'object'
        ? { fill: firstColour(fill) }
        : { fill: { from: fill ?? '#ffffff', to: '#000000', angle: 0 } },
    );
  }

  protected setGradient(change: Partial<Gradient>): void {
    const colours = [change.from, change.to].filter((one) => one !== undefined);
    if (!colours.every((one) => this.isColour(one))) return;
    this.set('Set the gradient', ({ fill }) =>
      typeof fill === 'object' && 'from' in fill ? { fill: { ...fill, ...change } } : {},
    );
  }

  /** One stop's colour, in every gradient that has as many. */
  protected setStop(place: number, colour: string): void {
    if (!this.isColour(colour) || colour.trim() === 'none') return;
    this.set('Set a stop of the gradient', ({ fill }) =>
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

  protected setAngle(event: Event): void {
    const change = enterMany(this.valueOf(event));
    if (!change) return this.problem.set('Write an angle such as 90.');
    const angle = change(this.gradient()?.angle ?? 0);
    this.setGradient({ angle: Math.min(360, Math.max(-360, angle)) });
  }

  private set(label: string, change: Parameters<LookPart['setLooks']>[2]): void {
    this.setLooks(label, this.painted(), change);
  }
}
