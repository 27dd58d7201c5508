import {
  apply,
  createArrange,
  createRecipe,
  createMultiply,
  createPassOn,
  createRigRecipe,
  createStyle,
  plan,
  SCENE_FORMAT,
  ticksFromSeconds,
  type ColourVariation,
  type Layer,
  type MultiplyRecipe,
  type PassOnRecipe,
  type PresetRecipe,
  type Recipe,
  type RigRecipe,
  type Scene,
  type Shelf,
} from '@wexikine/core';
import type { Specimen } from '../drawing/specimen';
import { SPECIMEN_HEIGHT, SPECIMEN_WIDTH, specimenLayers } from '../drawing/specimen-layers';

/** What explains a field of the sentence: a line or two, and a small scene that shows it. */
export interface FieldHelp {
  readonly text: string;
  readonly recipe: (layers: readonly Layer[]) => Recipe;
}

const PRESET = 'rise-and-settle';
const COUNT = 12;

function ids(layers: readonly Layer[], test: (index: number) => boolean = () => true): string[] {
  return layers.filter((_, i) => test(i)).map(({ id }) => id);
}

function said(change: Partial<PresetRecipe> = {}, test?: (index: number) => boolean): FieldHelp['recipe'] {
  return (layers) => ({
    ...createRecipe('bring-in', PRESET, { by: 'layers', layers: ids(layers, test) }),
    order: { by: 'across' },
    spacing: { by: 'gap', gap: '3f' },
    length: { by: 'fixed', length: '16f' },
    ...change,
  });
}

function rigged(rig: string, change: Partial<RigRecipe> = {}): FieldHelp['recipe'] {
  return (layers) => ({
    ...createRigRecipe(rig, { by: 'layers', layers: ids(layers) }),
    order: { by: 'across' },
    ...change,
  });
}

function styled(fill: ColourVariation): FieldHelp['recipe'] {
  return (layers) => ({
    ...createStyle({ by: 'layers', layers: ids(layers) }),
    order: { by: 'across' },
    vary: { fill },
  });
}

function passed(change: Partial<PassOnRecipe>): FieldHelp['recipe'] {
  return (layers) => ({
    ...createPassOn({ by: 'layers', layers: ids(layers) }, layers[0].id),
    order: { by: 'across' },
    what: ['place', 'look'],
    ...change,
  });
}

function copied(change: Partial<MultiplyRecipe> = {}): FieldHelp['recipe'] {
  return (layers) => ({
    ...createMultiply({ by: 'layers', layers: ids(layers, (i) => i === 0) }),
    scale: { begin: [0.5, 0.5], end: [0.5, 0.5] },
    ...change,
  });
}

/** What each field does. Fields of parameters share one, and so do ways. */
const HELP: Readonly<Record<string, FieldHelp>> = {
  operation: {
    text: 'What to do with the layers: bring them in, accent them, send them out, rig them, adjust the keys they have, or line up, arrange and clear them.',
    recipe: said(),
  },
  preset: {
    text: 'Which animation of the library each layer gets. All of them get the same one, with their own values if you like.',
    recipe: said({ preset: { id: 'drop-and-bounce' } }),
  },
  pick: {
    text: 'Which layers take part. Here every second one does; the others stay as they are.',
    recipe: said({}, (i) => i % 2 === 0),
  },
  order: {
    text: 'Who starts first. Here the order goes out from the middle.',
    recipe: said({ order: { by: 'out-from', x: 0.5, y: 0.5 } }),
  },
  start: {
    text: 'When the first one begins: at its own in point, or at a time or a cue of the scene. Here everything waits half a second.',
    recipe: said({ start: { by: 'time', at: '0.5s' } }),
  },
  spacing: {
    text: 'How much later each next one starts: the stagger. Here one starts every 5 frames.',
    recipe: said({ spacing: { by: 'gap', gap: '5f' } }),
  },
  moves: {
    text: 'Whether only the keys are staggered, or the whole layers with their in and out points.',
    recipe: said({ moves: 'layers' }),
  },
  length: {
    text: 'How long each one takes. Here each takes twice as long as before.',
    recipe: said({ length: { by: 'fixed', length: '32f' } }),
  },
  finish: {
    text: 'When the last one is done. Give it, and the start, the gap or the length follows from it.',
    recipe: said({ spacing: { by: 'finish', at: '1.6s' } }),
  },
  existing: {
    text: 'What becomes of keys that are there: an earlier entrance gives way, or the new motion is added on top.',
    recipe: said(),
  },
  parameter: {
    text: 'A value for this run: one for all, by turns, along the order, at random, or from data. Here the tilt goes by turns.',
    recipe: said({ parameters: { tilt: { by: 'cycle', values: ['-20deg', '20deg'] } } }),
  },
  'add-parameter': {
    text: 'Set one more value of the preset for this run. What you do not set stays as the preset has it.',
    recipe: said({ parameters: { rise: { by: 'ramp', from: '10px', to: '70px' } } }),
  },
  rig: {
    text: 'Which rig drives the layers. It makes no keys: its dials can be turned at any time. Here they sway.',
    recipe: rigged('rig-sway'),
  },
  channels: {
    text: 'Which channels take part. Here only the turn is driven, not the place.',
    recipe: rigged('rig-sway', { channels: ['rotation'] }),
  },
  later: {
    text: 'How much later each one answers than the one before it. Here every one breathes 4 frames later.',
    recipe: rigged('rig-breathe', { later: '4f', parameters: { depth: { by: 'fixed', value: '30%' } } }),
  },
  role: {
    text: 'Which layer plays this part for the rig. The others read it, and it keeps its own keys.',
    recipe: rigged('rig-breathe'),
  },
  within: {
    text: 'How far off the keys may be from what was there. A smaller number takes more keys.',
    recipe: rigged('rig-sway'),
  },
  grid: {
    text: 'Whether keys stand on whole frames only, or wherever fewer of them do.',
    recipe: rigged('rig-sway'),
  },
  way: {
    text: 'How the layers are lined up in time or arranged in space. Here they are put on a circle.',
    recipe: (layers) => ({
      ...createArrange({ by: 'layers', layers: ids(layers) }),
      way: { by: 'circle', x: 0.5, y: 0.5, radius: 62, from: -90, round: 360, turned: false },
    }),
  },
  keys: {
    text: 'Which keys are adjusted: all of them, the first or the last of each layer, some channels, some runs, a stretch of time.',
    recipe: said({ spacing: { by: 'gap', gap: '6f' } }),
  },
  step: {
    text: 'One step of the adjustment. Steps follow each other; each has a law of its own, and its numbers may differ along the order.',
    recipe: said({ length: { by: 'fixed', length: '24f' } }),
  },
  parts: {
    text: 'What becomes of entrances and exits when a layer gets longer or shorter: they keep their length, or everything stretches.',
    recipe: said(),
  },
};

/** Help of sentences that are about looks and copies. */
const MORE_HELP: Readonly<Record<string, FieldHelp>> = {
  from: {
    text: 'Which layer the others get it from. They can go on following it: whenever it is changed, they change too.',
    recipe: styled({ by: 'step', lightness: -0.04, chroma: 0, hue: 0 }),
  },
  'style-parts': {
    text: 'Which parts of the look are set; the others stay as they are. Here it is the fill.',
    recipe: styled({ by: 'step', lightness: 0, chroma: 0, hue: 20 }),
  },
  passed: {
    text: 'What the others get of the one layer: its motion, where it rests, when it begins and ends, its look, its data. Here they get its place, each a step further.',
    recipe: passed({ apart: { x: 14, y: -5 } }),
  },
  about: {
    text: 'Whether values of keys are taken as far from where each layer rests, or as the very same numbers.',
    recipe: passed({ apart: { x: 18, y: 0 } }),
  },
  apart: {
    text: 'How far each rests from the one before it.',
    recipe: passed({ apart: { x: 10, y: 6 } }),
  },
  vary: {
    text: 'How this colour differs from layer to layer. Here it is a ramp along the order.',
    recipe: styled({ by: 'colours', colours: ['#1e6a59', '#f3c98b'], how: 'ramp' }),
  },
  copies: {
    text: 'How many copies there are, and which of the layers each is a copy of.',
    recipe: copied({ copies: 24 }),
  },
  'from-time': { text: 'From when on there are copies.', recipe: copied({ from: { by: 'time', at: '1s' } }) },
  'to-time': { text: 'Until when all copies have gone.', recipe: copied({ to: { by: 'time', at: '1.5s' } }) },
  life: {
    text: 'How long each copy is there, and whether they begin evenly or at random.',
    recipe: copied({ life: { by: 'random', least: '8f', most: '1s' } }),
  },
  begin: {
    text: 'Where copies begin. Here they are in an ellipse around the middle.',
    recipe: copied({ begin: { by: 'spread', shape: 'ellipse', x: 0.5, y: 0.5, width: 0.7, height: 0.7 } }),
  },
  end: {
    text: 'Where copies end. Here they fly off to the right.',
    recipe: copied({ end: { by: 'direction', degrees: 0, distance: 0.4, stray: 20 } }),
  },
  size: {
    text: 'How large copies are. Here they grow from nothing.',
    recipe: copied({ scale: { begin: [0, 0], end: [0.3, 0.6] } }),
  },
  turns: {
    text: 'How copies are turned, or turn while they live.',
    recipe: copied({ turn: { begin: [-180, 180], end: [0, 0] } }),
  },
  clear: {
    text: 'How opaque copies are. Here they fade while they live.',
    recipe: copied({ opacity: { begin: [1, 1], end: [0, 0] } }),
  },
  in: {
    text: 'How copies come in: by one preset of the library, or by one of several, some more often than others.',
    recipe: copied(),
  },
  out: { text: 'How copies go: by one preset of the library, or by one of several.', recipe: copied() },
  colours: {
    text: 'Which colours copies have, and how often each comes.',
    recipe: copied({
      colours: {
        colours: [
          { colour: '#c7761b', weight: 1 },
          { colour: '#5bb59d', weight: 1 },
        ],
        how: 'random',
        outlined: 0.3,
      },
    }),
  },
  seed: {
    text: 'Chance by number: the same seed gives the same copies. Roll again until they please.',
    recipe: copied({ seed: 4 }),
  },
};

/** The help for a field of the sentence. */
export function helpFor(field: string): FieldHelp {
  const name = field.replace(/^(parameter|role|step|vary):.*/, '$1');
  return HELP[name] ?? MORE_HELP[name] ?? HELP['operation'];
}

const LENGTH = ticksFromSeconds(3);

/** The small scene that shows what a field does, played from its first frame to its last. */
export function demoOf(help: FieldHelp, shelf: Shelf): Specimen {
  const layers = specimenLayers('row')
    .slice(0, COUNT)
    .map((layer) => ({ ...layer, span: { in: 0, out: LENGTH } }));
  const scene: Scene = {
    format: SCENE_FORMAT,
    id: 'help',
    name: 'Help',
    project: '',
    width: SPECIMEN_WIDTH,
    height: SPECIMEN_HEIGHT,
    rate: { num: 25, den: 1 },
    length: LENGTH,
    cues: [],
    layers,
    runs: [],
  };
  const planned = plan(scene, shelf, help.recipe(layers), {
    runId: 'help',
    by: 'help',
    when: '2026-01-01T00:00:00.000Z',
  });
  const result = apply(scene, planned.edits);
  return {
    scene: result.ok ? result.scene : scene,
    from: 0,
    to: ticksFromSeconds(2.6),
    travels: false,
    kind: 'row',
    isExit: false,
    plan: planned,
    layers: ids(layers),
  };
}
