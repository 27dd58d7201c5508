import { clampToChannel, type ChannelId } from '../../basics/channel';
import { twoColourMatrix } from '../../basics/colour';
import { maskOutline } from '../../scene/outline';
import {
  maskChannels,
  movedMask,
  movedShadow,
  restValue,
  shadowChannels,
  type Layer,
  type Mask,
} from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { isKeyed, isUsed, limited, px, turnedBy, variable } from './css';
import { decimal } from './keyframes';

/** What is drawn of a layer: HTML, and rules of CSS for it. */
export interface Drawn {
  readonly html: string;
  readonly rules: readonly string[];
}

type FurtherShadow = NonNullable<Layer['look']['shadows']>[number];

const NOTHING: Drawn = { html: '', rules: [] };

function faded(colour: string, opacity: ChannelId): string {
  return `color-mix(in srgb, ${colour} calc(${limited(opacity)} * 100%), transparent)`;
}

/** Colour functions in the order in which they are done. Source: W3C Filter Effects 1. */
const COLOURS: readonly (readonly [ChannelId, string])[] = [
  ['colour.brightness', `brightness(${limited('colour.brightness')})`],
  ['colour.contrast', `contrast(${limited('colour.contrast')})`],
  ['colour.saturation', `saturate(${limited('colour.saturation')})`],
  ['colour.grey', `grayscale(${limited('colour.grey')})`],
  ['colour.hue', `hue-rotate(calc(${variable('colour.hue')} * 1deg))`],
];

/** True for a layer that is drawn in two colours by an amount that stands still. */
function isInTwo(layer: Layer): boolean {
  return layer.look.two !== undefined && isUsed(layer, ['colour.two']) && !isKeyed(layer, ['colour.two']);
}

/** The filter that draws a layer in two colours, for its `filter` to name; nothing where it is not. */
export function twoColourFilter(layer: Layer, id: string): string {
  const { two } = layer.look;
  if (!two || !isInTwo(layer)) return '';
  const amount = clampToChannel('colour.two', restValue(layer, 'colour.two'));
  const values = twoColourMatrix(two.dark, two.light, amount)
    .map((value) => decimal(value))
    .join(' ');
  return `<svg aria-hidden="true"><filter id="${id}-two" color-interpolation-filters="sRGB"><feColorMatrix values="${values}"/></filter></svg>`;
}

/** A shadow below the first; with what its own channels do to it, where they do anything. */
function furtherShadow(layer: Layer, { colour, x, y, blur }: FurtherShadow, place: number): string {
  const own = shadowChannels(place);
  if (!isUsed(layer, own)) return `drop-shadow(${decimal(x)}px ${decimal(y)}px ${decimal(blur)}px ${colour})`;
  const [across, down, soft, , opacity] = own;
  const length = (number: number, id: ChannelId): string => `calc(${decimal(number)}px + ${limited(id)} * 1px)`;
  return `drop-shadow(${length(x, across)} ${length(y, down)} max(0px, ${length(blur, soft)}) ${faded(colour, opacity)})`;
}

/** Colours, blur and shadows of what is drawn of the layer itself, not of what is in its group. */
export function filterText(layer: Layer, id: string): string[] {
  const { shadow, shadows = [], glow } = layer.look;
  const soft = (id: ChannelId): string => `calc(${limited(id)} * 1px)`;
  const filters = [
    ...(isInTwo(layer) ? [`url(#${id}-two)`] : []),
    ...COLOURS.flatMap(([id, text]) => (isUsed(layer, [id]) ? [text] : [])),
    ...(isUsed(layer, ['blur']) ? [`blur(${soft('blur')})`] : []),
    ...(shadow !== undefined && isUsed(layer, ['shadow.opacity'])
      ? [`drop-shadow(${px('shadow.x')} ${px('shadow.y')} ${soft('shadow.blur')} ${faded(shadow, 'shadow.opacity')})`]
      : []),
    ...shadows.map((further, place) => furtherShadow(layer, further, place)),
    ...(glow !== undefined && isUsed(layer, ['glow.opacity'])
      ? [`drop-shadow(0 0 ${soft('glow.size')} ${faded(glow, 'glow.opacity')})`]
      : []),
  ];
  return filters.length > 0 ? [`filter: ${filters.join(' ')}`] : [];
}

/** True for a layer whose edge is that of its box, or of the ellipse in it. */
function isBox({ source }: Layer): boolean {
  return ['rectangle', 'ellipse', 'picture', 'clip'].includes(source.type);
}

const OUT = { inside: 0, on: 0.5, outside: 1 } as const;

function edge(layer: Layer, id: string): Drawn {
  const { border } = layer.look;
  if (!border || border.dash || !isUsed(layer, ['border.width'])) return NOTHING;
  const { colour, to, angle = 0, side } = border;
  const paint = to === undefined ? colour : `linear-gradient(${turnedBy(angle, 'border.turn')}, ${colour}, ${to})`;
  return {
    html: `<div class="edge" id="${id}-edge"></div>`,
    rules: [`#${id}-edge { --out: ${OUT[side]}; background: ${paint} }`],
  };
}

/** Tint, inner shadow and border of a layer whose edge is that of its box; of others they are left out (see `leftOut`). */
export function overlays(layer: Layer, id: string): Drawn {
  if (!isBox(layer)) return NOTHING;
  const { tint, inner } = layer.look;
  const line = edge(layer, id);
  const parts: readonly Drawn[] = [
    tint !== undefined && isUsed(layer, ['tint.amount'])
      ? { html: `<div class="tint" id="${id}-tint"></div>`, rules: [`#${id}-tint { background: ${tint} }`] }
      : NOTHING,
    inner !== undefined && isUsed(layer, ['inner.opacity'])
      ? {
          html: `<div class="inset" id="${id}-inset"></div>`,
          // The deviation of a shadow is half its blur here, and all of it in a filter.
          rules: [
            `#${id}-inset { box-shadow: inset ${px('inner.x')} ${px('inner.y')} calc(${limited('inner.blur')} * 2px) ${px('inner.spread')} ${faded(inner, 'inner.opacity')} }`,
          ],
        }
      : NOTHING,
    line,
  ];
  return { html: parts.map(({ html }) => html).join(''), rules: parts.flatMap(({ rules }) => rules) };
}

/** What moves all masks of a layer. */
const ALL_MASKS: readonly ChannelId[] = ['mask.x', 'mask.y', 'mask.scale', 'mask.rotation', 'mask.soft'];

/** Addresses of files, and what they are embedded as. */
export type Embedded = ReadonlyMap<string, string> | undefined;

/** Weights of red, green and blue in brightness. Source: CSS Masking 1, section 7.10 (luminance). */
const BRIGHTNESS = '0.2125 0.7154 0.0721 0 0';
const TRANSPARENCY = '0 0 0 1 0';

/** A picture over 100 by 100 as shapes are: all of one colour, and as opaque as it lets show. */
function maskPicture({ href, by }: NonNullable<Mask['picture']>, isTaken: boolean, place: number, embedded: Embedded) {
  const colour = isTaken ? '0 0 0 0 0' : '0 0 0 0 1';
  const alpha = by === 'brightness' ? BRIGHTNESS : TRANSPARENCY;
  const ground =
    by === 'brightness'
      ? `<feFlood flood-color='#000'/><feMerge><feMergeNode/><feMergeNode in='SourceGraphic'/></feMerge>`
      : '';
  return `<filter id='p${place}' x='0' y='0' width='1' height='1' color-interpolation-filters='sRGB'>${ground}<feColorMatrix values='${colour} ${colour} ${colour} ${alpha}'/></filter><image href='${embedded?.get(href) ?? href}' width='100' height='100' preserveAspectRatio='none' filter='url(#p${place})'`;
}

/** A mask as a shape of SVG in the pixels of the layer's box; its words are left out (see `leftOut`). */
function maskShape(
  mask: Mask,
  layer: Layer,
  { width, height }: { readonly width: number; readonly height: number },
  place: number,
  embedded: Embedded,
): string {
  const soft = mask.soft + restValue(layer, 'mask.soft');
  const [x, y] = [restValue(layer, 'mask.x') * width, restValue(layer, 'mask.y') * height];
  const transform = [
    `translate(${decimal(width / 2 + x)} ${decimal(height / 2 + y)})`,
    `rotate(${decimal(restValue(layer, 'mask.rotation'))})`,
    `scale(${decimal(restValue(layer, 'mask.scale'))})`,
    `translate(${decimal((mask.x - 0.5) * width)} ${decimal((mask.y - 0.5) * height)})`,
    `rotate(${decimal(mask.turn)})`,
    `scale(${decimal((mask.width * width) / 100)} ${decimal((mask.height * height) / 100)})`,
    'translate(-50 -50)',
  ].join(' ');
  const all = `x='${-width}' y='${-height}' width='${3 * width}' height='${3 * height}'`;
  const filter = `<filter id='s${place}' filterUnits='userSpaceOnUse' ${all} color-interpolation-filters='sRGB'><feGaussianBlur stdDeviation='${decimal(soft)}'/></filter>`;
  const isTaken = mask.how === 'take';
  const drawn = mask.picture
    ? maskPicture(mask.picture, isTaken, place, embedded)
    : `<path d='${maskOutline(mask) ?? ''}' fill-rule='${mask.rule ?? 'evenodd'}' fill='${isTaken ? '#000' : '#fff'}'`;
  const shape = `${drawn} transform='${transform}'/>`;
  const softened = soft > 0 ? `${filter}<g filter='url(#s${place})'>${shape}</g>` : shape;
  return mask.how === 'overlap'
    ? `<g style='mix-blend-mode:multiply'><rect ${all} fill='#000'/>${softened}</g>`
    : softened;
}

function isMaskStill(layer: Layer): boolean {
  const own = (layer.look.masks ?? []).flatMap((_, place) => maskChannels(place));
  return !isKeyed(layer, [...ALL_MASKS, ...own, 'size.x', 'size.y']);
}

/** Masks that stand still as a picture over the layer and as much again around it, whose brightness says what shows. */
export function maskText(layer: Layer, embedded: Embedded): string[] {
  const { masks } = layer.look;
  if (masks === undefined || !isMaskStill(layer) || masks.some(({ shape }) => shape === 'words')) return [];
  const [width, height] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
  if (width <= 0 || height <= 0) return [];
  const ground = masks[0].how === 'take' ? '#fff' : '#000';
  const around = `x='${-width}' y='${-height}' width='${3 * width}' height='${3 * height}'`;
  const svg = `<svg xmlns='http://www.w3.org/2000/svg' viewBox='${-width} ${-height} ${3 * width} ${3 * height}' width='${3 * width}' height='${3 * height}'><rect ${around} fill='${ground}'/>${masks
    .map((mask, i) =>
      maskShape(
        movedMask(mask, i, (id) => restValue(layer, id)),
        layer,
        { width, height },
        i,
        embedded,
      ),
    )
    .join('')}</svg>`;
  const address = `url("data:image/svg+xml,${encodeURIComponent(svg)}")`;
  return [
    `mask: ${address} center / ${decimal(3 * width)}px ${decimal(3 * height)}px no-repeat luminance`,
    'mask-clip: no-clip',
  ];
}

function counted(count: number, one: string, many: string): string {
  return count === 1 ? one : `${count} ${many}`;
}

/** True for a layer that throws a shadow larger than itself. */
function isSpread(layer: Layer): boolean {
  const { shadow, shadows = [] } = layer.look;
  const first = isKeyed(layer, ['shadow.spread']) || restValue(layer, 'shadow.spread') > 0;
  const isFurtherSpread = (further: FurtherShadow, place: number): boolean => {
    const [, , , own] = shadowChannels(place);
    const { spread = 0 } = movedShadow(further, place, (id) => restValue(layer, id));
    return spread > 0 || (own !== undefined && isKeyed(layer, [own]));
  };
  const isThrown = shadow !== undefined && isUsed(layer, ['shadow.opacity']);
  return (isThrown && first) || shadows.some(isFurtherSpread);
}

/** What of a layer's look a page cannot carry, in words. */
function leftOutOf(layer: Layer): string[] {
  const { look, source } = layer;
  const isPlainBox = isBox(layer);
  const border = look.border !== undefined && isUsed(layer, ['border.width']);
  return [
    ...(look.matte !== undefined ? ['mattes'] : []),
    ...(look.cutout !== undefined && source.type === 'picture' ? ['cut-out pictures'] : []),
    ...(look.two !== undefined && isKeyed(layer, ['colour.two']) ? ['two colours that come and go'] : []),
    ...(typeof look.fill === 'object' && 'stops' in look.fill && isUsed(layer, ['fill.turn'])
      ? ['turned gradients of many stops']
      : []),
    ...(isSpread(layer) ? ['the spread of shadows'] : []),
    ...(look.motionBlur !== undefined ? ['motion blur'] : []),
    ...(look.masks !== undefined && !isMaskStill(layer) ? ['masks that move'] : []),
    ...(look.masks?.some(({ shape }) => shape === 'words') === true ? ['masks of words'] : []),
    ...(isUsed(layer, ['streak.length']) ? ['streaks'] : []),
    ...(border && (!isPlainBox || look.border?.dash) ? ['borders of paths and words, and dashed ones'] : []),
    ...(!isPlainBox && look.tint !== undefined && isUsed(layer, ['tint.amount']) ? ['tints of paths and words'] : []),
    ...(!isPlainBox && look.inner !== undefined && isUsed(layer, ['inner.opacity'])
      ? ['inner shadows of paths and words']
      : []),
    ...(source.type === 'clip' && isKeyed(layer, ['clip.time']) ? ['times of clips by keys'] : []),
    ...(source.type === 'sound' && source.gain > 1 ? ['sounds that are louder than their files'] : []),
  ];
}

/** What of a scene does not go along in its page, as a sentence; null where all does. */
export function leftOut({ layers }: Pick<Scene, 'layers'>): string | null {
  const counts = new Map<string, number>();
  for (const layer of layers) for (const part of leftOutOf(layer)) counts.set(part, (counts.get(part) ?? 0) + 1);
  if (counts.size === 0) return null;
  const parts = [...counts].map(([part, count]) => `${part} (${counted(count, 'one layer', 'layers')})`);
  return `The page does without what CSS cannot draw: ${parts.join(', ')}. Those layers are drawn without it.`;
}
