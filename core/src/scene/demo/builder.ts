import type { Layer, LayerSource } from '../layer';
import { SCENE_FORMAT, type Scene } from '../scene';
import { ticksFromSeconds } from '../../basics/time';

type Rest = Layer['rest'];

interface Placing {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A layer placed by its middle, over the given seconds, with everything else at its simplest. */
export function layer(id: string, name: string, kind: Layer['kind'], at: Placing, more: Partial<Layer> = {}): Layer {
  const rest: Rest = { 'position.x': at.x, 'position.y': at.y, 'size.x': at.width, 'size.y': at.height };
  return {
    id,
    name,
    kind,
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: ticksFromSeconds(6) },
    tracks: {},
    look: {},
    source: kind === 'card' ? { type: 'rectangle' } : { type: 'none' },
    data: {},
    ...more,
    rest: { ...rest, ...more.rest },
  };
}

/** A demo scene of the observatory, 1920 by 1080. */
export function demoScene(
  more: Pick<Scene, 'id' | 'name' | 'rate' | 'length' | 'layers'> & Partial<Pick<Scene, 'cues' | 'background'>>,
): Scene {
  return {
    format: SCENE_FORMAT,
    project: 'Saltmarsh Observatory',
    width: 1_920,
    height: 1_080,
    cues: [],
    runs: [],
    ...more,
  };
}

type TextStyle = Omit<Extract<LayerSource, { type: 'text' }>, 'type' | 'text'>;

/** A word layer for the demo. */
export function text(content: string, style: TextStyle): LayerSource {
  return { type: 'text', text: content, ...style };
}
