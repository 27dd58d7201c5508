import {
  apply,
  compilePreset,
  createRecipe,
  createRigRecipe,
  createShelf,
  operationFor,
  plan,
  presetChannels,
  SCENE_FORMAT,
  TICKS_PER_SECOND,
  type CompilePreset,
  type Layer,
  type Pick,
  type Plan,
  type PresetItem,
  type RigItem,
  type Rate,
  type Recipe,
  type Scene,
  type Shelf,
  type Ticks,
} from '@wexikine/core';
import {
  SPECIMEN_HEIGHT,
  SPECIMEN_SPAN,
  SPECIMEN_WIDTH,
  rigLayers,
  specimenLayers,
  wordsFor,
  type Dressing,
  type RigMotion,
  type SpecimenKind,
} from './specimen-layers';

const PAL: Rate = { num: 25, den: 1 };
const NOTHING_ELSE = createShelf([]);

/** On what a preset is shown. Without a kind, on the layer that shows it best. */
export interface SpecimenStage {
  readonly kind?: SpecimenKind;
  readonly rate?: Rate;
  /** With the kind `scene`: the scene and its layers. */
  readonly scene?: Scene;
  readonly pick?: Pick;
  readonly parameters?: Readonly<Record<string, string>>;
  /** How the layers of a rig's specimen move, so that one sees it answer. */
  readonly motion?: RigMotion;
}

/** A scene that shows what a preset does, and the stretch of time in which it does it. */
export interface Specimen {
  readonly scene: Scene;
  readonly from: Ticks;
  readonly to: Ticks;
  /** Whether the layer moves across the frame by itself; if not, its ghosts are spread out to be seen. */
  readonly travels: boolean;
  readonly kind: SpecimenKind;
  readonly isExit: boolean;
  readonly plan: Plan;
  /** Ids of the layers that the preset is on. */
  readonly layers: readonly string[];
}

function kindFor(item: PresetItem): Exclude<SpecimenKind, 'scene'> {
  const channels = presetChannels(item.body);
  if (channels.includes('letterSpacing') || channels.some((id) => id.startsWith('words.'))) return 'word';
  if (channels.some((id) => id.startsWith('crop.'))) return 'picture';
  return channels.some((id) => id.startsWith('stroke.') && !/\.[lab]$/.test(id)) ? 'line' : 'card';
}

function dressingFor({ body }: PresetItem): Dressing {
  const cells = body.rows.flatMap((row) => row.cells);
  return {
    ...wordsFor(presetChannels(body)),
    turnsColour: presetChannels(body).some((id) => id.startsWith('fill.')),
    holds: cells.length > 0 && cells.every(({ value }) => value.trim() === 'here'),
  };
}

function stageFor(item: PresetItem, { kind, rate = PAL, scene }: SpecimenStage): { scene: Scene; kind: SpecimenKind } {
  if (kind === 'scene' && scene) return { scene, kind };
  const shown = kind === undefined || kind === 'scene' ? kindFor(item) : kind;
  const own: Scene = {
    format: SCENE_FORMAT,
    id: 'specimen',
    name: item.name,
    project: '',
    width: SPECIMEN_WIDTH,
    height: SPECIMEN_HEIGHT,
    rate,
    length: SPECIMEN_SPAN * 2,
    cues: [],
    layers: specimenLayers(shown, dressingFor(item)),
    runs: [],
  };
  return { scene: own, kind: shown };
}

function recipeFor(item: PresetItem, kind: SpecimenKind, layers: readonly Layer[], stage: SpecimenStage): Recipe {
  const varied = Object.entries(stage.parameters ?? {}).map(([name, value]) => [name, { by: 'fixed' as const, value }]);
  const pick: Pick = stage.pick ?? { by: 'layers', layers: layers.map(({ id }) => id) };
  const plain = createRecipe(operationFor(item.body.phase), item.id, pick);
  const isMany = kind === 'row' || kind === 'scene';
  const at =
    item.body.hang === 'time' ? ({ by: 'time', at: dressingFor(item).holds ? '0.5s' : '0f' } as const) : plain.start;
  return {
    ...plain,
    start: kind === 'scene' && item.body.hang !== 'time' ? plain.start : at,
    order: kind === 'scene' ? { by: 'down' } : { by: 'across' },
    spacing: { by: 'gap', gap: isMany ? '2f' : '0f' },
    parameters: Object.fromEntries(varied),
  };
}

const TRAVEL = 24;

function travels(layer: Layer | undefined): boolean {
  const values = layer?.tracks['position.x']?.map(({ value }) => value) ?? [];
  return values.length > 0 && Math.max(...values) - Math.min(...values) > TRAVEL;
}

/** Compiles against the whole library, and leaves out of a preset what is wrong in it. */
function lenient(shelf: Shelf): CompilePreset {
  return (preset) => {
    const result = compilePreset(preset, shelf);
    return { ok: true, compiled: result.ok ? result.compiled : result.rest };
  };
}

const CONTEXT = { runId: 'run', by: 'specimen', when: '2026-01-01T00:00:00.000Z' };

/** Puts a preset, with some of its parameters set, on what shows it. */
function presetSpecimen(item: PresetItem, shelf: Shelf = NOTHING_ELSE, stage: SpecimenStage = {}): Specimen {
  const { scene, kind } = stageFor(item, stage);
  const isExit = item.body.phase === 'exit';
  const own: Shelf = { ...shelf, preset: () => item };
  const planned = plan(scene, own, recipeFor(item, kind, scene.layers, stage), CONTEXT, lenient(shelf));
  const result = apply(scene, planned.edits);
  const layers = planned.layers.map(({ layer }) => layer);
  const standing = { scene, from: 0, to: SPECIMEN_SPAN, travels: false, kind, isExit, plan: planned, layers };
  if (!result.ok || planned.layers.length === 0) return standing;
  const holds = dressingFor(item).holds === true && kind !== 'scene';
  const from = holds ? 0 : Math.min(...planned.layers.map(({ starts }) => starts));
  const to = holds ? SPECIMEN_SPAN : Math.max(...planned.layers.map(({ starts, lasts }) => starts + lasts));
  const first = result.scene.layers.find(({ id }) => id === layers[0]);
  return {
    ...standing,
    scene: result.scene,
    from,
    to: Math.max(to, from + TICKS_PER_SECOND / 25),
    travels: kind !== 'row' && kind !== 'scene' && travels(first),
  };
}

/** Layers that a rig is shown on, and of the scene where it is one's own. */
function rigStage(
  item: RigItem,
  stage: SpecimenStage,
): { scene: Scene; kind: SpecimenKind; pick: Pick; leader: string } {
  if (stage.kind === 'scene' && stage.scene) {
    const pick: Pick = stage.pick ?? { by: 'rule' };
    return { scene: stage.scene, kind: 'scene', pick, leader: stage.scene.layers[0]?.id ?? '' };
  }
  const { layers, leader } = rigLayers(item.body, stage.kind === 'row', stage.motion);
  const kind = layers[0].kind === 'word' ? 'word' : stage.kind === 'row' ? 'row' : 'card';
  const { scene } = stageFor({ ...item, kind: 'preset', body: NO_PRESET }, { ...stage, kind: 'card' });
  const pick: Pick = { by: 'layers', layers: layers.map(({ id }) => id) };
  return { scene: { ...scene, layers: [...layers] }, kind, pick, leader };
}

const NO_PRESET: PresetItem['body'] = {
  phase: 'throughout',
  hang: 'span',
  stretch: 'keep',
  grid: 'exact',
  parameters: [],
  moments: [{ id: 'start', name: 'Start', at: '0f' }],
  rows: [],
};

/** How long a picture of followers takes: until some have arrived and some not. */
const FOLLOWING = TICKS_PER_SECOND * 0.7;

/** Puts a rig, with some of its dials set, on layers that move so that it answers. */
function rigSpecimen(item: RigItem, shelf: Shelf, stage: SpecimenStage): Specimen {
  const { scene, kind, pick, leader } = rigStage(item, stage);
  const parameters = Object.fromEntries(
    Object.entries(stage.parameters ?? {}).map(([name, value]) => [name, { by: 'fixed' as const, value }]),
  );
  const roles = Object.fromEntries(item.body.roles.map(({ name }) => [name, leader]));
  const recipe: Recipe = { ...createRigRecipe(item.id, pick), order: { by: 'across' }, parameters, roles };
  // A still picture of followers is taken while they are on their way.
  const isStill = item.body.roles.length > 0 && stage.motion === undefined;
  const own: Shelf = { ...shelf, items: new Map([[item.id, { ...item, state: 'published' as const }]]) };
  const planned = plan(scene, own, recipe, CONTEXT);
  const result = apply(scene, planned.edits);
  return {
    scene: result.ok ? result.scene : scene,
    from: 0,
    to: kind === 'scene' ? scene.length : isStill ? FOLLOWING : SPECIMEN_SPAN,
    travels: false,
    kind: kind === 'card' && scene.layers.length > 1 ? 'row' : kind,
    isExit: false,
    plan: planned,
    layers: scene.layers.map(({ id }) => id),
  };
}

/** Puts a preset or a rig, with some of its parameters set, on what shows it. */
export function createSpecimen(
  item: PresetItem | RigItem,
  shelf: Shelf = NOTHING_ELSE,
  stage: SpecimenStage = {},
): Specimen {
  return item.kind === 'rig' ? rigSpecimen(item, shelf, stage) : presetSpecimen(item, shelf, stage);
}
