import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import type { ChannelId, Mask } from '@wexikine/core';
import { enterMany } from '../fields/many-entry';
import { Icon } from '../icons/icon';
import { LookPart } from './look-part';
import { common } from './looks';

const SHAPES: Readonly<Record<Mask['shape'], string>> = { rectangle: 'rectangle', ellipse: 'ellipse', path: 'a path' };
const HOWS: Readonly<Record<Mask['how'], string>> = { add: 'shows', take: 'hides', overlap: 'keeps only' };
const FIRST: Mask = { shape: 'ellipse', how: 'add', x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 0 };
const MOST_MASKS = 20;

/** Numbers of a mask: shares of the box as per cent, degrees, px. */
const NUMBERS = [
  { part: 'x', label: 'Middle x', unit: ' %', scale: 100 },
  { part: 'y', label: 'Middle y', unit: ' %', scale: 100 },
  { part: 'width', label: 'Width', unit: ' %', scale: 100 },
  { part: 'height', label: 'Height', unit: ' %', scale: 100 },
  { part: 'turn', label: 'Turn', unit: '°', scale: 1 },
  { part: 'soft', label: 'Softness', unit: ' px', scale: 1 },
] as const;
const LIMITS = {
  x: [-10, 10],
  y: [-10, 10],
  width: [0, 20],
  height: [0, 20],
  turn: [-3600, 3600],
  soft: [0, 500],
} as const;

/** All masks of a layer together, by channels that can be keyed. */
const TOGETHER: readonly (readonly [ChannelId, string])[] = [
  ['mask.x', 'Moved across'],
  ['mask.y', 'Moved down'],
  ['mask.scale', 'Scaled'],
  ['mask.rotation', 'Turned'],
  ['mask.soft', 'Softened'],
];

/** Which parts of layers show: shapes that are added, taken away, or kept where they overlap. */
@Component({
  selector: 'wx-look-masks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon],
  templateUrl: './look-masks.html',
  styleUrl: './look.scss',
})
export class LookMasks extends LookPart {
  protected readonly numbers = NUMBERS;
  protected readonly together = TOGETHER;
  protected readonly shapeWords = SHAPES;
  protected readonly howWords = HOWS;
  protected readonly shapes = Object.keys(SHAPES) as Mask['shape'][];
  protected readonly hows = Object.keys(HOWS) as Mask['how'][];
  protected readonly masked = computed(() => this.layers().filter(({ look }) => look.masks !== undefined));
  protected readonly masks = computed(() => common(this.masked(), ({ look }) => look.masks ?? []) ?? []);
  protected readonly isMixed = computed(() => this.masked().length > 0 && this.masks().length === 0);
  protected readonly canAdd = computed(() => !this.isMixed() && this.masks().length < MOST_MASKS);

  protected text(mask: Mask, { part, unit, scale }: (typeof NUMBERS)[number]): string {
    return `${Math.round(mask[part] * scale * 100) / 100}${unit}`;
  }

  protected add(how: Mask['how'] = 'add'): void {
    const next = this.masks().length === 0 ? FIRST : { ...FIRST, how, width: 0.5, height: 0.5 };
    this.setLooks('Add a mask', this.layers(), ({ masks = [] }) => ({ masks: [...masks, next] }));
  }

  protected remove(place: number): void {
    this.setLooks('Take a mask away', this.masked(), ({ masks = [] }) => {
      const left = masks.filter((_, i) => i !== place);
      return { masks: left.length > 0 ? left : undefined };
    });
  }

  protected set(place: number, change: Partial<Mask>): void {
    this.setLooks('Set a mask', this.masked(), ({ masks = [] }) => ({
      masks: masks.map((mask, i) => (i === place ? { ...mask, ...change } : mask)),
    }));
  }

  protected setNumber(place: number, { part, scale }: (typeof NUMBERS)[number], text: string): void {
    const change = enterMany(text);
    if (!change) return this.problem.set('Write a number such as 50, or +5 to add.');
    const [least, most] = LIMITS[part];
    this.setLooks('Set a mask', this.masked(), ({ masks = [] }) => ({
      masks: masks.map((mask, i) =>
        i === place ? { ...mask, [part]: Math.min(most, Math.max(least, change(mask[part] * scale) / scale)) } : mask,
      ),
    }));
  }

  /** A path over the mask's own box, 0…100 across and down. */
  protected setPath(place: number, text: string): void {
    if (!/^\s*M[\sMLHVCSQTAZmlhvcsqtaz\d.,eE+-]*$/.test(text))
      return this.problem.set('Write SVG path data over a box of 100 by 100, such as M50 0 L100 100 L0 100 Z.');
    this.set(place, { d: text.trim().slice(0, 100_000) });
  }
}
