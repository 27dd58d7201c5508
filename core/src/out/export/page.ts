import { CHANNELS, clampToChannel, type ChannelId } from '../../basics/channel';
import { oklabFromCss } from '../../basics/colour';
import { outlinePath, pictureSize } from '../../scene/outline';
import { bakedScene, EXPORT_WITHIN, sampleTrack } from '../../scene/sample';
import {
  isSeen,
  isTrimmed,
  lineStep,
  restValue,
  tracksOf,
  undrawnMattes,
  type Layer,
  type LayerLook,
} from '../../scene/layer';
import { axesText, ownFamily } from '../../scene/file';
import type { Scene } from '../../scene/scene';
import { frameTicks, secondsFromTicks, type Ticks } from '../../basics/time';
import { escapeHtml, isKeyed, limited, propertyOf, px, turnedBy, variable } from './css';
import { cssTrack, decimal, percentOf } from './keyframes';
import { filterText, maskText, overlays, twoColourFilter, type Drawn } from './page-looks';
import { TYPED_STYLE, wordsDrawn } from './page-words';
import { PLAYER } from './player';

/** How a page is written. */
export interface PageOptions {
  /** CSS text of `@font-face` rules with the fonts embedded; without it the reader's own fonts stand in. */
  readonly fontFaces?: string;
  /** Text of the addresses of files, by which they stand in the page itself. */
  readonly embedded?: ReadonlyMap<string, string>;
}

/** Registers every channel as a number, so that the browser interpolates it, and keeps it from being inherited. */
const REGISTRATIONS = CHANNELS.map(
  ({ id, default: standard }) =>
    `@property ${propertyOf(id)} { syntax: '<number>'; inherits: false; initial-value: ${decimal(standard)} }`,
).join('\n');

/** What is drawn of a layer itself takes its channels from it; layers inside a group have their own. */
const TAKEN = CHANNELS.map(({ id }) => `${propertyOf(id)}: inherit`).join('; ');

const [START, END] = [limited('stroke.start'), limited('stroke.end')];

const BASE_STYLE = `
${REGISTRATIONS}
@property --live { syntax: '<number>'; inherits: false; initial-value: 1 }
html, body { height: 100%; overflow: hidden }
body { margin: 0; background: #3c3c3a }
.frame { position: absolute; left: 0; top: 0; overflow: hidden; background: #000; transform-origin: 0 0 }
.layer, .own, .own > * { position: absolute; left: 0; top: 0; width: ${px('size.x')}; height: ${px('size.y')} }
.layer {
  opacity: calc(${variable('opacity')} * var(--live));
  transform-origin: 0 0;
  transform: translate(${px('position.x')}, ${px('position.y')})
    rotate(calc(${variable('rotation')} * 1deg)) skewX(calc(${variable('skew')} * 1deg))
    scale(${variable('scale.x')}, ${variable('scale.y')})
    translate(calc(${variable('anchor.x')} * ${variable('size.x')} * -1px),
      calc(${variable('anchor.y')} * ${variable('size.y')} * -1px));
}
.own, .own * { ${TAKEN} }
.word { display: flex; align-items: center; white-space: pre;
  letter-spacing: ${px('letterSpacing')} }
.word > span { position: static; flex: none; width: auto; height: auto }
${TYPED_STYLE}
.middle > span { margin-left: ${px('letterSpacing')} }
.right > span { margin-right: calc(${px('letterSpacing')} * -1) }
.left { justify-content: flex-start; text-align: left }
.middle { justify-content: center; text-align: center }
.right { justify-content: flex-end; text-align: right }
.own > svg { overflow: visible }
.picture { overflow: hidden; border-radius: ${px('corner')} }
.picture > :is(img, video) { position: absolute;
  --fits: calc(max(${variable('size.x')} / var(--w), ${variable('size.y')} / var(--h)) * ${limited('crop.zoom')});
  width: calc(var(--w) * var(--fits) * 1px); height: calc(var(--h) * var(--fits) * 1px);
  left: calc(-1px * min(var(--w) * var(--fits) - ${variable('size.x')},
    max(0, ${limited('crop.x')} * var(--w) * var(--fits) - ${variable('size.x')} / 2)));
  top: calc(-1px * min(var(--h) * var(--fits) - ${variable('size.y')},
    max(0, ${limited('crop.y')} * var(--h) * var(--fits) - ${variable('size.y')} / 2)));
}
.line { fill: none; stroke-linejoin: round;
  --part: calc(max(${START}, ${END}) - min(${START}, ${END}));
  stroke-width: ${px('stroke.width')} }
.trim { stroke-width: calc(${variable('stroke.width')} * min(1, var(--part) * 1000000) * 1px);
  stroke-dasharray: var(--part) max(0, 1 - var(--part));
  stroke-dashoffset: calc(-1 * (min(${START}, ${END}) + ${variable('stroke.shift')})) }
.tint, .edge, .inset { border-radius: ${px('corner')} }
.round > .tint, .round > .edge, .round > .inset { border-radius: 50% }
.tint { opacity: ${limited('tint.amount')} }
.edge { box-sizing: border-box; padding: ${px('border.width')};
  left: calc(-1px * var(--out) * ${variable('border.width')}); top: calc(-1px * var(--out) * ${variable('border.width')});
  width: calc((${variable('size.x')} + 2 * var(--out) * ${variable('border.width')}) * 1px);
  height: calc((${variable('size.y')} + 2 * var(--out) * ${variable('border.width')}) * 1px);
  border-radius: calc((${variable('corner')} + var(--out) * ${variable('border.width')}) * min(1, ${variable('corner')} * 1000000) * 1px);
  mask: linear-gradient(#000 0 0) content-box exclude, linear-gradient(#000 0 0) }
.controls { position: fixed; left: 0; right: 0; bottom: 0; display: flex; gap: 12px; align-items: center;
  padding: 8px 14px; background: rgb(20 24 25 / 72%); color: #f1ecdf; font: 14px/1.4 system-ui, sans-serif }
.controls[hidden] { display: none }
.controls button { min-width: 72px; padding: 6px 14px; border: 0; border-radius: 16px; background: #f3c98b; color: #1d2629; font: inherit; font-weight: 600; cursor: pointer }
.controls input { flex: 1; accent-color: #f3c98b }
.controls output { min-width: 64px; text-align: right; font-variant-numeric: tabular-nums }
`;

const FILL: readonly ChannelId[] = ['fill.l', 'fill.a', 'fill.b'];
const STROKE: readonly ChannelId[] = ['stroke.l', 'stroke.a', 'stroke.b'];
const SHAPE: readonly ChannelId[] = ['size.x', 'size.y', 'corner'];

function colourText(layer: Layer, ids: readonly ChannelId[], still: string): string {
  if (!isKeyed(layer, ids)) return still;
  return `oklab(${ids.map(variable).join(' ')} / ${decimal(oklabFromCss(still)?.alpha ?? 1)})`;
}

function fillText(layer: Layer): string {
  const { fill } = layer.look;
  if (fill === undefined) return 'transparent';
  return typeof fill === 'string' ? colourText(layer, FILL, fill) : paintText(fill);
}

function paintText(fill: NonNullable<LayerLook['fill']>): string {
  if (typeof fill === 'string') return fill;
  // Words alone come here with stops of their own, and stand in the first.
  if ('stops' in fill) return fill.stops[0].colour;
  return `linear-gradient(${turnedBy(fill.angle, 'fill.turn')}, ${fill.from}, ${fill.to})`;
}

/** An animation: its keyframes, and how an element uses it. */
interface Animation {
  readonly rule: string;
  readonly use: string;
}

function valueIn(layer: Layer, id: ChannelId, at: Ticks): number {
  const track = layer.tracks[id];
  return clampToChannel(id, track ? sampleTrack(track, at) : restValue(layer, id));
}

function outlineAt(layer: Layer, at: Ticks): string {
  const [width, height, corner] = SHAPE.map((id) => valueIn(layer, id, at));
  return outlinePath(layer.source, width, height, corner);
}

/** An outline that changes its shape, frame by frame between its first and last key; null where it keeps it. */
function outlineAnimation(layer: Layer, scene: Scene, name: string, write: (d: string) => string): Animation | null {
  const times = SHAPE.flatMap((id) => layer.tracks[id] ?? []).map(({ at }) => at);
  if (times.length < 2) return null;
  const [first, last] = [Math.min(...times), Math.max(...times)];
  const step = frameTicks(scene.rate);
  const frames: Ticks[] = [];
  for (let at = first; at < last; at += step) frames.push(at);
  const stops = [...frames, last].map(
    (at) => `${percentOf((at - first) / (last - first))}% { ${write(outlineAt(layer, at))} }`,
  );
  const seconds = decimal(secondsFromTicks(last - first));
  return {
    rule: `@keyframes ${name} {\n  ${stops.join('\n  ')}\n}`,
    use: `${name} ${seconds}s linear ${decimal(secondsFromTicks(first))}s both`,
  };
}

type ManyStops = Extract<LayerLook['fill'], { stops: unknown }>;

/** Shapes with an outline, and all paths, are drawn along their path; plain cards are boxes of CSS. */
function isAlongPath({ source, look }: Layer): boolean {
  return source.type === 'path' || look.stroke !== undefined || (typeof look.fill === 'object' && 'stops' in look.fill);
}

/** A gradient of many stops as SVG draws it in the box of a shape. */
function gradientElement({ kind, stops, map }: ManyStops, id: string): string {
  const [tag, line] =
    kind === 'linear' ? ['linearGradient', 'x1="0" y1="0" x2="1" y2="0"'] : ['radialGradient', 'cx="0" cy="0" r="1"'];
  const inside = stops.map(({ at, colour }) => `<stop offset="${decimal(at)}" stop-color="${escapeHtml(colour)}"/>`);
  return `<defs><${tag} id="${id}" ${line} gradientTransform="matrix(${map.map((value) => decimal(value)).join(' ')})">${inside.join('')}</${tag}></defs>`;
}

/** A fill that follows a path: a plain colour as SVG, a gradient as a box that is cut along the path. */
function pathFill(layer: Layer, scene: Scene, id: string): Drawn {
  const { fill, rule } = layer.look;
  if (fill === undefined) return { html: '', rules: [] };
  const d = outlineAt(layer, layer.span.in);
  const name = `${id}-fill`;
  if (typeof fill === 'string' || 'stops' in fill) {
    const animation = outlineAnimation(layer, scene, name, (path) => `d: path("${path}")`);
    const shown = typeof fill === 'string' ? fillText(layer) : `url(#${id}-stops)`;
    const defs = typeof fill === 'string' ? '' : gradientElement(fill, `${id}-stops`);
    const inside = rule === undefined ? '' : `; fill-rule: ${rule}`;
    return {
      html: `<svg aria-hidden="true">${defs}<path id="${name}" d="${escapeHtml(d)}"/></svg>`,
      rules: [
        `#${name} { fill: ${shown}${inside}${animation ? `; animation: ${animation.use}` : ''} }`,
        ...(animation ? [animation.rule] : []),
      ],
    };
  }
  const across = rule === undefined ? '' : `${rule}, `;
  const animation = outlineAnimation(layer, scene, name, (path) => `clip-path: path(${across}"${path}")`);
  const still = `background: ${fillText(layer)}; clip-path: path(${across}"${d}")`;
  return {
    html: `<div id="${name}"></div>`,
    rules: [
      `#${name} { ${still}${animation ? `; animation: ${animation.use}` : ''} }`,
      ...(animation ? [animation.rule] : []),
    ],
  };
}

function pathStroke(layer: Layer, scene: Scene, id: string): Drawn {
  const { stroke, cap, join, dash } = layer.look;
  if (stroke === undefined) return { html: '', rules: [] };
  const name = `${id}-line`;
  const animation = outlineAnimation(layer, scene, name, (path) => `d: path("${path}")`);
  const isPart = isTrimmed(layer);
  const d = escapeHtml(outlineAt(layer, layer.span.in));
  const styles = [
    `stroke: ${colourText(layer, STROKE, stroke)}`,
    `stroke-linecap: ${cap ?? 'butt'}`,
    ...(join === undefined ? [] : [`stroke-linejoin: ${join}`]),
    ...(dash === undefined || isPart
      ? []
      : [`stroke-dasharray: ${dash.map((length) => `${decimal(length)}px`).join(' ')}`]),
    ...(animation ? [`animation: ${animation.use}`] : []),
  ];
  return {
    html: `<svg aria-hidden="true"><path id="${name}" class="line${isPart ? ' trim' : ''}"${isPart ? ' pathLength="1"' : ''} d="${d}"/></svg>`,
    rules: [`#${name} { ${styles.join('; ')} }`, ...(animation ? [animation.rule] : [])],
  };
}

/** What is drawn of a layer itself. */
function drawOwn(layer: Layer, scene: Scene, id: string, embedded: PageOptions['embedded']): Drawn {
  const { source } = layer;
  const own = (classes: string, styles: readonly string[], html: string, rules: readonly string[] = []): Drawn => ({
    html: `<div class="own${layer.source.type === 'ellipse' ? ' round' : ''}${classes}" id="${id}-own">${html}${twoColourFilter(layer, id)}</div>`,
    rules: [`#${id}-own { ${[...styles, ...filterText(layer, id)].join('; ')} }`, ...rules],
  });
  const over = overlays(layer, id);
  switch (source.type) {
    case 'none':
    case 'sound':
      return { html: '', rules: [] };
    case 'text': {
      const family = source.fontFile === undefined ? source.font : ownFamily(source.fontFile);
      const font = `font: ${source.weight} ${source.size}px/${decimal(lineStep(source))}px '${family}', sans-serif`;
      const apart = source.wordSpacing ? [`word-spacing: ${decimal(source.wordSpacing)}px`] : [];
      const axes = source.fontFile === undefined ? '' : axesText(source.axes);
      const varied = axes === '' ? [] : [`font-variation-settings: ${axes}`];
      const isGradient = typeof layer.look.fill === 'object' && 'from' in layer.look.fill;
      const colour = layer.look.fill === undefined ? 'color: #000' : `color: ${fillText(layer)}`;
      const { html, rules } = wordsDrawn(layer, source, scene, `${id}-words`);
      const clipped = `background: ${fillText(layer)}; background-clip: text; color: transparent`;
      return own(` word ${source.align}`, [isGradient ? clipped : colour, font, ...apart, ...varied], html, rules);
    }
    case 'picture': {
      const { width, height, href } = source;
      const size = width && height ? { width, height } : (pictureSize(href) ?? { width: 1, height: 1 });
      const styles = `--w: ${decimal(size.width)}; --h: ${decimal(size.height)}`;
      const shown = `<img src="${escapeHtml(embedded?.get(href) ?? href)}" style="${styles}" alt="">`;
      return own('', [], `<div class="picture">${shown}</div>${over.html}`, over.rules);
    }
    case 'clip': {
      const styles = `--w: ${source.width}; --h: ${source.height}`;
      const [from, length, begins, ends] = [source.from, source.length, layer.span.in, layer.span.out].map((at) =>
        decimal(secondsFromTicks(at)),
      );
      const played = `data-from="${from}" data-length="${length}" data-in="${begins}" data-out="${ends}" data-pace="${decimal(source.pace)}" data-loops="${source.loops === true ? 1 : 0}"`;
      const address = escapeHtml(embedded?.get(source.href) ?? source.href);
      const shown = `<video muted playsinline preload="auto" src="${address}" ${played} style="${styles}"></video>`;
      return own('', [], `<div class="picture">${shown}</div>${over.html}`, over.rules);
    }
    case 'rectangle':
    case 'ellipse':
    case 'path': {
      if (!isAlongPath(layer)) {
        const corner = source.type === 'ellipse' ? '50%' : px('corner');
        return own('', [`background: ${fillText(layer)}`, `border-radius: ${corner}`], over.html, over.rules);
      }
      const [fill, stroke] = [pathFill(layer, scene, id), pathStroke(layer, scene, id)];
      return own('', [], fill.html + stroke.html + over.html, [...fill.rules, ...stroke.rules, ...over.rules]);
    }
  }
}

function ownStyle(layer: Layer): string[] {
  const rest = Object.keys(layer.rest) as ChannelId[];
  // Of a colour that is keyed in one part the others are what they are at rest.
  const keyed = [FILL, STROKE].flatMap((ids) =>
    isKeyed(layer, ids) ? ids.filter((id) => layer.rest[id] === undefined) : [],
  );
  return [...rest, ...keyed].map((id) => `${propertyOf(id)}: ${decimal(restValue(layer, id))}`);
}

/** Shows a layer only within its span, by a number that its opacity is multiplied with. */
function spanAnimation(layer: Layer, scene: Scene, name: string): Animation | null {
  if (layer.span.in <= 0 && layer.span.out >= scene.length) return null;
  const end = Math.max(scene.length, layer.span.out);
  const share = (at: number): string => percentOf(Math.min(1, Math.max(0, at) / end));
  const hidden = layer.span.in > 0 ? '0% { --live: 0; animation-timing-function: steps(1, jump-end) }\n  ' : '';
  const rule = `@keyframes ${name} {
  ${hidden}${share(layer.span.in)}% { --live: 1; animation-timing-function: steps(1, jump-end) }
  ${share(layer.span.out)}% { --live: 0; animation-timing-function: steps(1, jump-end) }
  100% { --live: 0 }
}`;
  return { rule, use: `${name} ${decimal(secondsFromTicks(end))}s linear 0s both` };
}

function layerAnimations(layer: Layer, scene: Scene, id: string): Animation[] {
  const tracks = tracksOf(layer).map(([channel, keys]): Animation => {
    const name = `${id}-${propertyOf(channel).slice(2)}`;
    const { keyframes, delay, duration } = cssTrack(keys, propertyOf(channel));
    // A single key has no length; it then stands from the beginning, as it does when sampled.
    const seconds = duration === 0 ? 1 : duration;
    return {
      rule: `@keyframes ${name} {\n  ${keyframes}\n}`,
      use: `${name} ${decimal(seconds)}s linear ${decimal(delay)}s both`,
    };
  });
  const span = spanAnimation(layer, scene, `${id}-live`);
  return span ? [...tracks, span] : tracks;
}

interface Entry {
  readonly layer: Layer;
  readonly index: number;
}

/** Layers that are drawn, by the group that they are in. */
function drawnByParent(scene: Scene): ReadonlyMap<string | null, readonly Entry[]> {
  const children = new Map<string | null, Entry[]>();
  const mattes = undrawnMattes(scene.layers);
  scene.layers.forEach((layer, index) => {
    if (layer.hidden || !isSeen(layer) || mattes.has(layer.id)) return;
    const siblings = children.get(layer.parent);
    if (siblings) siblings.push({ layer, index });
    else children.set(layer.parent, [{ layer, index }]);
  });
  return children;
}

/** Sounds that are heard, each with where in it, and when in the scene, it begins and ends: seconds. */
function soundElements({ layers }: Scene, embedded: PageOptions['embedded']): string {
  return layers
    .flatMap(({ source, span, hidden }) => {
      if (source.type !== 'sound' || hidden) return [];
      const [from, begins, ends] = [source.from, span.in, span.out].map((at) => decimal(secondsFromTicks(at)));
      const address = escapeHtml(embedded?.get(source.href) ?? source.href);
      return [
        `<audio preload="auto" src="${address}" data-from="${from}" data-in="${begins}" data-out="${ends}" data-gain="${decimal(Math.min(1, source.gain))}"></audio>`,
      ];
    })
    .join('\n');
}

/**
 * A scene as one HTML page that any browser with registered custom properties plays (CSS Properties and Values 1):
 * each keyed channel is a number of its own with its own `@keyframes`, so that times and easings are exact. The page fits
 * any window, and plays, pauses and scrubs (see `PLAYER`). Hidden layers and guides are left out. Elements carry
 * `data-layer` with the layer's id. What rigs drive and motion paths
 * add is written as keys within `EXPORT_WITHIN`, and the page says so. Mattes have no counterpart in CSS: layers are drawn
 * whole, and their mattes are left out (see `leftOut`).
 */
export function exportPage(given: Scene, { fontFaces = '', embedded }: PageOptions = {}): string {
  const scene = bakedScene(given);
  const note =
    scene === given
      ? ''
      : `<!-- What rigs drive, and motion along paths, stands here as keyframes, at most ${EXPORT_WITHIN} px, degrees or per cent off. -->\n`;
  const rules: string[] = [];
  const childrenOf = drawnByParent(scene);
  const write = (parent: string | null): string =>
    (childrenOf.get(parent) ?? [])
      .map(({ layer, index }) => {
        const id = `l${index}`;
        const animations = layerAnimations(layer, scene, id);
        const uses = animations.map(({ use }) => use).join(', ');
        const { blend } = layer.look;
        const mixed = [...(blend === undefined ? [] : [`mix-blend-mode: ${blend}`]), ...maskText(layer, embedded)];
        const style = [...ownStyle(layer), ...mixed, ...(uses === '' ? [] : [`animation: ${uses}`])].join('; ');
        const own = drawOwn(layer, scene, id, embedded);
        rules.push(...animations.map(({ rule }) => rule), `#${id} { ${style} }`, ...own.rules);
        return `<div class="layer" id="${id}" data-layer="${layer.id}">${own.html}${write(layer.id)}</div>`;
      })
      .join('\n');
  const body = write(null);
  const [length, step] = [scene.length, frameTicks(scene.rate)].map((ticks) => decimal(secondsFromTicks(ticks) * 1000));
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
${note}<title>${escapeHtml(scene.name)}</title>
<style>
${fontFaces}${BASE_STYLE}
.frame { width: ${scene.width}px; height: ${scene.height}px${scene.background ? `; background: ${paintText(scene.background)}` : ''} }
${rules.join('\n')}
</style>
</head>
<body>
<main class="frame" aria-label="${escapeHtml(scene.name)}" data-width="${scene.width}" data-height="${scene.height}" data-length="${length}" data-step="${step}">
${body}
</main>
${soundElements(scene, embedded)}
<div class="controls" role="group" aria-label="Playing" hidden><button type="button">Play</button><input type="range" aria-label="Time" min="0" value="0"><output></output></div>
<script type="module">${PLAYER}</script>
</body>
</html>
`;
}
