import { describe, expect, test } from '@jest/globals';
import type { Layer } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { applied, layerOf } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';
import { layersUnder } from '.';

const start = sceneOf([card('a', { tracks: { opacity: [key(0, 0.2), key(40, 1)] } }), card('b'), card('c')]);
const on = (...layers: string[]) => ({ pick: { by: 'layers' as const, layers } });
const first = applied(start, { ...on('a', 'b'), preset: { id: 'fade-in' } });
const second = applied(first, { ...on('a', 'c'), preset: { id: 'rise-and-settle' }, existing: 'add' });

/** What is drawn of a layer, without what runs keep of it. */
function shown(layer: Layer): Pick<Layer, 'span' | 'rest' | 'tracks' | 'look'> {
  const { span, rest, tracks, look } = layer;
  return { span, rest, tracks, look };
}

describe('layers as a run found them', () => {
  const under = (run: string, id: string, scene: Scene = second) => shown(layersUnder(scene, run)(layerOf(scene, id)));

  test('are as they were without it and those after it', () => {
    expect(second.runs.map(({ id }) => id)).toEqual(['run-1', 'run-2']);
    expect(under('run-2', 'a')).toEqual(shown(layerOf(first, 'a')));
    expect(under('run-2', 'c')).toEqual(shown(layerOf(first, 'c')));
    expect(under('run-1', 'a')).toEqual(shown(layerOf(start, 'a')));
    expect(shown(layerOf(second, 'a'))).not.toEqual(shown(layerOf(first, 'a')));
  });

  test('that it is not on are as they stand, and so are all for a run that is not there', () => {
    expect(layersUnder(second, 'run-2')(layerOf(second, 'b'))).toBe(layerOf(second, 'b'));
    expect(layersUnder(second, 'run-1')(layerOf(second, 'c'))).toBe(layerOf(second, 'c'));
    for (const id of ['a', 'b', 'c'])
      expect(layersUnder(second, 'gone')(layerOf(second, id))).toBe(layerOf(second, id));
  });
});
