import { adjustParts, adjustReads, planAdjust, replayAdjust } from '../adjust';
import { arrangeParts, arrangeReads, planArrange, replayArrange } from '../arrange';
import { clearParts, clearReads, planClear, replayClear } from '../clear';
import { keysParts, keysReads, planKeys, replayKeys } from '../keys';
import type { Layer } from '../../scene/layer';
import { lineUpParts, lineUpReads, planLineUp, replayLineUp } from '../line-up';
import type { Brought, Followed, Operated, OperationEntry, Reads, Replaying, Surroundings } from '../operation';
import type {
  AdjustRecipe,
  ArrangeRecipe,
  ClearRecipe,
  KeysRecipe,
  LineUpRecipe,
  MultiplyRecipe,
  PassOnRecipe,
  Operation,
  PresetOperation,
  PresetRecipe,
  Recipe,
  RigRecipe,
  StyleRecipe,
} from '../../scene/recipe';
import { broughtCopies, multiplyParts, multiplyReads, planMultiply, replayMultiply } from '../multiply';
import { passOnFollows, passOnParts, passOnReads, planPassOn, replayPassOn } from '../pass-on';
import { planRig, replayRig, rigParts, rigReads } from '../rig';
import { planPreset, presetParts, presetReads, replayPreset } from '../run';
import { planStyle, replayStyle, styleFollows, styleParts, styleReads } from '../style';
import type { LayerMade, RunRecord, Scene } from '../../scene/scene';
import type { SentenceFacts, SentencePart } from '../sentence';

/** The shape of each operation's recipe. */
type RecipeOf = Readonly<Record<PresetOperation, PresetRecipe>> & {
  readonly rig: RigRecipe;
  readonly 'turn-into-keys': KeysRecipe;
  readonly 'thin-out': KeysRecipe;
  readonly adjust: AdjustRecipe;
  readonly 'line-up': LineUpRecipe;
  readonly arrange: ArrangeRecipe;
  readonly 'pass-on': PassOnRecipe;
  readonly style: StyleRecipe;
  readonly multiply: MultiplyRecipe;
  readonly clear: ClearRecipe;
};

const preset: OperationEntry<PresetRecipe> = {
  plan: planPreset,
  replay: replayPreset,
  reads: presetReads,
  parts: presetParts,
};

const keys: OperationEntry<KeysRecipe> = { plan: planKeys, replay: replayKeys, reads: keysReads, parts: keysParts };

/** Every operation; one that is left out does not compile. */
const OPERATIONS: { readonly [O in Operation]: OperationEntry<RecipeOf[O]> } = {
  'bring-in': preset,
  'send-out': preset,
  accent: preset,
  'move-throughout': preset,
  'turn-into-keys': keys,
  'thin-out': keys,
  rig: { plan: planRig, replay: replayRig, reads: rigReads, parts: rigParts },
  adjust: { plan: planAdjust, replay: replayAdjust, reads: adjustReads, parts: adjustParts },
  'line-up': { plan: planLineUp, replay: replayLineUp, reads: lineUpReads, parts: lineUpParts },
  arrange: { plan: planArrange, replay: replayArrange, reads: arrangeReads, parts: arrangeParts },
  'pass-on': {
    plan: planPassOn,
    replay: replayPassOn,
    reads: passOnReads,
    follows: passOnFollows,
    parts: passOnParts,
  },
  style: { plan: planStyle, replay: replayStyle, reads: styleReads, follows: styleFollows, parts: styleParts },
  multiply: {
    plan: planMultiply,
    replay: replayMultiply,
    reads: multiplyReads,
    parts: multiplyParts,
    brought: broughtCopies,
  },
  clear: { plan: planClear, replay: replayClear, reads: clearReads, parts: clearParts },
};

// Each function below takes the operation beside its recipe, so that the two stay of one kind without a cast.

function planAs<O extends Operation>(operation: O, recipe: RecipeOf[O], surroundings: Surroundings): Operated {
  return OPERATIONS[operation].plan(surroundings, recipe);
}

/** Works out a recipe on layers. */
export function planRecipe(recipe: Recipe, surroundings: Surroundings): Operated {
  return planAs(recipe.operation, recipe, surroundings);
}

function replayAs<O extends Operation>(
  operation: O,
  recipe: RecipeOf[O],
  made: LayerMade,
  state: Layer,
  replaying: Replaying,
): Layer {
  return OPERATIONS[operation].replay(recipe, made, state, replaying);
}

/** Does what a run made on a layer once more, over what the layer has become. */
export function replayRun(made: LayerMade, state: Layer, replaying: Replaying): Layer {
  const { recipe } = replaying.run;
  return replayAs(recipe.operation, recipe, made, state, replaying);
}

function readsAs<O extends Operation>(operation: O, recipe: RecipeOf[O], run: RunRecord): Reads {
  return OPERATIONS[operation].reads(recipe, run);
}

/** What of the scene under it a run's plan may depend on. */
export function readsOf(run: RunRecord): Reads {
  return readsAs(run.recipe.operation, run.recipe, run);
}

function followsAs<O extends Operation>(operation: O, recipe: RecipeOf[O]): Followed | null {
  return OPERATIONS[operation].follows?.(recipe) ?? null;
}

/** What a run goes on following; null for one that is off or follows nothing. */
export function followedBy({ recipe, off }: Pick<RunRecord, 'recipe' | 'off'>): Followed | null {
  return off === true ? null : followsAs(recipe.operation, recipe);
}

const NOTHING: Brought = { layers: [], group: null };

/** The layers that a run brought with it, which go and are hidden with it. */
export function broughtBy(scene: Pick<Scene, 'layers'>, run: RunRecord): Brought {
  return OPERATIONS[run.recipe.operation].brought?.(scene, run) ?? NOTHING;
}

function partsAs<O extends Operation>(operation: O, recipe: RecipeOf[O], facts: SentenceFacts): SentencePart[] {
  return OPERATIONS[operation].parts(recipe, facts);
}

/** The recipe as a sentence, cut into plain text and fields. */
export function sentenceParts(recipe: Recipe, facts: SentenceFacts): SentencePart[] {
  return partsAs(recipe.operation, recipe, facts);
}

/** The recipe as one line of text where no scene is at hand. */
export function recipeWords(recipe: Recipe, shelf: SentenceFacts['shelf']): string {
  const scene = { rate: { num: 25, den: 1 }, runs: [], layers: [], cues: [] };
  return sentenceOf(recipe, { scene, shelf, count: null });
}

/** The recipe as one line of text. */
export function sentenceOf(recipe: Recipe, facts: SentenceFacts): string {
  return sentenceParts(recipe, facts)
    .map(({ text }) => text)
    .join('');
}
