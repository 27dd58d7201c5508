import {
  createShelf,
  lookAsMade,
  ticksFromSeconds,
  type KeptLook,
  type Layer,
  type Scene,
  type Shelf,
} from '@wexikine/core';

const SIZE = { width: 640, height: 344 } as const;
const LENGTH = ticksFromSeconds(1);
const PICTURE_CARD = { width: 300, height: 170 } as const;
/** What a look without a fill of its own is shown on. */
const CARD = '#58a07c';
/** Paper in the evening: dark shadows and light edges are both seen on it. */
const GROUND = { from: '#d9d0b8', to: '#a9a28c', angle: 20 } as const;

/** A layer that has a kept look and nothing else. */
export function lookLayer({ look, rest }: KeptLook): Layer {
  return {
    id: 'specimen',
    name: 'A card',
    kind: 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: LENGTH },
    rest: {
      'position.x': SIZE.width / 2,
      'position.y': SIZE.height / 2,
      'size.x': PICTURE_CARD.width,
      'size.y': PICTURE_CARD.height,
      ...rest,
    },
    tracks: {},
    look,
    source: { type: 'rectangle' },
    data: {},
  };
}

/** A scene that shows a kept look on a card, with its parameters as they are made. */
export function lookSpecimen(kept: KeptLook, shelf: Shelf = createShelf([])): Scene {
  const scene = sceneWith(lookLayer(kept));
  const made = kept.parameters || kept.formulas ? lookAsMade(scene, 0, kept, shelf) : null;
  return made ? sceneWith(lookLayer({ ...kept, look: made.look, rest: made.rest })) : scene;
}

function sceneWith(layer: Layer): Scene {
  return {
    id: 'look',
    format: 'wexikine-scene-2',
    name: 'A look',
    project: '',
    ...SIZE,
    rate: { num: 25, den: 1 },
    length: LENGTH,
    background: GROUND,
    cues: [],
    layers: [{ ...layer, look: { fill: CARD, ...layer.look } }],
    runs: [],
  };
}
