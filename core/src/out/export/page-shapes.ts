import { clampToChannel, type ChannelId } from '../../basics/channel';
import { oklabFromCss } from '../../basics/colour';
import { frameTicks, secondsFromTicks, type Ticks } from '../../basics/time';
import { isTrimmed, restValue, type Layer, type LayerLook } from '../../scene/layer';
import { outlinePath } from '../../scene/outline';
import { sampleTrack } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { escapeHtml, isKeyed, turnedBy, variable } from './css';
import { decimal, percentOf } from './keyframes';
import type { Drawn } from './page-looks';

/** Channels of a fill's colour. */
export const FILL: readonly ChannelId[] = ['fill.l', 'fill.a', 'fill.b'];
/** Channels of a stroke's colour. */
export const STROKE: readonly ChannelId[] = ['stroke.l', 'stroke.a', 'stroke.b'];
const SHAPE: readonly ChannelId[] = ['size.x', 'size.y', 'corner'];

function colourText(layer: Layer, ids: readonly ChannelId[], still: string): string {
  if (!isKeyed(layer, ids)) return still;
  return `oklab(${ids.map(variable).join(' ')} / ${decimal(oklabFromCss(still)?.alpha ?? 1)})`;
}

/** A layer's fill as CSS text; a colour that is keyed by its channels. */
export function fillText(layer: Layer): string {
  const { fill } = layer.look;
  if (fill === undefined) return 'transparent';
  return typeof fill === 'string' ? colourText(layer, FILL, fill) : paintText(fill);
}

/** A fill as CSS text. */
export function paintText(fill: NonNullable<LayerLook['fill']>): string {
  if (typeof fill === 'string') return fill;
  // Words alone come here with stops of their own, and stand in the first.
  if ('stops' in fill) return fill.stops[0].colour;
  return `linear-gradient(${turnedBy(fill.angle, 'fill.turn')}, ${fill.from}, ${fill.to})`;
}

/** An animation: its keyframes, and how an element uses it. */
export interface Animation {
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
export function isAlongPath({ source, look }: Layer): boolean {
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
export function pathFill(layer: Layer, scene: Scene, id: string): Drawn {
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

/** A stroke along a path, whole or a part of it. */
export function pathStroke(layer: Layer, scene: Scene, id: string): Drawn {
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
