import {
  apply,
  createRecipe,
  createShelf,
  operationFor,
  plan,
  presetChannels,
  SCENE_FORMAT,
  ticksFromSeconds,
  type Layer,
  type LibraryItem,
  type Recipe,
  type Scene,
  type Ticks,
} from '@wexikine/core';

const WIDTH = 320;
const HEIGHT = 172;
const RATE = { num: 25, den: 1 };
const LENGTH = ticksFromSeconds(4);
const CARD = '#f3c98b';

/** A scene of one layer that shows what a preset does, and the stretch of time in which it does it. */
export interface Specimen {
  readonly scene: Scene;
  readonly from: Ticks;
  readonly to: Ticks;
  /** Whether the layer moves across the frame by itself; if not, its ghosts are spread out to be seen. */
  readonly travels: boolean;
  readonly kind: SpecimenKind;
  readonly isExit: boolean;
}

export type SpecimenKind = 'card' | 'word' | 'line';

function kindFor(item: LibraryItem): SpecimenKind {
  const channels = presetChannels(item.body);
  if (channels.includes('letterSpacing')) return 'word';
  return channels.some((id) => id.startsWith('stroke.')) ? 'line' : 'card';
}

function layerOf(kind: SpecimenKind): Layer {
  const size = { card: [58, 42], word: [220, 60], line: [200, 90] }[kind];
  const base: Layer = {
    id: 'specimen',
    name: 'Specimen',
    kind: kind === 'word' ? 'word' : 'card',
    parent: null,
    tags: [],
    locked: false,
    hidden: false,
    span: { in: 0, out: LENGTH / 2 },
    rest: { 'position.x': WIDTH / 2, 'position.y': HEIGHT / 2, 'size.x': size[0], 'size.y': size[1], corner: 9 },
    tracks: {},
    look: { fill: CARD },
    source: { type: 'rectangle' },
    data: {},
  };
  if (kind === 'card') return base;
  if (kind === 'word') {
    const style = { font: 'Bricolage Grotesque', weight: 700, size: 44, align: 'middle' } as const;
    return { ...base, source: { type: 'text', text: 'Tide', ...style } };
  }
  const rest = { ...base.rest, 'stroke.width': 6 };
  const source = { type: 'path', d: 'M0 80 C20 0 35 20 50 50 S80 90 100 10' } as const;
  return { ...base, rest, look: { stroke: CARD, cap: 'round' }, source };
}

function recipeFor(item: LibraryItem, parameters: Readonly<Record<string, string>>): Recipe {
  const varied = Object.entries(parameters).map(([name, value]) => [name, { by: 'fixed' as const, value }]);
  const pick = { by: 'layers' as const, layers: ['specimen'] };
  const plain = createRecipe(operationFor(item.body.phase), item.id, pick);
  return { ...plain, parameters: Object.fromEntries(varied) };
}

const TRAVEL = 24;

function travels(layer: Layer): boolean {
  const values = layer.tracks['position.x']?.map(({ value }) => value) ?? [];
  return Math.max(...values) - Math.min(...values) > TRAVEL;
}

/** Puts a preset, with some of its parameters set, on the layer that shows it best. */
export function createSpecimen(item: LibraryItem, parameters: Readonly<Record<string, string>> = {}): Specimen {
  const kind = kindFor(item);
  const isExit = item.body.phase === 'exit';
  const scene: Scene = {
    format: SCENE_FORMAT,
    id: 'specimen',
    name: item.name,
    project: '',
    width: WIDTH,
    height: HEIGHT,
    rate: RATE,
    length: LENGTH,
    cues: [],
    layers: [layerOf(kind)],
    runs: [],
  };
  const context = { runId: 'run', by: 'specimen', when: '2026-01-01T00:00:00.000Z' };
  const planned = plan(scene, createShelf([item]), recipeFor(item, parameters), context);
  const result = apply(scene, planned.edits);
  const [first] = planned.layers;
  if (!result.ok || !first) return { scene, from: 0, to: LENGTH, travels: false, kind, isExit };
  const [after] = result.scene.layers;
  return {
    scene: result.scene,
    from: first.starts,
    to: first.starts + first.lasts,
    travels: travels(after),
    kind,
    isExit,
  };
}
