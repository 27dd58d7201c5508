import { cssFromOklab, oklabFromCss } from '../../basics/colour';
import { multiply, type Box, type Matrix } from '../../basics/transform';
import type { LayerLook } from '../../scene/layer';
import { readTransform } from './matrix';
import { lengthOf, shareOf, styleOf, type Style } from './style';
import type { CssRule } from './css';
import { elementsIn, type Element } from './xml';

/** What is looked up in a file while its colours are read. */
export interface Definitions {
  readonly byId: ReadonlyMap<string, Element>;
  readonly rules: readonly CssRule[];
}

/** A fill or stroke that a layer can have; `none`; or null for what only a picture shows. */
export type Paint = { readonly fill: Exclude<LayerLook['fill'], undefined> } | 'none' | null;

const MOST_STOPS = 32;
const MOST_LINKS = 20;

/** A CSS colour with an opacity on top; null for what is no colour. */
export function colourWith(text: string, opacity: number, style: Style): string | null {
  const stated = /^currentcolor$/i.test(text) ? style.color : text;
  const lab = oklabFromCss(stated);
  if (!lab) return null;
  return cssFromOklab({ ...lab, alpha: (lab.alpha ?? 1) * opacity });
}

/** The id in `url(#id)`, and what stands after it; null for anything else. */
export function urlOf(text: string): { readonly id: string; readonly after: string } | null {
  const match = /^url\(\s*["']?#([^"')]+)["']?\s*\)\s*(.*)$/.exec(text);
  return match ? { id: match[1].trim(), after: match[2].trim() } : null;
}

/** The id that an element's `href` names. */
export function linkOf({ attributes }: Element): string | null {
  const address = attributes['href'] ?? attributes['xlink:href'] ?? '';
  return address.startsWith('#') ? address.slice(1) : null;
}

/** A gradient and those that it takes over what it does not say itself from. */
function chainOf(gradient: Element, { byId }: Definitions): Element[] {
  const chain = [gradient];
  for (;;) {
    const id = linkOf(chain[chain.length - 1]);
    const next = id === null ? undefined : byId.get(id);
    if (!next || chain.includes(next) || chain.length > MOST_LINKS) return chain;
    chain.push(next);
  }
}

function stopsOf(chain: readonly Element[], opacity: number, style: Style, rules: readonly CssRule[]) {
  const owner = chain.find((one) => elementsIn(one).some(({ name }) => name === 'stop'));
  const stops = owner ? elementsIn(owner).filter(({ name }) => name === 'stop') : [];
  let least = 0;
  return stops.flatMap((stop) => {
    const own = styleOf(stop, style, rules);
    const colour = colourWith(own['stop-color'], shareOf(own['stop-opacity']) * opacity, own);
    least = Math.max(least, shareOf(stop.attributes['offset'] ?? '0'));
    return colour === null ? [] : [{ at: least, colour }];
  });
}

/** From the gradient's own line or circle to where it is: the unit line from 0 to 1 across, or the unit circle. */
function ownMap(kind: 'linear' | 'radial', read: (name: string, standard: string) => number): Matrix | null {
  if (kind === 'linear') {
    const [x1, y1, x2, y2] = [read('x1', '0%'), read('y1', '0%'), read('x2', '100%'), read('y2', '0%')];
    const [dx, dy] = [x2 - x1, y2 - y1];
    return dx === 0 && dy === 0 ? null : [dx, dy, -dy, dx, x1, y1];
  }
  const [cx, cy, r] = [read('cx', '50%'), read('cy', '50%'), read('r', '50%')];
  return r > 0 ? [r, 0, 0, r, cx, cy] : null;
}

/**
 * A gradient of a shape whose box is given, its map in the shape's own space; null where only a picture shows it
 * (repeats, a focus off the centre). Source: SVG 2, section 14.2.
 */
function gradientOf(gradient: Element, opacity: number, style: Style, box: Box, definitions: Definitions): Paint {
  const chain = chainOf(gradient, definitions);
  const attribute = (name: string): string | undefined =>
    chain.find((one) => one.attributes[name] !== undefined)?.attributes[name];
  const stops = stopsOf(chain, opacity, style, definitions.rules);
  if (stops.length === 0) return 'none';
  if (stops.length === 1) return { fill: stops[0].colour };
  const kind = gradient.name === 'linearGradient' ? 'linear' : 'radial';
  const isFocused = ['fx', 'fy', 'fr'].some(
    (name) => attribute(name) !== undefined && attribute(name) !== attribute(`c${name[1]}`),
  );
  if ((attribute('spreadMethod') ?? 'pad') !== 'pad' || isFocused || stops.length > MOST_STOPS) return null;
  const isInBox = attribute('gradientUnits') !== 'userSpaceOnUse';
  const [width, height] = [box.right - box.left, box.bottom - box.top];
  if (isInBox && (width < 1e-9 || height < 1e-9)) return 'none';
  const read = (name: string, standard: string): number => lengthOf(attribute(name) ?? standard, 1) ?? 0;
  // Per cents in user space are of the view, which is seldom what is drawn into: only a picture is sure.
  const isOfView =
    !isInBox && ['x1', 'y1', 'x2', 'y2', 'cx', 'cy', 'r'].some((name) => attribute(name)?.includes('%') === true);
  const isUnsaid = !isInBox && (kind === 'linear' ? attribute('x2') === undefined : attribute('r') === undefined);
  if (isOfView || isUnsaid) return null;
  const map = ownMap(kind, read);
  if (!map) return { fill: stops[stops.length - 1].colour };
  const turned = multiply(readTransform(attribute('gradientTransform')), map);
  const placed = isInBox ? multiply([width, 0, 0, height, box.left, box.top], turned) : turned;
  return placed.every(Number.isFinite) ? { fill: { kind, stops, map: [...placed] } } : null;
}

/** What a property `fill` or `stroke` asks for, with its opacity; a gradient's map is in the shape's own space. */
export function paintOf(text: string, opacity: number, style: Style, box: Box, definitions: Definitions): Paint {
  if (text === 'none' || opacity === 0) return 'none';
  const url = urlOf(text);
  if (!url) {
    const colour = colourWith(text, opacity, style);
    return colour === null ? 'none' : { fill: colour };
  }
  const target = definitions.byId.get(url.id);
  if (target && /Gradient$/.test(target.name)) return gradientOf(target, opacity, style, box, definitions);
  if (target) return null;
  return url.after === '' ? 'none' : paintOf(url.after, opacity, style, box, definitions);
}
