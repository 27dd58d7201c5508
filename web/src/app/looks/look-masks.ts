import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  fileAddress,
  fileType,
  FONTS,
  layerEdits,
  withoutPart,
  type ChannelId,
  type Layer,
  type Mask,
} from '@wexikine/core';
import { enterMany } from '../fields/many-entry';
import { Icon } from '../icons/icon';
import { LookPart } from './look-part';
import { common, lookEdits } from './looks';
import { ownRatio, scaledSide, withRatio } from './mask-ratio';
import { MaskShape } from './mask-shape';
import { OwnChannels } from './own-channels';
import { KeptFiles } from '../files/kept-files';

const SHAPES: Readonly<Record<Mask['shape'], string>> = {
  rectangle: 'rectangle',
  ellipse: 'ellipse',
  polygon: 'a polygon',
  path: 'a path',
  words: 'words',
  picture: 'a picture',
};
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
  imports: [Icon, MaskShape, OwnChannels],
  templateUrl: './look-masks.html',
  styleUrl: './look.scss',
})
export class LookMasks extends LookPart {
  protected readonly numbers = NUMBERS;
  protected readonly together = TOGETHER;
  protected readonly shapeWords = SHAPES;
  protected readonly howWords = HOWS;
  /** A look of the library has no masks by files, as those belong to scenes. */
  readonly isInLibrary = input(false);
  protected readonly keepsRatio = signal(false);
  private readonly files = inject(KeptFiles);
  private readonly kept = toSignal(this.files.files$, { initialValue: [] });
  private readonly pictures = computed(() => this.kept().filter(({ name }) => fileType(name).kind === 'picture'));
  protected readonly shapes = computed(() =>
    (Object.keys(SHAPES) as Mask['shape'][]).filter((shape) => shape !== 'picture' || !this.isInLibrary()),
  );
  protected readonly hows = Object.keys(HOWS) as Mask['how'][];
  protected readonly masked = computed(() => this.layers().filter(({ look }) => look.masks !== undefined));
  protected readonly masks = computed(() => common(this.masked(), ({ look }) => look.masks ?? []) ?? []);
  protected readonly isMixed = computed(() => this.masked().length > 0 && this.masks().length === 0);
  protected readonly canAdd = computed(() => !this.isMixed() && this.masks().length < MOST_MASKS);

  constructor() {
    super();
    void this.files.load().catch(() => undefined);
  }

  protected text(mask: Mask, { part, unit, scale }: (typeof NUMBERS)[number]): string {
    return `${Math.round(mask[part] * scale * 100) / 100}${unit}`;
  }

  protected add(how: Mask['how'] = 'add'): void {
    const next = this.masks().length === 0 ? FIRST : { ...FIRST, how, width: 0.5, height: 0.5 };
    this.setLooks('Add a mask', this.layers(), ({ masks = [] }) => ({ masks: [...masks, next] }));
  }

  protected remove(place: number): void {
    const edits = this.masked().flatMap((layer) => layerEdits(layer, withoutPart(layer, 'masks', place)));
    this.do('Take a mask away', edits);
  }

  protected set(place: number, change: Partial<Mask>): void {
    this.change(place, (mask) => ({ ...mask, ...change }));
  }

  private change(place: number, change: (mask: Mask) => Mask): void {
    this.setLooks('Set a mask', this.masked(), ({ masks = [] }) => ({
      masks: masks.map((mask, i) => (i === place ? change(mask) : mask)),
    }));
  }

  /** Makes a mask another shape, with what that shape needs to begin with. */
  protected setShape(place: number, shape: Mask['shape']): void {
    const [picture] = this.pictures();
    if (shape === 'picture' && !picture)
      return this.problem.set('No picture is kept yet. Drop one on the window first, then choose it here.');
    this.problem.set(null);
    this.change(place, ({ d, rule, corners, words, picture: before, ...mask }) => ({
      ...mask,
      shape,
      ...(shape === 'path' ? { d, rule } : {}),
      ...(shape === 'polygon' ? { corners: corners ?? 6 } : {}),
      ...(shape === 'words' ? { words: words ?? { text: 'Words', font: FONTS[0], weight: 700 } } : {}),
      ...(shape === 'picture'
        ? { picture: before ?? { href: fileAddress(picture.name), by: 'transparency' as const } }
        : {}),
    }));
  }

  private ratioOf(layer: Layer, { picture }: Mask): number | null {
    const file = this.pictures().find(({ name }) => picture?.href === fileAddress(name));
    const { width, height } = file?.facts ?? {};
    return ownRatio(layer, width && height ? { width, height } : null);
  }

  protected hasRatio(mask: Mask): boolean {
    return this.masked().some((layer) => this.ratioOf(layer, mask) !== null);
  }

  /** Gives a mask the ratio of its own picture, or of what its layer shows. */
  protected setOwnRatio(place: number): void {
    const edits = this.masked().flatMap((layer) => {
      const mask = layer.look.masks?.[place];
      const ratio = mask ? this.ratioOf(layer, mask) : null;
      if (!mask || ratio === null) return [];
      return lookEdits([layer], ({ masks = [] }) => ({
        masks: masks.map((one, i) => (i === place ? withRatio(one, layer, ratio) : one)),
      }));
    });
    this.do('Give a mask its own ratio', edits);
  }

  protected setNumber(place: number, { part, scale }: (typeof NUMBERS)[number], text: string): void {
    const change = enterMany(text);
    if (!change) return this.problem.set('Write a number such as 50, or +5 to add.');
    const [least, most] = LIMITS[part];
    this.change(place, (mask) => {
      const value = Math.min(most, Math.max(least, change(mask[part] * scale) / scale));
      return this.keepsRatio() && (part === 'width' || part === 'height')
        ? scaledSide(mask, part, value)
        : { ...mask, [part]: value };
    });
  }
}
