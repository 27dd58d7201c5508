import type { ChannelId } from '../../basics/channel';
import { frameTicks, secondsFromTicks } from '../../basics/time';
import { axesText, ownFamily } from '../../scene/file';
import { isSeen, lineStep, restValue, tracksOf, undrawnMattes, type Layer } from '../../scene/layer';
import { pictureSize } from '../../scene/outline';
import { bakedScene, EXPORT_WITHIN } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { escapeHtml, isKeyed, propertyOf, px, ruleOf } from './css';
import { cssTrack, decimal, percentOf } from './keyframes';
import { filterText, maskText, overlays, twoColourFilter, type Drawn } from './page-looks';
import { FILL, fillText, isAlongPath, paintText, pathFill, pathStroke, STROKE, type Animation } from './page-shapes';
import { BASE_STYLE } from './page-style';
import { wordsDrawn } from './page-words';
import { PLAYER } from './player';

/** How a page is written. */
export interface PageOptions {
  /** CSS text of `@font-face` rules with the fonts embedded; without it the reader's own fonts stand in. */
  readonly fontFaces?: string;
  /** Text of the addresses of files, by which they stand in the page itself. */
  readonly embedded?: ReadonlyMap<string, string>;
}

/** What is drawn of a layer itself. */
function drawOwn(layer: Layer, scene: Scene, id: string, embedded: PageOptions['embedded']): Drawn {
  const { source } = layer;
  const own = (classes: string, styles: readonly string[], html: string, rules: readonly string[] = []): Drawn => ({
    html: `<div class="own${layer.source.type === 'ellipse' ? ' round' : ''}${classes}" id="${id}-own">${html}${twoColourFilter(layer, id)}</div>`,
    rules: [...ruleOf(`#${id}-own`, [...styles, ...filterText(layer, id)]), ...rules],
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
        const styles = [...ownStyle(layer), ...mixed, ...(uses === '' ? [] : [`animation: ${uses}`])];
        const own = drawOwn(layer, scene, id, embedded);
        rules.push(...animations.map(({ rule }) => rule), ...ruleOf(`#${id}`, styles), ...own.rules);
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
