import svgpath from 'svgpath';
import { CHANNELS, type ChannelId } from '../channel';
import { restValue, tracksOf, type Layer, type Scene } from '../scene';
import { secondsFromTicks } from '../time';
import { cssTrack, decimal } from './keyframes';

export interface PageOptions {
  /** CSS text of `@font-face` rules with the fonts embedded; without it the reader's own fonts stand in. */
  readonly fontFaces?: string;
}

function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
}

function propertyOf(id: ChannelId): string {
  return `--${id.replace('.', '-').toLowerCase()}`;
}

function variable(id: ChannelId): string {
  return `var(${propertyOf(id)})`;
}

function px(id: ChannelId): string {
  return `calc(${variable(id)} * 1px)`;
}

/** Registers every channel as a number, so that the browser interpolates it, and keeps it from being inherited. */
const REGISTRATIONS = CHANNELS.map(
  ({ id, default: standard }) =>
    `@property ${propertyOf(id)} { syntax: '<number>'; inherits: false; initial-value: ${decimal(standard)} }`,
).join('\n');

const BASE_STYLE = `
${REGISTRATIONS}
@property --live { syntax: '<number>'; inherits: false; initial-value: 1 }
body { margin: 0; background: #3c3c3a }
.frame { position: relative; overflow: hidden; background: #000 }
.layer {
  position: absolute; left: 0; top: 0;
  width: ${px('size.x')}; height: ${px('size.y')};
  opacity: calc(${variable('opacity')} * var(--live));
  transform-origin: 0 0;
  transform: translate(${px('position.x')}, ${px('position.y')})
    rotate(calc(${variable('rotation')} * 1deg)) skewX(calc(${variable('skew')} * 1deg))
    scale(${variable('scale.x')}, ${variable('scale.y')})
    translate(calc(${variable('anchor.x')} * ${variable('size.x')} * -1px),
      calc(${variable('anchor.y')} * ${variable('size.y')} * -1px));
}
.word { display: flex; align-items: center; white-space: pre; line-height: 1.2;
  letter-spacing: ${px('letterSpacing')} }
.left { justify-content: flex-start; text-align: left }
.middle { justify-content: center; text-align: center }
.right { justify-content: flex-end; text-align: right }
.layer > svg { position: absolute; left: 0; top: 0; width: 100%; height: 100%; overflow: visible }
.trim { stroke-dasharray: max(0.00001, ${variable('stroke.end')} - ${variable('stroke.start')}) 2;
  stroke-dashoffset: calc(-1 * (${variable('stroke.start')} + ${variable('stroke.shift')})) }
.blurred { filter: blur(${px('blur')}) }
`;

function isKeyed(layer: Layer, ids: readonly ChannelId[]): boolean {
  return ids.some((id) => layer.tracks[id] !== undefined);
}

const FILL: readonly ChannelId[] = ['fill.l', 'fill.a', 'fill.b'];
const STROKE: readonly ChannelId[] = ['stroke.l', 'stroke.a', 'stroke.b'];

function colourText(layer: Layer, ids: readonly ChannelId[], still: string): string {
  return isKeyed(layer, ids) ? `oklab(${ids.map(variable).join(' ')})` : still;
}

function fillText(layer: Layer): string {
  const { fill } = layer.look;
  if (fill === undefined) return 'transparent';
  if (typeof fill === 'string') return colourText(layer, FILL, fill);
  return `linear-gradient(${decimal(fill.angle + 180)}deg, ${fill.from}, ${fill.to})`;
}

/** A path in the pixels of the layer's resting box. */
function pathData(layer: Layer, d: string): string {
  return svgpath(d)
    .scale(restValue(layer, 'size.x') / 100, restValue(layer, 'size.y') / 100)
    .round(3)
    .toString();
}

function shapeElement(layer: Layer): string {
  const { source } = layer;
  if (source.type === 'path') return `<path d="${escapeHtml(pathData(layer, source.d))}" ATTRIBUTES/>`;
  if (source.type === 'ellipse') {
    const [rx, ry] = [restValue(layer, 'size.x') / 2, restValue(layer, 'size.y') / 2];
    return `<ellipse cx="${rx}" cy="${ry}" rx="${rx}" ry="${ry}" ATTRIBUTES/>`;
  }
  const [width, height] = [restValue(layer, 'size.x'), restValue(layer, 'size.y')];
  return `<rect width="${width}" height="${height}" rx="${restValue(layer, 'corner')}" ATTRIBUTES/>`;
}

/** Shapes with an outline, and all paths, are drawn as SVG; plain cards are boxes of CSS. */
function needsSvg(layer: Layer): boolean {
  return layer.source.type === 'path' || layer.look.stroke !== undefined;
}

function svgShape(layer: Layer): string {
  const { look } = layer;
  const isOutline = look.stroke !== undefined;
  const stroke = isOutline
    ? `stroke:${colourText(layer, STROKE, look.stroke ?? '')};stroke-width:${px('stroke.width')};stroke-linecap:${look.cap ?? 'butt'}`
    : '';
  const fill = look.fill === undefined ? 'none' : typeof look.fill === 'string' ? fillText(layer) : look.fill.from;
  const trim = isOutline ? ' class="trim" pathLength="1"' : '';
  const inherited = CHANNELS.filter(({ id }) => id.startsWith('stroke.') || id.startsWith('fill.'))
    .map(({ id }) => `${propertyOf(id)}:inherit`)
    .join(';');
  const attributes = `style="fill:${fill};${stroke};${inherited}"${trim}`;
  return `<svg aria-hidden="true" style="${inherited}">${shapeElement(layer).replace('ATTRIBUTES', attributes)}</svg>`;
}

function ownStyle(layer: Layer): string[] {
  const rest = Object.keys(layer.rest) as ChannelId[];
  const styles = rest.map((id) => `${propertyOf(id)}: ${decimal(restValue(layer, id))}`);
  for (const id of [...FILL, ...STROKE]) {
    if (layer.tracks[id]) styles.push(`${propertyOf(id)}: ${decimal(restValue(layer, id))}`);
  }
  const { source } = layer;
  if (source.type === 'text') {
    styles.push(
      `color: ${fillText(layer)}`,
      `font: ${source.weight} ${source.size}px/1.2 '${source.font}', sans-serif`,
    );
  } else if (!needsSvg(layer) && (source.type === 'rectangle' || source.type === 'ellipse')) {
    styles.push(`background: ${fillText(layer)}`, `border-radius: ${source.type === 'ellipse' ? '50%' : px('corner')}`);
  }
  if (layer.look.shadow !== undefined && source.type !== 'none') {
    styles.push(
      `box-shadow: ${px('shadow.x')} ${px('shadow.y')} ${px('shadow.blur')} color-mix(in srgb, ${layer.look.shadow} calc(${variable('shadow.opacity')} * 100%), transparent)`,
    );
  }
  return styles;
}

interface Animation {
  readonly rule: string;
  readonly use: string;
}

/** Shows a layer only within its span, by a number that its opacity is multiplied with. */
function spanAnimation(layer: Layer, scene: Scene, name: string): Animation | null {
  if (layer.span.in <= 0 && layer.span.out >= scene.length) return null;
  const end = Math.max(scene.length, layer.span.out);
  const share = (at: number): string => decimal((Math.max(0, at) / end) * 100);
  const hidden = layer.span.in > 0 ? '0% { --live: 0; animation-timing-function: steps(1, jump-end) }\n  ' : '';
  const rule = `@keyframes ${name} {
  ${hidden}${share(layer.span.in)}% { --live: 1; animation-timing-function: steps(1, jump-end) }
  ${share(layer.span.out)}% { --live: 0; animation-timing-function: steps(1, jump-end) }
  100% { --live: 0 }
}`;
  return { rule, use: `${name} ${decimal(secondsFromTicks(end))}s linear 0s both` };
}

function layerAnimations(layer: Layer, scene: Scene, index: number): Animation[] {
  const tracks = tracksOf(layer).map(([id, keys]): Animation => {
    const name = `k${index}-${propertyOf(id).slice(2)}`;
    const { keyframes, delay, duration } = cssTrack(keys, propertyOf(id));
    // A single key has no length; it then stands from the beginning, as it does when sampled.
    const seconds = duration === 0 ? 1 : duration;
    return {
      rule: `@keyframes ${name} {\n  ${keyframes}\n}`,
      use: `${name} ${decimal(seconds)}s linear ${decimal(delay)}s both`,
    };
  });
  const span = spanAnimation(layer, scene, `k${index}-live`);
  return span ? [...tracks, span] : tracks;
}

function inner(layer: Layer, children: string): string {
  const { source } = layer;
  if (source.type === 'text') return `<span>${escapeHtml(source.text)}</span>${children}`;
  if (source.type === 'picture')
    return `<img src="${escapeHtml(source.href)}" alt="" style="width:100%;height:100%">${children}`;
  return source.type !== 'none' && needsSvg(layer) ? svgShape(layer) + children : children;
}

function classesOf(layer: Layer): string {
  const { source } = layer;
  const text = source.type === 'text' ? [' word', ` ${source.align}`] : [];
  const blurred = isKeyed(layer, ['blur']) || layer.rest.blur !== undefined ? [' blurred'] : [];
  return ['layer', ...text, ...blurred].join('');
}

/**
 * A scene as one HTML page that any browser with registered custom properties plays (CSS Properties and Values 1):
 * each keyed channel is a number of its own with its own `@keyframes`, so that times and easings are exact.
 * Hidden layers and guides are left out. Elements carry `data-layer` with the layer's id.
 */
export function exportPage(scene: Scene, { fontFaces = '' }: PageOptions = {}): string {
  const rules: string[] = [];
  const shown = scene.layers
    .map((layer, index) => ({ layer, index }))
    .filter(({ layer }) => !layer.hidden && layer.kind !== 'guide');
  const childrenOf = new Map<string | null, typeof shown>();
  for (const entry of shown) {
    const siblings = childrenOf.get(entry.layer.parent);
    if (siblings) siblings.push(entry);
    else childrenOf.set(entry.layer.parent, [entry]);
  }
  const write = (parent: string | null): string =>
    (childrenOf.get(parent) ?? [])
      .map(({ layer, index }) => {
        const animations = layerAnimations(layer, scene, index);
        const uses = animations.map(({ use }) => use).join(', ');
        const style = [...ownStyle(layer), ...(uses === '' ? [] : [`animation: ${uses}`])].join('; ');
        rules.push(...animations.map(({ rule }) => rule), `#layer-${index} { ${style} }`);
        const body = inner(layer, write(layer.id));
        return `<div class="${classesOf(layer)}" id="layer-${index}" data-layer="${layer.id}">${body}</div>`;
      })
      .join('\n');
  const body = write(null);
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>${escapeHtml(scene.name)}</title>
<style>
${fontFaces}${BASE_STYLE}
.frame { width: ${scene.width}px; height: ${scene.height}px }
${rules.join('\n')}
</style>
</head>
<body>
<main class="frame" aria-label="${escapeHtml(scene.name)}">
${body}
</main>
</body>
</html>
`;
}
