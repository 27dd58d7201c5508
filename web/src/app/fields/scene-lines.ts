import { outlinePath, pathFromStart, restValue, type Layer } from '@wexikine/core';

/** A line of a scene that layers can go along: SVG path data in px that begins at 0 0. */
export interface SceneLine {
  readonly name: string;
  readonly d: string;
}

/** The outlines of path layers as lines to go along. */
export function sceneLines(layers: readonly Layer[]): SceneLine[] {
  return layers.flatMap((layer) => {
    if (layer.source.type !== 'path') return [];
    const outline = outlinePath(layer.source, restValue(layer, 'size.x'), restValue(layer, 'size.y'), 0);
    return [{ name: layer.name, d: pathFromStart(outline) }];
  });
}
