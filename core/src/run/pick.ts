import type { Layer, Scene } from '../scene';
import type { Pick } from './recipe';

/** A name pattern as a regular expression: * is any text, ? any one character, capitals do not matter. */
function patternOf(pattern: string): RegExp {
  const escaped = pattern.trim().replace(/[.+^${}()|[\]\\]/g, '\\$&');
  return new RegExp(`^${escaped.replace(/\*/g, '.*').replace(/\?/g, '.')}$`, 'i');
}

function ruleOf({ tag, name, kind }: Extract<Pick, { by: 'rule' }>): (layer: Layer) => boolean {
  const pattern = name === undefined ? null : patternOf(name);
  return (layer) =>
    (tag === undefined || layer.tags.includes(tag)) &&
    (pattern === null || pattern.test(layer.name)) &&
    (kind === undefined || layer.kind === kind);
}

/** Indices of the layers that a pick catches, from back to front. A rule without conditions catches none. */
export function pickLayers(scene: Scene, pick: Pick): number[] {
  const indices = scene.layers.map((_, index) => index);
  if (pick.by === 'layers') {
    const wanted = new Set(pick.layers);
    return indices.filter((index) => wanted.has(scene.layers[index].id));
  }
  if (pick.tag === undefined && pick.name === undefined && pick.kind === undefined) return [];
  const matches = ruleOf(pick);
  return indices.filter((index) => matches(scene.layers[index]));
}
