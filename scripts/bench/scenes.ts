import {
  createRecipe,
  randomAt,
  SCENE_FORMAT,
  ticksFromSeconds,
  type ChannelId,
  type Key,
  type Layer,
  type Recipe,
  type Scene,
} from '@wexikine/core';

/** How many layers the scenes have that are measured against each other. */
export const SIZES: readonly number[] = [100, 1_000, 10_000];
const LENGTH = ticksFromSeconds(10);
const KEYED: readonly ChannelId[] = ['position.x', 'position.y', 'scale.x', 'scale.y', 'rotation', 'opacity'];
const KEYS_A_TRACK = 5;
/** How many curves a library offers, when layers share them. */
const FEW = 6;

function layer(index: number): Layer {
  return {
    id: `layer-${index}`,
    name: `Layer ${index}`,
    kind: 'card',
    parent: null,
    tags: ['row'],
    locked: false,
    hidden: false,
    span: { in: 0, out: LENGTH },
    rest: { 'position.x': (index % 40) * 45, 'position.y': Math.floor(index / 40) * 12, 'size.x': 40, 'size.y': 10 },
    tracks: {},
    look: { fill: '#888888' },
    source: { type: 'rectangle' },
    data: {},
  };
}

/** A scene of plain cards without keys. */
export function plainScene(count: number): Scene {
  return {
    format: SCENE_FORMAT,
    id: 'bench',
    name: 'Bench',
    project: '',
    width: 1920,
    height: 1080,
    rate: { num: 25, den: 1 },
    length: LENGTH,
    cues: [],
    layers: Array.from({ length: count }, (_, index) => layer(index)),
    runs: [],
  };
}

/** The same with six keyed channels a layer, in motion at every time. */
export function keyedScene(count: number, curves: 'few' | 'all different'): Scene {
  let made = 0;
  const track = (): Key[] =>
    Array.from({ length: KEYS_A_TRACK }, (_, i) => {
      const seed = curves === 'few' ? made % FEW : made;
      made++;
      const ease = {
        type: 'bezier',
        x1: randomAt(1, seed),
        y1: randomAt(2, seed),
        x2: randomAt(3, seed),
        y2: randomAt(4, seed),
      } as const;
      return { at: (LENGTH / (KEYS_A_TRACK - 1)) * i, value: randomAt(5, made) * 100, ease };
    });
  const scene = plainScene(count);
  const layers = scene.layers.map((entry) => ({
    ...entry,
    tracks: Object.fromEntries(KEYED.map((id) => [id, track()])),
  }));
  return { ...scene, layers };
}

export const recipe: Recipe = {
  ...createRecipe('bring-in', 'rise-and-settle', { by: 'rule', tag: 'row' }),
  order: { by: 'down' },
  spacing: { by: 'total', total: '5s' },
  parameters: { tilt: { by: 'cycle', values: ['-6deg', '6deg'] } },
};
