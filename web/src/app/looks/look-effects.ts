import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  layerEdits,
  withoutPart,
  type Border,
  type Edit,
  type Layer,
  type LayerLook,
  type MotionBlur,
} from '@wexikine/core';
import { ColourSwatch } from '../fields/colour-swatch';
import { PainterService } from '../drawing/painter.service';
import { enterMany } from '../fields/many-entry';
import { Icon } from '../icons/icon';
import { dashProblem, readDash } from './dash';
import { EFFECTS, hasEffect, withEffect, withoutEffect, type Effect } from './effects';
import { LookCutout } from './look-cutout';
import { LookTwo } from './look-two';
import { LookPart } from './look-part';
import { common } from './looks';
import { OwnChannels } from './own-channels';
import { ShadowWay } from './shadow-way';

const SIDES: Readonly<Record<Border['side'], string>> = { inside: 'inside', on: 'on the edge', outside: 'outside' };
const MOST_SHADOWS = 8;
const MOST_DASHES = 8;
/** How soft a shadow can be, and how far it can fall, px. */
const [MOST_BLUR, MOST_AWAY] = [500, 100_000];
/** Numbers of a further shadow. */
const SHADOW_FIELDS = [
  { part: 'x', label: 'Across', least: -MOST_AWAY, most: MOST_AWAY },
  { part: 'y', label: 'Down', least: -MOST_AWAY, most: MOST_AWAY },
  { part: 'blur', label: 'Softness', least: 0, most: MOST_BLUR },
  { part: 'spread', label: 'Spread', least: 0, most: MOST_BLUR },
] as const;
const BLUR_FIELDS = [
  { part: 'angle', label: 'Shutter angle', least: 1, most: 720 },
  { part: 'phase', label: 'Opens at', least: -360, most: 360 },
  { part: 'samples', label: 'Samples', least: 2, most: 64 },
] as const;

type FurtherShadow = NonNullable<LayerLook['shadows']>[number];

/** Borders, shadows, glow, blur and colours of layers: those that are there, and buttons for those that are not. */
@Component({
  selector: 'wx-look-effects',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ColourSwatch, Icon, LookCutout, LookTwo, OwnChannels, ShadowWay],
  templateUrl: './look-effects.html',
  styleUrl: './look.scss',
})
export class LookEffects extends LookPart {
  private readonly painter = inject(PainterService);
  protected readonly sideWords = SIDES;
  protected readonly sides = Object.keys(SIDES) as Border['side'][];
  /** Effects that some of the layers have, with the layers that do. */
  protected readonly on = computed(() =>
    EFFECTS.map((effect) => ({ effect, layers: this.layers().filter((layer) => hasEffect(layer, effect)) })).filter(
      ({ layers }) => layers.length > 0,
    ),
  );
  protected readonly off = computed(() =>
    EFFECTS.filter((effect) => !this.layers().some((layer) => hasEffect(layer, effect))).filter(
      ({ isForPictures }) => !isForPictures || this.layers().every(({ source }) => source.type === 'picture'),
    ),
  );
  /** Further shadows, where all layers have the same. */
  protected readonly shadows = computed(() => common(this.layers(), ({ look }) => look.shadows ?? []) ?? []);
  protected readonly canAddShadow = computed(
    () => this.layers().every(({ look }) => look.shadow !== undefined) && this.shadows().length < MOST_SHADOWS,
  );

  protected colourOf(layers: readonly Layer[], { colour }: Effect): string {
    if (colour === null) return '';
    return common(layers, ({ look }) => (colour === 'border' ? look.border?.colour : look[colour])) ?? '';
  }

  protected borderOf(layers: readonly Layer[]): Border | null {
    return common(layers, ({ look }) => look.border) ?? null;
  }

  protected add(effect: Effect): void {
    this.do(
      `Add ${effect.label.toLowerCase()}`,
      this.each(this.layers(), (layer) => withEffect(layer, this.begun(effect, layer))),
    );
  }

  /** A cut-out begins with the colour of most of the picture's edge. */
  private begun(effect: Effect, { source }: Layer): Effect {
    const colour =
      effect.part === 'cutout' && source.type === 'picture' ? this.painter.edgeColourOf(source.href) : null;
    return colour === null ? effect : { ...effect, look: { cutout: { by: 'colour', colour } } };
  }

  protected remove(effect: Effect): void {
    this.do(
      `Take the ${effect.label.toLowerCase()} away`,
      this.each(this.layers(), (layer) => withoutEffect(layer, effect)),
    );
  }

  protected setColour(layers: readonly Layer[], { colour, label }: Effect, text: string): void {
    if (colour === null || !this.isColour(text)) return;
    if (text.trim() === 'none') return this.problem.set('Take it away with the cross beside it.');
    this.setLooks(`Set the colour of the ${label.toLowerCase()}`, layers, ({ border }) =>
      colour === 'border' ? { border: border && { ...border, colour: text.trim() } } : { [colour]: text.trim() },
    );
  }

  protected setBorder(layers: readonly Layer[], change: Partial<Border>): void {
    if (change.to !== undefined && !this.isColour(change.to)) return;
    this.setLooks('Set the border', layers, ({ border }) => ({ border: border && { ...border, ...change } }));
  }

  /** The border's second colour, which makes a gradient of it; nothing makes it plain again. */
  protected setBorderTo(layers: readonly Layer[], text: string): void {
    if (text.trim() !== '' && text.trim() !== 'none') return this.setBorder(layers, { to: text.trim() });
    this.setLooks('Set the border', layers, ({ border }) => {
      if (!border) return {};
      const { to: _to, angle: _angle, ...plain } = border;
      return { border: plain };
    });
  }

  protected setDash(layers: readonly Layer[], text: string): void {
    const lengths = readDash(text, MOST_DASHES);
    if (!lengths) return this.problem.set(dashProblem(MOST_DASHES));
    this.setLooks('Set the border', layers, ({ border }) => {
      if (!border) return {};
      const { dash: _dash, ...whole } = border;
      return { border: lengths.length > 0 ? { ...whole, dash: [...lengths] } : whole };
    });
  }

  protected readonly shadowFields = SHADOW_FIELDS;
  protected readonly blurFields = BLUR_FIELDS;

  protected blurText(layers: readonly Layer[], part: keyof MotionBlur): string {
    const value = common(layers, ({ look }) => look.motionBlur?.[part]);
    return value === null || value === undefined ? '' : String(value);
  }

  protected setBlur(
    layers: readonly Layer[],
    { part, least, most, label }: (typeof BLUR_FIELDS)[number],
    text: string,
  ): void {
    const change = enterMany(text);
    const isFine = (number: number): boolean =>
      number >= least && number <= most && (part !== 'samples' || Number.isInteger(number));
    const standing = layers.map(({ look }) => look.motionBlur?.[part] ?? least);
    if (!change || !standing.every((number) => isFine(change(number))))
      return this.problem.set(
        `${label}: write a ${part === 'samples' ? 'whole ' : ''}number from ${least} to ${most}.`,
      );
    this.setLooks('Set the motion blur', layers, ({ motionBlur }) => ({
      motionBlur: motionBlur && { ...motionBlur, [part]: change(motionBlur[part]) },
    }));
  }

  protected addShadow(): void {
    const last = this.shadows().length;
    const shadow = { colour: '#000000', x: 0, y: 8 * (last + 2), blur: 12 };
    this.setLooks('Add a shadow', this.layers(), ({ shadows = [] }) => ({ shadows: [...shadows, shadow] }));
  }

  protected removeShadow(place: number): void {
    const edits = this.layers().flatMap((layer) => layerEdits(layer, withoutPart(layer, 'shadows', place)));
    this.do('Take a shadow away', edits);
  }

  protected setShadowColour(place: number, text: string): void {
    if (this.isColour(text) && text.trim() !== 'none')
      this.changeShadow(place, (shadow) => ({ ...shadow, colour: text.trim() }));
  }

  protected setShadow(place: number, { part, least, most }: (typeof SHADOW_FIELDS)[number], text: string): void {
    const change = enterMany(text);
    if (!change) return this.problem.set('Write a number of pixels such as 12, or +2 to add.');
    this.changeShadow(place, (shadow) => ({
      ...shadow,
      [part]: Math.min(most, Math.max(least, change(shadow[part] ?? 0))),
    }));
  }

  private changeShadow(place: number, change: (shadow: FurtherShadow) => FurtherShadow): void {
    this.setLooks('Set a shadow', this.layers(), ({ shadows = [] }) => ({
      shadows: shadows.map((shadow, i) => (i === place ? change(shadow) : shadow)),
    }));
  }

  private each(layers: readonly Layer[], change: (layer: Layer) => Pick<Layer, 'look' | 'rest'>): Edit[] {
    return layers.map((layer): Edit => ({ type: 'set-layer', layer: layer.id, fields: change(layer) }));
  }
}
