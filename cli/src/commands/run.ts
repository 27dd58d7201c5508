import {
  apply,
  canonicalJson,
  counted,
  dataProblems,
  describeEditProblem,
  describeFinding,
  exportSceneJson,
  formatFrames,
  formatShort,
  plan,
  sceneSchema,
  writeBundle,
  seedFromText,
  severityOf,
  type Plan,
  type Recipe,
  type Scene,
} from '@wexikine/core';
import { Failure } from '../failure';
import { readRecipe, readScene, readSceneWithFiles, readShelf } from '../files';

/** What the command line gives to `apply` and `plan`. */
export interface RunOptions {
  readonly library?: string;
  readonly format?: string;
  readonly by: string;
}

/** A run's record keeps a name of at most so many characters. */
const MOST_NAME = 100;

function planFiles(scene: Scene, recipe: Recipe, { library, by }: RunOptions, when: string): Plan {
  if (by.trim() === '' || by.length > MOST_NAME) {
    throw new Failure(`--by: Give a name of 1 to ${MOST_NAME} characters; this has ${by.length}.`);
  }
  const runId = `run-${seedFromText(canonicalJson([recipe, scene.runs.length])).toString(36)}`;
  const planned = plan(scene, readShelf(library), recipe, { runId, by, when });
  const errors = planned.findings.filter((finding) => severityOf(finding) === 'error');
  if (errors.length > 0) throw new Failure(errors.map((finding) => describeFinding(finding, scene)).join('\n'));
  return planned;
}

function valueText(value: number | string): string {
  return typeof value === 'number' ? String(Number(value.toFixed(6))) : value;
}

function planTable(scene: Scene, planned: Plan): string {
  const rows = [...planned.layers].sort((a, b) => a.place - b.place);
  const names = [...new Set(rows.flatMap(({ values }) => Object.keys(values)))];
  const head = [
    'place',
    'layer',
    'starts',
    'ends',
    'lasts',
    ...names.map((name) => (name.includes('.') ? name : `@${name}`)),
  ];
  const lines = rows.map(({ place, layer, starts, lasts, values }) => [
    String(place + 1),
    layer,
    formatShort(starts, scene.rate),
    formatShort(starts + lasts, scene.rate),
    formatFrames(lasts, scene.rate),
    ...names.map((name) => valueText(values[name])),
  ]);
  const widths = head.map((title, i) => Math.max(title.length, ...lines.map((line) => line[i].length)));
  return [head, ...lines]
    .map((line) =>
      line
        .map((cell, i) => cell.padEnd(widths[i]))
        .join('  ')
        .trimEnd(),
    )
    .join('\n');
}

function summary(scene: Scene, { run, counts, findings }: Plan): string {
  const told = findings.map((finding) => `${severityOf(finding)}: ${describeFinding(finding, scene)}`);
  const { added, replaced, removed, kept } = counts;
  const numbers = `${counted(counts.layers, 'layer')}; keys: ${added} added, ${replaced} replaced, ${removed} removed, ${kept} kept.`;
  return [run?.sentence ?? 'Nothing to do.', '', numbers, ...told].join('\n');
}

/** `wexikine plan`: what a recipe would do, as a table or as JSON; changes nothing. */
export function planCommand(scenePath: string, recipePath: string, options: RunOptions, when: string): string {
  const scene = readScene(scenePath);
  const planned = planFiles(scene, readRecipe(recipePath), options, when);
  if (options.format === 'json') return `${canonicalJson(planned, 1)}\n`;
  const text = summary(scene, planned);
  return planned.layers.length > 0 ? `${text}\n\n${planTable(scene, planned)}\n` : `${text}\n`;
}

/** `wexikine apply`: the scene with a recipe applied, as JSON, or as a zip where it came with files, and what was said. */
export function applyCommand(
  scenePath: string,
  recipePath: string,
  options: RunOptions,
  when: string,
): { readonly contents: string | Uint8Array; readonly report: string } {
  const { scene, files } = readSceneWithFiles(scenePath);
  const planned = planFiles(scene, readRecipe(recipePath), options, when);
  const applied = apply(scene, planned.edits);
  if (!applied.ok) throw new Failure(describeEditProblem(applied.problem));
  const checked = sceneSchema.safeParse(applied.scene);
  if (!checked.success) {
    const [{ path, message }] = dataProblems(checked.error, 1);
    throw new Failure(`Nothing was written, since the result would not be a scene. ${path}: ${message}`);
  }
  const contents = files.size === 0 ? exportSceneJson(applied.scene) : writeBundle(applied.scene, files);
  return { contents, report: `${summary(scene, planned)}\n` };
}
