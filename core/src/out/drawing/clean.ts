import type { Box, Matrix } from '../../basics/transform';
import { linkOf, urlOf, type Definitions } from './colours';
import { FONT_DATA } from './faces';
import { STANDARD_STYLE, type Style } from './style';
import { elementsIn, textOf, type Element } from './xml';

/** Elements that draw, or say how something is drawn. Whatever is not named here is left out: it could run or fetch. */
const DRAWN = new Set([
  ...['svg', 'g', 'path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon', 'text', 'tspan', 'textPath'],
  ...[
    'image',
    'use',
    'symbol',
    'defs',
    'clipPath',
    'mask',
    'marker',
    'pattern',
    'switch',
    'a',
    'style',
    'title',
    'desc',
  ],
  ...['linearGradient', 'radialGradient', 'stop', 'filter', 'feBlend', 'feColorMatrix', 'feComponentTransfer'],
  ...['feComposite', 'feConvolveMatrix', 'feDiffuseLighting', 'feDisplacementMap', 'feDistantLight', 'feDropShadow'],
  ...[
    'feFlood',
    'feFuncA',
    'feFuncB',
    'feFuncG',
    'feFuncR',
    'feGaussianBlur',
    'feMerge',
    'feMergeNode',
    'feMorphology',
  ],
  ...['feOffset', 'fePointLight', 'feSpecularLighting', 'feSpotLight', 'feTile', 'feTurbulence'],
]);

/** Addresses that stay within the file. */
const OWN = /^\s*(#|data:image\/(png|jpeg|webp|gif)[;,])/i;

/** Style text without anything that would be fetched: fonts that stand in it stay. */
function safeStyle(text: string): string {
  return text
    .replace(/@import[^;]*;?/gi, '')
    .replace(/url\(\s*(?!["']?#)[^)]*\)/gi, (address) => (FONT_DATA.test(address) ? address : 'none'));
}

/** A style sheet without the fonts that stand in it, for what has no words. */
function withoutFonts(text: string): string {
  return text.replace(/@font-face\s*\{[^}]*\}/gi, '');
}

/** Style sheets as text in which nothing is fetched: with the fonts that stand in them, and without. */
export interface CleanSheets {
  readonly whole: string;
  readonly plain: string;
}

/** The style sheets of a drawing, as its parts are to have them. */
export function cleanSheets(sheets: readonly string[]): CleanSheets {
  return { whole: sheets.map(styleSheet).join(''), plain: sheets.map(withoutFonts).map(styleSheet).join('') };
}

/** Whether words are somewhere in an element. */
export function hasWords(element: Element): boolean {
  return element.name === 'text' || elementsIn(element).some(hasWords);
}

function isSafe(name: string, value: string): boolean {
  if (/^on/i.test(name) || name === 'src' || /^\s*javascript:/i.test(value)) return false;
  if (/(^|:)href$/i.test(name)) return OWN.test(value);
  return !/url\(\s*(?!["']?#)/i.test(value);
}

const escape = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] as string);

function attributesOf({ attributes }: Element): string {
  return Object.entries(attributes)
    .filter(([name, value]) => isSafe(name, value) && /^[A-Za-z_][\w.:-]*$/.test(name))
    .filter(([name]) => !name.includes(':') || name === 'xlink:href' || name.startsWith('xml:'))
    .map(([name, value]) => ` ${name}="${escape(name === 'style' ? safeStyle(value) : value)}"`)
    .join('');
}

/** An element as text, with nothing in it that runs or is fetched. `as` gives it another name. */
export function cleanElement(element: Element, as = element.name): string {
  if (!DRAWN.has(element.name)) return '';
  if (element.name === 'style') return styleSheet(textOf(element));
  const inside = element.children
    .map((child) => (typeof child === 'string' ? escape(child) : cleanElement(child)))
    .join('');
  return `<${as}${attributesOf(element)}>${inside}</${as}>`;
}

function styleSheet(text: string): string {
  return `<style>${escape(safeStyle(text))}</style>`;
}

/** Everything that an element refers to, and what that refers to. */
function referred(element: Element, { byId }: Definitions, found: Set<Element>): void {
  const ids = [linkOf(element)];
  const texts = Object.values(element.attributes).join(';');
  for (const [url] of texts.matchAll(/url\([^)]*\)/g)) ids.push(urlOf(url)?.id ?? null);
  for (const id of ids) {
    const target = id === null ? undefined : byId.get(id);
    if (!target || found.has(target)) continue;
    found.add(target);
    referred(target, { byId, rules: [] }, found);
  }
  for (const child of elementsIn(element)) referred(child, { byId, rules: [] }, found);
}

const number = (value: number): string => String(Math.round(value * 1e6) / 1e6);

const ROOT = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"';

/** Some part of a drawing that is to be shown by itself. */
export interface ShownPart {
  readonly element: Element;
  /** From the space that the element stands in to that of the drawing. */
  readonly outer: Matrix;
  /** The style that it stands in. */
  readonly around: Style;
}

/** A part as an SVG of its own: what lies in a box of the drawing, with all that it refers to, and style sheets as text. */
export function partAsSvg(part: ShownPart, box: Box, definitions: Definitions, sheets: string): string {
  const found = new Set<Element>();
  referred(part.element, definitions, found);
  for (const rule of definitions.rules)
    for (const value of Object.values(rule.declarations)) {
      const target = definitions.byId.get(urlOf(value)?.id ?? '');
      if (target && !found.has(target)) {
        found.add(target);
        referred(target, definitions, found);
      }
    }
  const around = Object.entries(part.around)
    .filter(([name, value]) => value !== STANDARD_STYLE[name as keyof Style] && isInherited(name))
    .map(([name, value]) => `${name}:${name === 'font-size' ? `${value}px` : value}`)
    .join(';');
  const inside = new Set<Element>();
  const gather = (element: Element): void => {
    inside.add(element);
    elementsIn(element).forEach(gather);
  };
  gather(part.element);
  const defs = [...found].filter((one) => !inside.has(one)).map((one) => cleanElement(one));
  const [width, height] = [box.right - box.left, box.bottom - box.top].map(number);
  const style = around === '' ? '' : ` style="${escape(safeStyle(around))}"`;
  const as = part.element.name === 'symbol' || part.element.name === 'svg' ? 'g' : undefined;
  return `<svg ${ROOT} width="${width}" height="${height}" viewBox="${number(box.left)} ${number(box.top)} ${width} ${height}">${sheets}<defs>${defs.join('')}</defs><g transform="matrix(${part.outer.map(number).join(' ')})"${style}>${cleanElement(part.element, as)}</g></svg>`;
}

const OWN_ALONE = [
  'opacity',
  'display',
  'clip-path',
  'mask',
  'mask-type',
  'filter',
  'mix-blend-mode',
  'transform',
  'vector-effect',
];

function isInherited(name: string): boolean {
  return !OWN_ALONE.includes(name) && !name.startsWith('stop-') && name !== 'dominant-baseline';
}

/** A whole drawing as harmless SVG of a size in px. */
export function cleanRoot(root: Element, width: number, height: number): string {
  const { width: _width, height: _height, ...attributes } = root.attributes;
  const view = attributes['viewBox'] === undefined ? ` viewBox="0 0 ${number(width)} ${number(height)}"` : '';
  const text = cleanElement({ ...root, name: 'svg', attributes });
  return text.replace(/^<svg/, `<svg ${ROOT} width="${number(width)}" height="${number(height)}"${view}`);
}
