import { clampToChannel, type ChannelId } from '../../basics/channel';
import { frameTicks, secondsFromTicks, type Ticks } from '../../basics/time';
import { restValue, shownLines, wordLines, type Layer, type TextSource } from '../../scene/layer';
import { sampleTrack } from '../../scene/sample';
import type { Scene } from '../../scene/scene';
import { escapeHtml } from './css';
import { decimal, percentOf } from './keyframes';
import type { Drawn } from './page-looks';

/** Channels that change which letters stand there. */
const WRITING: readonly ChannelId[] = ['words.shown', 'words.number'];

/** Style of words that change: the caret takes no room, and what is not yet typed takes its own. */
export const TYPED_STYLE = `
.typed span { position: static; width: auto; height: auto }
.typed > .caret { display: inline-block; width: 0 }
.typed > .later { visibility: hidden }`;

/** What stands at a time: the letters up to the caret, the caret, and those that are not shown yet. */
interface Written {
  readonly shown: string;
  readonly caret: string;
  readonly later: string;
}

const PARTS = ['shown', 'caret', 'later'] as const satisfies readonly (keyof Written)[];

function writtenAt(layer: Layer, source: TextSource, at: Ticks): Written {
  const [share, number] = WRITING.map((id) => {
    const track = layer.tracks[id];
    return clampToChannel(id, track ? sampleTrack(track, at) : restValue(layer, id));
  });
  const lines = wordLines(source, number);
  const { lines: begun, caretAt } = shownLines(lines, share);
  if (caretAt < 0) return { shown: lines.join('\n'), caret: '', later: '' };
  const shown = begun.slice(0, caretAt + 1).join('\n');
  return { shown, caret: source.caret ?? '', later: lines.join('\n').slice(shown.length) };
}

/** Words as a string of CSS (CSS Syntax 3, section 4.3.5). */
function cssString(text: string): string {
  return `"${[...text].map((sign) => (/["\\\n<]/.test(sign) ? `\\${(sign.codePointAt(0) ?? 0).toString(16)} ` : sign)).join('')}"`;
}

/** Words as they stand, or, where they are typed or show a number, what stands frame by frame as generated content. */
export function wordsDrawn(layer: Layer, source: TextSource, scene: Pick<Scene, 'rate'>, id: string): Drawn {
  const keyed = WRITING.flatMap((channel) => layer.tracks[channel] ?? []).map(({ at }) => at);
  const still = writtenAt(layer, source, layer.span.in);
  if (keyed.length === 0 && still.later === '' && still.caret === '')
    return { html: `<span>${escapeHtml(still.shown)}</span>`, rules: [] };
  const [first, last] = keyed.length === 0 ? [0, 0] : [Math.min(...keyed), Math.max(...keyed)];
  const step = frameTicks(scene.rate);
  // The first key, each frame of the scene behind it, and the last key.
  const times = [first];
  for (let at = (Math.floor(first / step) + 1) * step; at < last; at += step) times.push(at);
  const stops = [...times, last].map((at) => ({ at, written: writtenAt(layer, source, at) }));
  const length = Math.max(1, last - first);
  const timing = `${decimal(secondsFromTicks(length))}s linear ${decimal(secondsFromTicks(first))}s both`;
  const rules = PARTS.flatMap((part) => {
    const name = `${id}-${part}`;
    const changes = stops.filter(({ written }, i) => i === 0 || stops[i - 1].written[part] !== written[part]);
    const end = stops[stops.length - 1];
    const frames = (changes.includes(end) ? changes : [...changes, end]).map(
      ({ at, written }) =>
        `${percentOf((at - first) / length)}% { content: ${cssString(written[part])}; animation-timing-function: steps(1, jump-end) }`,
    );
    const isMoving = changes.length > 1;
    const own = `#${name}::before { content: ${cssString(stops[0].written[part])}${isMoving ? `; animation: ${name} ${timing}` : ''} }`;
    return isMoving ? [own, `@keyframes ${name} {\n  ${frames.join('\n  ')}\n}`] : [own];
  });
  const inside = PARTS.map((part) => `<span class="${part}" id="${id}-${part}"></span>`).join('');
  return { html: `<span class="typed">${inside}</span>`, rules };
}
