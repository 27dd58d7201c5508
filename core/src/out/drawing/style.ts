import { isAbout, readDeclarations, type CssRule } from './css';
import type { Element } from './xml';

/** Properties that are handed on to what is in an element, with what they are at first. Source: SVG 2, appendix G. */
const INHERITED = {
  fill: 'black',
  'fill-opacity': '1',
  'fill-rule': 'nonzero',
  stroke: 'none',
  'stroke-opacity': '1',
  'stroke-width': '1',
  'stroke-linecap': 'butt',
  'stroke-linejoin': 'miter',
  'stroke-miterlimit': '4',
  'stroke-dasharray': 'none',
  'stroke-dashoffset': '0',
  color: 'black',
  visibility: 'visible',
  'clip-rule': 'nonzero',
  'font-family': 'sans-serif',
  'font-size': '16',
  'font-weight': '400',
  'font-style': 'normal',
  'letter-spacing': '0',
  'word-spacing': '0',
  'text-anchor': 'start',
  'paint-order': 'normal',
  'marker-start': 'none',
  'marker-mid': 'none',
  'marker-end': 'none',
} as const;

/** Properties of an element alone. */
const OWN = {
  opacity: '1',
  display: 'inline',
  'clip-path': 'none',
  mask: 'none',
  'mask-type': 'luminance',
  filter: 'none',
  'mix-blend-mode': 'normal',
  'stop-color': 'black',
  'stop-opacity': '1',
  transform: '',
  'vector-effect': 'none',
  'dominant-baseline': 'auto',
} as const;

type InheritedName = keyof typeof INHERITED;
type OwnName = keyof typeof OWN;

/** What is stated of an element, with what it inherits. */
export type Style = Readonly<Record<InheritedName | OwnName, string>>;

const INHERITED_NAMES = Object.keys(INHERITED) as InheritedName[];
const OWN_NAMES = Object.keys(OWN) as OwnName[];

/** How everything is drawn where nothing is stated. */
export const STANDARD_STYLE: Style = { ...INHERITED, ...OWN };

/** What an element states itself: attributes, over them style sheets, over them its style attribute. */
function stated(element: Element, rules: readonly CssRule[]): Record<string, string> {
  const all: Record<string, string> = {};
  for (const name of [...INHERITED_NAMES, ...OWN_NAMES]) {
    const attribute = element.attributes[name];
    if (attribute !== undefined) all[name] = attribute.trim();
  }
  for (const rule of rules) if (isAbout(rule, element)) Object.assign(all, rule.declarations);
  const { style } = element.attributes;
  return style === undefined ? all : { ...all, ...readDeclarations(style) };
}

/** The style of an element in one of a style. */
export function styleOf(element: Element, parent: Style, rules: readonly CssRule[]): Style {
  const own = stated(element, rules);
  const pick = (name: InheritedName | OwnName, standard: string): string => {
    const value = own[name]?.replace(/\s*!important$/, '');
    // Source: CSS Cascading and Inheritance 4, section 7.3.
    if (value === 'inherit') return parent[name];
    if (value === 'initial') return STANDARD_STYLE[name];
    return value === undefined || value === '' || value === 'unset' ? standard : value;
  };
  const inherited = INHERITED_NAMES.map((name) => [name, pick(name, parent[name])] as const);
  const alone = OWN_NAMES.map((name) => [name, pick(name, OWN[name])] as const);
  const all = Object.fromEntries([...inherited, ...alone]) as Style;
  return {
    ...all,
    'font-size': String(fontSize(all['font-size'], parent)),
    'font-weight': weight(all['font-weight'], parent),
  };
}

/** Lengths of a font's size are those of the size above. */
function fontSize(text: string, parent: Style): number {
  const above = Number(parent['font-size']) || 16;
  const match = /^([\d.]+)(em|rem|%)$/.exec(text);
  if (!match) return lengthOf(text, above) ?? above;
  const value = Number(match[1]);
  return match[2] === '%' ? (value * above) / 100 : value * (match[2] === 'rem' ? 16 : above);
}

const WEIGHTS: Readonly<Record<string, string>> = { normal: '400', bold: '700' };

/** Weights that are said by that of what they are in. Source: CSS Fonts 4, section 2.2.1. */
function weight(text: string, parent: Style): string {
  const above = Number(parent['font-weight']) || 400;
  if (text === 'bolder') return String(above < 350 ? 400 : above < 550 ? 700 : Math.max(900, above));
  if (text === 'lighter') return String(above < 550 ? Math.min(100, above) : above < 750 ? 400 : 700);
  return WEIGHTS[text] ?? text;
}

/** px of each unit. Source: CSS Values 4, section 6.2. */
const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  pt: 96 / 72,
  pc: 16,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  q: 96 / 101.6,
  in: 96,
};

/** A length in px; per cents are of `whole`. Null for what is none. */
export function lengthOf(text: string | undefined, whole: number): number | null {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '');
  if (!match) return null;
  const unit = match[2].toLowerCase();
  const factor = unit === '%' ? whole / 100 : unit === 'em' ? 16 : unit === 'ex' ? 8 : UNITS[unit];
  const value = factor === undefined ? NaN : Number(match[1]) * factor;
  return Number.isFinite(value) ? value : null;
}

/** A share: a number or per cents, held within 0 and 1. */
export function shareOf(text: string): number {
  const value = text.endsWith('%') ? Number(text.slice(0, -1)) / 100 : Number(text);
  return Number.isFinite(value) ? Math.min(1, Math.max(0, value)) : 1;
}
