import {
  createAdjust,
  createArrange,
  createClear,
  createMultiply,
  createPassOn,
  createStyle,
  createKeysRecipe,
  createLineUp,
  createRecipe,
  createRigRecipe,
  formatShort,
  frameTicks,
  isPresetRecipe,
  operationFor,
  pickLayers,
  STYLED_COLOURS,
  type Layer,
  type LookItem,
  type Operation,
  type Pick,
  type PresetItem,
  type PresetRecipe,
  type Recipe,
  type RigItem,
  type RigRecipe,
  type Scene,
  type StyleRecipe,
  type Ticks,
  ticksFromSeconds,
  type MultiplyRecipe,
} from '@wexikine/core';
import { commonestTag, freeLayers } from '../planning/free-layers';

/** Where the playhead stands when a scene is opened, a little way in, where runs can be seen: whole frames. */
export function firstLook({ length, rate }: Scene): Ticks {
  const frame = frameTicks(rate);
  return Math.round(length / 5 / frame) * frame;
}

/** The recipe that waits in the sentence of a scene that is opened. */
export function firstRecipe(scene: Scene, item: PresetItem): PresetRecipe {
  const pick = firstPick(scene);
  const operation = operationFor(item.body.phase);
  const plain = createRecipe(operation, item.id, pick);
  const start = startFor(operation, plain.start, formatShort(firstLook(scene), scene.rate));
  return { ...plain, start, order: { by: 'down' }, spacing: { by: 'gap', gap: '4f' } };
}

/** The layers that one most likely means: those of the commonest tag, or all that are free. */
function firstPick(scene: Scene): Pick {
  const tag = commonestTag(scene);
  return tag === null ? { by: 'layers', layers: freeLayers(scene).map(({ id }) => id) } : { by: 'rule', tag };
}

/** A recipe that rigs the layers that one most likely means. */
export function firstRigRecipe(scene: Scene, item: RigItem): RigRecipe {
  return withRig(createRigRecipe(item.id, firstPick(scene)), item, scene);
}

/** Another rig in a recipe: values of dials that it lacks go, and each of its roles is a layer of the scene. */
export function withRig(recipe: Recipe, item: RigItem, scene: Scene): RigRecipe {
  const standing = recipe.operation === 'rig' ? recipe : null;
  const names = new Set(item.body.dials.map(({ name }) => name));
  const kept = Object.entries(standing?.parameters ?? {}).filter(([name]) => names.has(name));
  const [first] = pickLayers(scene, recipe.pick);
  const leader = scene.layers[first ?? 0]?.id;
  const roles = item.body.roles.flatMap(({ name }) => {
    const layer = standing?.roles?.[name] ?? leader;
    return layer === undefined ? [] : [[name, layer] as const];
  });
  const { order, seed, pick } = recipe;
  return {
    ...createRigRecipe(item.id, pick),
    order,
    seed,
    later: standing?.later ?? '0f',
    parameters: Object.fromEntries(kept),
    ...(roles.length > 0 ? { roles: Object.fromEntries(roles) } : {}),
  };
}

/** What an operation is said with when it is chosen anew. */
export interface Fresh {
  readonly items: readonly PresetItem[];
  readonly rigs: readonly RigItem[];
  readonly scene: Scene;
  /** The playhead as text: where an accent begins. */
  readonly playhead: string;
  /** Recipes of other operations as they were left. */
  readonly left: ReadonlyMap<Operation, Recipe>;
}

/** An entrance and an exit hang on their layers; an accent begins at the playhead unless a time is given. */
function startFor(
  operation: PresetRecipe['operation'],
  start: PresetRecipe['start'],
  playhead: string,
): PresetRecipe['start'] {
  if (operation === 'accent') return start.by === 'layer' ? { by: 'time', at: playhead } : start;
  return start.by === 'time' && start.at === playhead ? { by: 'layer' } : start;
}

/** Another preset in a recipe: the verb follows its phase, and values of parameters that it lacks go. */
export function withPreset(recipe: Recipe, item: PresetItem, playhead = '0:00'): PresetRecipe {
  const operation = operationFor(item.body.phase);
  const fresh = createRecipe(operation, item.id, recipe.pick);
  if (!isPresetRecipe(recipe)) {
    const start = startFor(operation, fresh.start, playhead);
    return { ...fresh, order: 'order' in recipe ? recipe.order : fresh.order, seed: recipe.seed, start };
  }
  const names = new Set(item.body.parameters.map(({ name }) => name));
  const kept = Object.entries(recipe.parameters).filter(([name]) => names.has(name));
  const isOther = operation !== recipe.operation;
  const { overrides: _byHand, ...common } = recipe;
  return {
    ...(isOther ? common : recipe),
    operation,
    preset: { id: item.id },
    parameters: Object.fromEntries(kept),
    // What is usual over old keys differs: an entrance takes another's place, an accent is added on top.
    existing: isOther ? fresh.existing : recipe.existing,
    start: isOther ? startFor(operation, recipe.start, playhead) : recipe.start,
  };
}

/** What every operation says alike: who takes part and in which order. */
function withCommon<R extends Recipe>(left: R, { pick, order, seed }: Recipe): R {
  return { ...left, pick, order, seed };
}

/**
 * Another verb over the same layers. One that was there before is as it was left, with who and in which order as they
 * are now; else those of presets take the first preset that is made for them, and what both say stays. Null without one.
 */
export function withOperation(recipe: Recipe, operation: Operation, fresh: Fresh): Recipe | null {
  const { items, rigs, scene, playhead, left } = fresh;
  if (recipe.operation === operation) return recipe;
  const before = left.get(operation);
  if (before) return withCommon(before, recipe);
  switch (operation) {
    case 'rig':
      return rigs[0] ? withRig(recipe, rigs[0], scene) : null;
    case 'line-up':
      return withCommon(createLineUp(recipe.pick), recipe);
    case 'arrange':
      return withCommon(createArrange(recipe.pick), recipe);
    case 'turn-into-keys':
    case 'thin-out':
      return withCommon(createKeysRecipe(operation, recipe.pick), recipe);
    case 'adjust':
      return withCommon(createAdjust(recipe.pick), recipe);
    case 'pass-on':
      return withCommon(createPassOn(recipe.pick, passedLayer(scene, recipe.pick)), recipe);
    case 'style':
      return withCommon(styleIn(scene, recipe.pick), recipe);
    case 'multiply':
      return multiplyIn(scene, recipe);
    case 'clear':
      return withCommon(createClear(recipe.pick), recipe);
    case 'bring-in':
    case 'send-out':
    case 'accent':
    case 'move-throughout': {
      const item = items.find(({ body }) => operationFor(body.phase) === operation);
      const common = isPresetRecipe(recipe) ? recipe : lastPreset(left, recipe);
      return item ? withPreset(common, item, playhead) : null;
    }
  }
}

/** The layer that one most likely means to copy: the first picked one that moves, else the first that does, else the first. */
function passedLayer(scene: Scene, pick: Pick): string {
  const moves = ({ tracks }: Layer): boolean => Object.keys(tracks).length > 0;
  const picked = pickLayers(scene, pick).map((index) => scene.layers[index]);
  return (picked.find(moves) ?? scene.layers.find(moves) ?? picked[0] ?? scene.layers[0])?.id ?? 'none';
}

const USUAL_STRETCH = ticksFromSeconds(2);

/** Colours that go on step by step, of the first part that all picked layers have: of pictures, which have no fill, their borders. */
function styleIn(scene: Scene, pick: Pick): StyleRecipe {
  const plain = createStyle(pick);
  const looks = pickLayers(scene, pick).map((index) => scene.layers[index].look);
  const part = STYLED_COLOURS.find((one) => looks.length > 0 && looks.every((look) => look[one] !== undefined));
  return part === undefined || !plain.vary.fill
    ? plain
    : { ...plain, parts: [part], vary: { [part]: plain.vary.fill } };
}

/** Whom one means to multiply: the picked layers, and where these are copies themselves, what they were copied from. */
function sourcesOf(scene: Scene, pick: Pick): Pick {
  const picked = pickLayers(scene, pick).map((index) => scene.layers[index]);
  const known = new Set(scene.layers.map(({ id }) => id));
  const sources = picked.flatMap(({ copy }) => (copy && known.has(copy.of) ? [copy.of] : []));
  return picked.length > 0 && sources.length === picked.length ? { by: 'layers', layers: [...new Set(sources)] } : pick;
}

/** Copies over the first two seconds of a scene, or over all of a shorter one. */
function multiplyIn(scene: Scene, { pick, seed }: Recipe): MultiplyRecipe {
  const { length, rate } = scene;
  const plain = createMultiply(sourcesOf(scene, pick));
  if (length >= USUAL_STRETCH) return { ...plain, seed };
  return { ...plain, seed, to: { by: 'time', at: formatShort(length, rate) }, life: { by: 'rest' } };
}

/** The preset recipe that was left last, with who and in which order as they are now: its timing is taken over. */
function lastPreset(left: ReadonlyMap<Operation, Recipe>, recipe: Recipe): Recipe {
  const last = [...left.values()].filter(isPresetRecipe).at(-1);
  return last ? withCommon(last, recipe) : recipe;
}

/** A style that puts a look of the library on what a first recipe would move, with all of its parts. */
export function firstStyle(scene: Scene, item: LookItem): StyleRecipe {
  return { ...createStyle(firstPick(scene)), from: { by: 'look', id: item.id }, parts: [...item.body.parts], vary: {} };
}
