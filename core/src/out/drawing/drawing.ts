import type { Matrix } from '../../basics/transform';
import { FONTS } from '../../scene/layer';
import { cleanRoot, cleanSheets, type CleanSheets } from './clean';
import { readRules, type CssRule } from './css';
import { facesIn, type EmbeddedFace } from './faces';
import { viewBoxMatrix } from './matrix';
import type { Room } from './shape';
import { lengthOf } from './style';
import { readParts, type Part } from './tree';
import { elementsIn, readXml, textOf, type Element } from './xml';

/** A font that words can be set in: its family, and its file where it is one's own. */
export interface FontAtHand {
  readonly name: string;
  readonly file?: string;
}

/** An SVG file that was read. */
export interface Drawing {
  /** Size in px. */
  readonly width: number;
  readonly height: number;
  readonly root: Part;
  /** All of it as an SVG in which nothing runs or is fetched. */
  readonly clean: string;
  readonly byId: ReadonlyMap<string, Element>;
  readonly rules: readonly CssRule[];
  readonly sheets: CleanSheets;
  /** Size of the drawing's own space, which per cents are of. */
  readonly room: Room;
  readonly fonts: readonly FontAtHand[];
  /** Fonts that the file carries in itself. */
  readonly faces: readonly EmbeddedFace[];
}

/** A drawing, or why it cannot be read. */
export type DrawingResult =
  { readonly ok: true; readonly drawing: Drawing } | { readonly ok: false; readonly message: string };

/** Size of a drawing that states none. Source: CSS Images 3, default object size. */
const STANDARD = { width: 300, height: 150 };
const LARGEST = 100_000;

const AT_HAND: readonly FontAtHand[] = FONTS.map((name) => ({ name }));

function sizeOf({ attributes }: Element, box: readonly number[] | null): { width: number; height: number } {
  const length = (name: string): number | null => {
    const text = attributes[name];
    const value = text?.includes('%') === true ? null : lengthOf(text, 0);
    return value !== null && value > 0 ? Math.min(LARGEST, value) : null;
  };
  const [width, height] = [length('width'), length('height')];
  const share = box ? box[3] / box[2] : null;
  if (width !== null && height !== null) return { width, height };
  if (width !== null) return { width, height: share === null ? STANDARD.height : width * share };
  if (height !== null) return { width: share === null ? STANDARD.width : height / share, height };
  return box ? { width: Math.min(LARGEST, box[2]), height: Math.min(LARGEST, box[3]) } : STANDARD;
}

function viewBoxOf({ attributes }: Element): readonly number[] | null {
  const box =
    attributes['viewBox']
      ?.trim()
      .split(/[\s,]+/)
      .map(Number) ?? [];
  return box.length === 4 && box.every(Number.isFinite) && box[2] > 0 && box[3] > 0 ? box : null;
}

function gather(root: Element): { byId: Map<string, Element>; sheets: Element[] } {
  const byId = new Map<string, Element>();
  const sheets: Element[] = [];
  const visit = (element: Element): void => {
    const { id } = element.attributes;
    if (id !== undefined && !byId.has(id)) byId.set(id, element);
    if (element.name === 'style') sheets.push(element);
    elementsIn(element).forEach(visit);
  };
  visit(root);
  return { byId, sheets };
}

/**
 * Reads the text of an SVG file. Nothing of it is run or fetched; what repeats itself endlessly, or is larger than a drawing
 * can be, is refused with the reason. Words become words in the fonts that are at hand, by their family's name, and outlines
 * in those that it carries itself.
 */
export function readDrawing(text: string, fonts: readonly FontAtHand[] = AT_HAND): DrawingResult {
  const read = readXml(text);
  if (!read.ok) return read;
  const { root } = read;
  if (root.name !== 'svg') return { ok: false, message: `it begins with “${root.name.slice(0, 40)}”, not with an SVG` };
  const { byId, sheets: styleElements } = gather(root);
  const styles = styleElements.map(textOf);
  const rules = readRules(styles.join('\n'));
  const box = viewBoxOf(root);
  const { width, height } = sizeOf(root, box);
  const room = box ? { width: box[2], height: box[3] } : { width, height };
  const view: Matrix = viewBoxMatrix(box, width, height, root.attributes['preserveAspectRatio']);
  const parts = readParts(root, view, room, { byId, rules });
  if (parts.parts.length === 0) return { ok: false, message: 'nothing is drawn in it' };
  const clean = cleanRoot(root, width, height);
  const [faces, sheets] = [facesIn(styles), cleanSheets(styles)];
  return { ok: true, drawing: { width, height, root: parts, clean, byId, rules, sheets, room, fonts, faces } };
}

/** How deep a drawing is taken apart. */
export type DrawingLevel = 'one' | 'top' | 'all';

/** Groups that become one picture each at a level: the whole drawing, each group on top, or none. */
export function wholeAt({ root }: Drawing, level: DrawingLevel): Set<string> {
  if (level === 'one') return new Set([root.id]);
  return new Set(level === 'all' ? [] : root.parts.filter(({ kind }) => kind === 'group').map(({ id }) => id));
}

/** How many layers a part becomes, with itself. */
export function layerCount(part: Part, whole: ReadonlySet<string>): number {
  if (part.kind !== 'group' || part.isFixed || whole.has(part.id)) return 1;
  return part.parts.reduce((sum, child) => sum + layerCount(child, whole), 1);
}
