import { clampToChannel, type ChannelId } from '../../basics/channel';
import { compilePreset, createWriter, type CompiledPreset } from '../../formulas/preset';
import { keepUsed, lookPreset, shelfAsUsed, type Kept, type KeptLook, type Shelf } from '../../library/library';
import { restValue, withLookParts, type LayerLook } from '../../scene/layer';
import type { ColourPart, StyleRecipe } from '../../scene/recipe';
import { severityOf, type Finding } from '../finding';
import type { Surroundings } from '../operation';
import type { Scene } from '../../scene/scene';
import { createStaging, maximum, type Staging } from '../order';
import { compileVariation, fillColumns, limitedFindings, readOverrides, type Filled } from '../run';
import { withColour } from './parts';

/** A look as it is on one layer, and the parameters that made it so. */
export interface LookOnLayer {
  readonly look: LayerLook;
  readonly rest: KeptLook['rest'];
  readonly values: Readonly<Record<string, number | string>>;
}

/** A look worked out for all layers of a run, by row; what its run keeps of the library besides; and what was found. */
export interface WorkedLook {
  readonly of: (row: number) => LookOnLayer;
  readonly uses: readonly Kept[];
  readonly findings: readonly Finding[];
}

interface Run {
  readonly staging: Staging;
  readonly indices: readonly number[];
  readonly places: readonly number[];
}

/** True for a look that may differ from layer to layer, or whose parameters a recipe sets: others are put on as they are. */
export function hangsOnLayers({ parameters, formulas }: KeptLook, recipe: Pick<StyleRecipe, 'parameters'>): boolean {
  return parameters !== undefined || formulas !== undefined || recipe.parameters !== undefined;
}

/** Numbers of the look by channel, one for each row; what is not finite is left as the look has it. */
function numbersOf(
  compiled: CompiledPreset,
  { columns }: Filled,
  { staging, indices }: Run,
): Map<ChannelId, Float64Array> {
  const { stride } = columns;
  const [writeRest, writeHere] = [createWriter(compiled, columns, 'rest'), createWriter(compiled, columns, 'here')];
  const numbers = new Map<ChannelId, Float64Array>();
  for (const { channel, cells } of compiled.rows) {
    for (let row = 0; row < stride; row++) {
      const rest = restValue(staging.scene.layers[indices[row]], channel);
      writeRest(row, rest);
      writeHere(row, rest);
    }
    const out = new Float64Array(stride);
    cells[0].value.run(columns, 0, stride, out);
    numbers.set(channel, out);
  }
  return numbers;
}

/** A look from the library as a run uses it. */
export interface LookInUse {
  readonly body: KeptLook;
  readonly name: string;
  /** What the run kept when it took this very revision; undefined where it takes it now. */
  readonly known: readonly Kept[] | undefined;
}

/**
 * Works a look out for each layer of a run: its parameters as the recipe sets them, its formulas over them, and the colours that
 * are parameters. One finding where that cannot be done.
 */
export function workOutLook(
  { shelf: now, scene, compile }: Pick<Surroundings, 'shelf' | 'scene' | 'compile'>,
  recipe: Pick<StyleRecipe, 'parameters' | 'seed'>,
  { body, name, known }: LookInUse,
  run: Run,
): WorkedLook | Finding {
  const { parameters: settings = {}, seed } = recipe;
  const shelf = shelfAsUsed(now, known);
  const result = compile(lookPreset(body), shelf);
  if (!result.ok) return { code: 'look-broken', look: name, message: result.problems[0].message };
  const { compiled } = result;
  const variations = compiled.parameters.map((entry) =>
    compileVariation(entry, settings[entry.parameter.name], compiled.lookup),
  );
  const names = new Set(compiled.parameters.map(({ parameter }) => parameter.name));
  const problems = [
    ...variations.flatMap(({ problem }) => (problem ? [problem] : [])),
    ...Object.keys(settings)
      .filter((one) => !names.has(one))
      .map((one): Finding => ({ code: 'unknown-parameter', preset: name, name: one })),
  ];
  const stop = problems.find((problem) => severityOf(problem) === 'error');
  if (stop) return stop;
  const { overrides } = readOverrides({ overrides: {} }, compiled, scene);
  const sources = variations.map(({ source }) => source);
  const filled = fillColumns({
    ...run,
    recipe: { seed },
    compiled,
    sources,
    overrides,
    lastPlace: maximum(run.places),
  });
  const numbers = numbersOf(compiled, filled, run);
  const colours = Object.entries(body.colours ?? {}) as [ColourPart, string][];
  const of = (row: number): LookOnLayer => {
    const rest = { ...body.rest };
    for (const [channel, column] of numbers) {
      if (Number.isFinite(column[row])) rest[channel] = clampToChannel(channel, column[row]);
    }
    let look: LayerLook = body.look;
    for (const [part, parameter] of colours) {
      const colour = filled.values[row][parameter];
      if (body.parts.includes(part)) look = withLookParts(look, withColour(look, part, String(colour)));
    }
    return { look, rest, values: filled.values[row] };
  };
  const uses = known
    ? known.filter(({ kind }) => kind === 'house' || kind === 'curve')
    : keepUsed(shelf, compiled.uses);
  return {
    of,
    uses,
    findings: [...problems, ...limitedFindings(filled.limited, (row) => scene.layers[run.indices[row]].id)],
  };
}

/** A look on one layer of a scene with its parameters as they are made; null where its formulas cannot run. */
export function lookAsMade(scene: Scene, index: number, body: KeptLook, shelf: Shelf): LookOnLayer | null {
  const run: Run = { staging: createStaging(scene), indices: [index], places: [0] };
  const surroundings = { scene, shelf, compile: compilePreset };
  const worked = workOutLook(surroundings, { seed: 1 }, { body, name: '', known: undefined }, run);
  return 'code' in worked ? null : worked.of(0);
}
