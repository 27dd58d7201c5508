import { transformPoint, type Box } from '../../basics/transform';
import type { Layer, LayerSource } from '../../scene/layer';
import { paintOf } from './colours';
import { faceFor, movedOutline } from './faces';
import { add, groupBox, groupLayer, pictureLayer, round, type Maker, type Nest } from './maker';
import { asChannels, evenScale } from './matrix';
import { shapeLayer } from './shape-layers';
import { lengthOf, shareOf } from './style';
import { union, type Part } from './tree';
import { familyOf, linesOf, type Line } from './words';

const ALIGNS = { start: 'left', middle: 'middle', end: 'right' } as const;
/** How much of a line lies before where it is set from. */
const SHARES = { start: 0, middle: 0.5, end: 1 } as const;
const LINE_HEIGHT = 1.2;

/**
 * Lines of a text as layers of words; as outlines in a font that the drawing carries itself; as a picture where a font is
 * not at hand, or letters are set in other ways.
 */
export function wordLayers(maker: Maker, part: Part, nest: Nest): void {
  const lines = linesOf(part.element, part.style, maker.drawing.rules);
  const even = evenScale(part.matrix);
  const made =
    lines && even !== null && part.matrix[0] * part.matrix[3] - part.matrix[1] * part.matrix[2] > 0
      ? lines.map((line) => wordOf(maker, part, line, even))
      : [null];
  if (made.some((word) => word === null)) {
    const outlined = lines && outlines(maker, part, lines);
    return outlined ? outlineLayers(maker, part, nest, outlined) : pictureLayer(maker, part, nest);
  }
  const words = made.filter((word) => word !== null);
  const isMany = words.length > 1;
  const box = isMany ? union(words.map(({ box: own }) => own)) : null;
  const opacity = shareOf(part.style.opacity);
  const inner: Nest = box
    ? { parent: groupLayer(maker, part.name, nest, box, opacity), corner: { x: box.left, y: box.top } }
    : nest;
  for (const { rest, at, source, fill } of words)
    add(
      maker,
      { name: source.text.slice(0, 60), kind: 'word' },
      inner,
      at,
      !isMany && opacity < 1 ? { ...rest, opacity } : rest,
      {
        source,
        look: { fill },
      },
    );
}

/** Lines as shapes, each in a font of the drawing's own; null where one of them is in none. */
function outlines({ drawing, options }: Maker, part: Part, lines: readonly Line[]): readonly Part[] | null {
  const { outline } = options;
  if (!outline || drawing.faces.length === 0) return null;
  const shapes = lines.map(({ text, at, style }): Part | null => {
    const face = faceFor(drawing.faces, familyOf(style), style);
    const align = SHARES[style['text-anchor'] as keyof typeof SHARES] as number | undefined;
    if (!face || align === undefined || style['dominant-baseline'] !== 'auto') return null;
    const line = outline(face, {
      text,
      weight: Number(style['font-weight']) || 400,
      size: Number(style['font-size']),
      letterSpacing: lengthOf(style['letter-spacing'], 0) ?? 0,
      wordSpacing: lengthOf(style['word-spacing'], 0) ?? 0,
    });
    if (!line) return null;
    const d = movedOutline(line.d, { x: at.x - align * line.width, y: at.y });
    const element = { name: 'path', attributes: { d }, children: [] };
    return {
      ...part,
      kind: 'shape',
      name: text.slice(0, 60),
      element,
      style: { ...style, opacity: part.style.opacity },
    };
  });
  return shapes.every((shape) => shape !== null) ? shapes : null;
}

function outlineLayers(maker: Maker, part: Part, nest: Nest, shapes: readonly Part[]): void {
  const [first] = shapes;
  if (!first) return;
  if (shapes.length === 1) return shapeLayer(maker, first, nest);
  const box = union(shapes.map((shape) => groupBox(maker, shape)));
  if (!box) return;
  const parent = groupLayer(maker, part.name, nest, box, shareOf(part.style.opacity));
  const inner: Nest = { parent, corner: { x: box.left, y: box.top } };
  for (const shape of shapes) shapeLayer(maker, { ...shape, style: { ...shape.style, opacity: '1' } }, inner);
}

function wordOf(maker: Maker, part: Part, { text, at, style }: Line, even: number) {
  const { drawing, options } = maker;
  const family = drawing.fonts.find(({ name }) => name.toLowerCase() === familyOf(style).toLowerCase());
  const fill = paintOf(
    style.fill,
    shareOf(style['fill-opacity']),
    style,
    { left: 0, top: 0, right: 1, bottom: 1 },
    drawing,
  );
  const align = ALIGNS[style['text-anchor'] as keyof typeof ALIGNS] as (typeof ALIGNS)[keyof typeof ALIGNS] | undefined;
  const isPlain = style.stroke === 'none' && style['font-style'] === 'normal' && style['dominant-baseline'] === 'auto';
  if (!family || !fill || fill === 'none' || typeof fill.fill !== 'string' || !align || !isPlain) return null;
  if (Number.parseFloat(style['word-spacing']) > 0) return null;
  const factor = even * options.scale;
  const size = Math.min(2_000, Math.max(1, Number(style['font-size']) * factor));
  const source: Extract<LayerSource, { type: 'text' }> = {
    type: 'text',
    text,
    font: family.name,
    ...(family.file === undefined ? {} : { fontFile: family.file }),
    weight: Math.min(900, Math.max(100, Math.round(Number(style['font-weight']) || 400))),
    size: round(size),
    align,
  };
  const spacing = (lengthOf(style['letter-spacing'], 0) ?? 0) * factor;
  const { width, ascent, descent } = options.measure(source, spacing);
  const height = size * LINE_HEIGHT;
  // As the painter sets a line: what is left of its height is shared above and below ascent and descent.
  const baseline = Math.floor((height - ascent - descent) / 2) + ascent;
  // The painter keeps the room behind the last letter out of where a line stands; SVG does not.
  const over = { left: 0, middle: 0.5, right: 1 }[align];
  const start = over * (width + spacing);
  const { rotation } = asChannels(part.matrix);
  const [cos, sin] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
  const [dx, dy] = [(width / 2 - start) / options.scale, (height / 2 - baseline) / options.scale];
  const from = transformPoint(part.matrix, at);
  const middleAt = { x: from.x + cos * dx - sin * dy, y: from.y + sin * dx + cos * dy };
  const [w, h] = [width / options.scale, height / options.scale];
  const box: Box = {
    left: middleAt.x - w / 2,
    top: middleAt.y - h / 2,
    right: middleAt.x + w / 2,
    bottom: middleAt.y + h / 2,
  };
  const rest: Layer['rest'] = {
    'size.x': width,
    'size.y': height,
    ...(Math.abs(rotation) > 1e-6 ? { rotation } : {}),
    ...(spacing === 0 ? {} : { letterSpacing: spacing }),
  };
  return { source, rest, at: middleAt, box, fill: fill.fill };
}
