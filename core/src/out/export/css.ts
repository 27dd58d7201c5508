import { CHANNELS, type ChannelId } from '../../basics/channel';
import type { Layer } from '../../scene/layer';
import { decimal } from './keyframes';

/** Text as HTML holds it. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
}

/** The custom property of a channel. */
export function propertyOf(id: ChannelId): string {
  return `--${id.replace('.', '-').toLowerCase()}`;
}

/** What a channel is, as CSS reads it. */
export function variable(id: ChannelId): string {
  return `var(${propertyOf(id)})`;
}

/** A channel within its limits, as the painter draws it. */
export function limited(id: ChannelId): string {
  const { min, max } = CHANNELS.find((channel) => channel.id === id) ?? { min: 0, max: 1 };
  return `clamp(${min}, ${variable(id)}, ${max})`;
}

/** The angle of a gradient as CSS counts it, from 0° that runs down, turned further by a channel. */
export function turnedBy(angle: number, id: ChannelId): string {
  return `calc(${decimal(angle + 180)}deg + ${variable(id)} * 1deg)`;
}

/** A channel of pixels as a length. */
export function px(id: ChannelId): string {
  return `calc(${variable(id)} * 1px)`;
}

/** True where any of these channels has keys. */
export function isKeyed(layer: Layer, ids: readonly ChannelId[]): boolean {
  return ids.some((id) => layer.tracks[id] !== undefined);
}

/** True where a channel can be anything else than its default. */
export function isUsed(layer: Layer, ids: readonly ChannelId[]): boolean {
  return isKeyed(layer, ids) || ids.some((id) => layer.rest[id] !== undefined);
}

/** A rule of CSS as a list of one; of none where it would say nothing. */
export function ruleOf(selector: string, styles: readonly string[]): string[] {
  return styles.length > 0 ? [`${selector} { ${styles.join('; ')} }`] : [];
}
