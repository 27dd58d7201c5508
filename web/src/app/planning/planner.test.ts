import { describe, expect, test } from '@jest/globals';
import {
  apply,
  compilePreset,
  createMultiply,
  createRecipe,
  createShelf,
  plan,
  programmeBoard,
  STARTER_LIBRARY,
  type Edit,
  type Layer,
  type Recipe,
  type Finding,
  type Scene,
  findInMotion,
  lookInMotion,
} from '@wexikine/core';
import type { FromPlanner, PlanTask, ToPlanner } from './messages';
import { packRun, unpackRun } from './packed';
import { assemblePlan, planMessages, planTask, showTask } from './plan-task';
import { drawRun, type PlannedRun } from './planned-run';
import { Checker, Planner, type Planned } from './planner';

const counts = { layers: 0, added: 0, replaced: 0, removed: 0, kept: 0 };
const nothing = { findings: [], layers: [], counts, run: null };

/** A worker that answers when it is told to. */
function fakePort() {
  const sent: ToPlanner[] = [];
  let ended = 0;
  let listener: (event: { data: FromPlanner }) => void = () => undefined;
  const open = () =>
    ({
      postMessage: (message: ToPlanner) => void sent.push(message),
      addEventListener: (_type: string, handler: unknown) => (listener = handler as typeof listener),
      terminate: () => void ended++,
    }) as never;
  const say = (data: FromPlanner): void => listener({ data });
  const answer = (ticket: number): void =>
    say({ type: 'shown', ticket, packed: packRun({ ...nothing, changes: [], hasEdits: false }).packed });
  const answerWhole = (ticket: number): void =>
    say({ type: 'plan', ticket, parts: 0, plan: { ...nothing, edits: [] } });
  return { open, sent, say, answer, answerWhole, ended: () => ended };
}

const CONTEXT = { runId: 'r', by: 'b', when: '2026-01-01T00:00:00.000Z' };
const task = (seed: number): PlanTask => ({ recipe: { seed } as Recipe, context: CONTEXT, run: null });
const scene: Scene = programmeBoard();

/** A layer without what it keeps for its runs, which is not drawn. */
function drawn({ base: _base, ...layer }: Layer): Layer {
  return layer;
}

function heard(planner: Planner): Planned[] {
  const seen: Planned[] = [];
  planner.done$.subscribe((planned) => seen.push(planned));
  return seen;
}

describe('the planner', () => {
  test('sends the scene once and skips all but the newest of those that wait', () => {
    const { open, sent, answer } = fakePort();
    const planner = new Planner(open);
    const seen = heard(planner);
    for (const seed of [1, 2, 3, 4]) planner.request({ scene, task: task(seed) });
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'show']);
    answer(1);
    answer(2);
    expect(seen.map(({ task: planned }) => planned.recipe.seed)).toEqual([1, 4]);
    expect(sent.filter(({ type }) => type === 'scene')).toHaveLength(1);
  });

  test('tells how far what takes long has come, until it is there or given up', () => {
    const { open, say, answer } = fakePort();
    const planner = new Planner(open);
    const told: (number | null)[] = [];
    planner.progress$.subscribe((share) => told.push(share));
    planner.request({ scene, task: task(1) });
    say({ type: 'progress', ticket: 1, share: 0.25 });
    say({ type: 'progress', ticket: 1, share: 0.5 });
    answer(1);
    planner.request({ scene, task: task(2) });
    say({ type: 'progress', ticket: 2, share: 0.75 });
    planner.cancel();
    expect(told).toEqual([null, 0.25, 0.5, null, 0.75, null]);
  });

  test('does not tell how far a whole plan has come that is made before somebody asks for it', async () => {
    const { open, say, answerWhole } = fakePort();
    const planner = new Planner(open);
    const told: (number | null)[] = [];
    planner.progress$.subscribe((share) => told.push(share));
    const ahead = planner.whole({ scene, task: task(1) }, true);
    say({ type: 'progress', ticket: 1, share: 0.5 });
    answerWhole(1);
    expect(await ahead).not.toBeNull();
    expect(told).toEqual([null]);
    const asked = planner.whole({ scene, task: task(1) });
    say({ type: 'progress', ticket: 2, share: 0.5 });
    answerWhole(2);
    expect(await asked).not.toBeNull();
    expect(told).toEqual([null, 0.5, null]);
  });

  test('an answer that nobody waits for is left out', () => {
    const { open, answer } = fakePort();
    const seen = heard(new Planner(open));
    answer(7);
    expect(seen).toEqual([]);
  });

  test('cancelled, it ends the worker and begins anew with the next request', () => {
    const { open, sent, answer, ended } = fakePort();
    const planner = new Planner(open);
    const seen = heard(planner);
    planner.request({ scene, task: task(1) });
    planner.cancel();
    expect(ended()).toBe(1);
    answer(1);
    expect(seen).toEqual([]);
    planner.request({ scene, task: task(2) });
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'show', 'library', 'scene', 'show']);
    answer(2);
    expect(seen).toHaveLength(1);
  });

  test('gives a whole plan when asked, beside what it shows, and nothing when it is given up', async () => {
    const { open, sent, say, answer, answerWhole } = fakePort();
    const planner = new Planner(open);
    const seen = heard(planner);
    const wanted = planner.whole({ scene, task: task(1) });
    planner.request({ scene, task: task(2) });
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'plan', 'show']);
    answer(2);
    expect(seen).toHaveLength(1);
    answerWhole(1);
    expect(await wanted).toMatchObject({ edits: [] });
    const failing = planner.whole({ scene, task: task(3) });
    say({ type: 'failed', ticket: 3 });
    expect(await failing).toBeNull();
    const left = planner.whole({ scene, task: task(4) });
    planner.close();
    expect(await left).toBeNull();
  });
});

describe('looking over a scene', () => {
  test('is stopped where something changes: what waits is dropped, a late answer left out, and the next one is asked for', () => {
    const { open, sent, say } = fakePort();
    const checker = new Checker(open);
    const found: (readonly Finding[] | null)[] = [];
    checker.done$.subscribe(({ result }) => found.push(result));
    const findings: Finding[] = [{ code: 'no-cues', at: 0 }];
    checker.stop();
    checker.request({ scene, task: null });
    checker.request({ scene, task: packRun({ ...nothing, changes: [], hasEdits: false }).packed });
    checker.stop();
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'check', 'stop']);
    say({ type: 'findings', ticket: 1, findings });
    expect(found).toEqual([]);
    checker.request({ scene, task: null });
    expect(sent.at(-1)).toEqual({ type: 'check', ticket: 2, run: null });
    say({ type: 'findings', ticket: 2, findings });
    expect(found).toEqual([findings]);
  });

  test('in steps finds what is found at once, with a pause after each frame', () => {
    const steps = lookInMotion(scene, null, 0, scene.length);
    let pauses = 0;
    for (let next = steps.next(); ; next = steps.next()) {
      if (next.done === true) {
        expect(next.value).toEqual(findInMotion(scene, null, 0, scene.length));
        break;
      }
      pauses++;
    }
    expect(pauses).toBeGreaterThan(100);
  });
});

describe('plans on their way', () => {
  const [layer] = scene.layers;
  const layers = Array.from({ length: 3_300 }, (_, i) => ({ ...layer, id: `l${i}`, parent: null, locked: false }));
  const many: Scene = { ...scene, layers };
  const shelf = createShelf(STARTER_LIBRARY);
  const recipe = createRecipe('bring-in', 'fade-in', { by: 'rule', name: '*' });
  const whole = plan(many, shelf, recipe, CONTEXT);

  function sceneWith(standing: Scene, edits: readonly Edit[]): Scene {
    const result = apply(standing, edits);
    if (!result.ok) throw new Error(result.problem.code);
    return result.scene;
  }

  test('of many layers are the same put together from their parts', () => {
    expect(whole.layers).toHaveLength(3_300);
    const [head, ...parts] = structuredClone(planMessages(3, whole));
    expect(parts).toHaveLength(Math.ceil(whole.edits.length / 1_000));
    if (head.type !== 'plan') throw new Error();
    expect(assemblePlan(head.plan, parts as never)).toEqual({ ...whole, layers: [] });
  });

  test('show what applying the whole plan gives', () => {
    const shown = showTask(many, shelf, { recipe, context: CONTEXT, run: null }, compilePreset);
    const { packed, buffers } = packRun(shown);
    const { changes, hasEdits, layers: values } = unpackRun(structuredClone(packed, { transfer: buffers }));
    expect(hasEdits).toBe(true);
    expect(values).toEqual(shown.layers);
    expect(values.map(({ starts }) => starts)).toEqual(whole.layers.map(({ starts }) => starts));
    expect(drawRun(many, { changes }).layers.map(drawn)).toEqual(sceneWith(many, whole.edits).layers.map(drawn));
  });

  test('come through packed as they were: spans, rest poses, channels without keys, hand keys, text values', () => {
    const key = (at: number, run?: string) => ({
      at,
      value: at / 3,
      ease: { type: 'linear' as const },
      ...(run === undefined ? {} : { by: { run, slot: 's' } }),
    });
    const { counts } = whole;
    const planned: PlannedRun = {
      findings: [],
      counts,
      run: null,
      hasEdits: true,
      layers: [
        { layer: 'a', place: 0, starts: 4, lasts: 9, moments: [0, 9], values: { tilt: -0.5, curve: 'steady' } },
        { layer: 'b', place: 1, starts: 8, lasts: 9, moments: [], values: {} },
      ],
      changes: [
        {
          layer: 'a',
          span: { in: 1, out: 5 },
          rest: null,
          look: { fill: '#fff' },
          data: { team: 'red' },
          tracks: { opacity: [key(0), key(3, 'r')], rotation: null },
        },
        { layer: 'b', span: null, rest: { opacity: 0.5 }, look: null, data: null, tracks: {} },
      ],
    };
    expect(unpackRun(packRun(planned).packed)).toEqual(planned);
  });

  test('of a run that is changed show it under the runs that were applied later', () => {
    const first = sceneWith(scene, plan(scene, shelf, recipe, CONTEXT).edits);
    const second = { ...createRecipe('send-out', 'fade-out', recipe.pick), spacing: { by: 'gap' as const, gap: '3f' } };
    const both = sceneWith(first, plan(first, shelf, second, { ...CONTEXT, runId: 'later' }).edits);
    const slower = { ...recipe, spacing: { by: 'gap' as const, gap: '9f' } };
    const again: PlanTask = { recipe: slower, context: CONTEXT, run: 'r' };
    const { changes, hasEdits } = showTask(both, shelf, again, compilePreset);
    expect(hasEdits).toBe(true);
    const { edits } = planTask(both, shelf, again, compilePreset);
    expect(drawRun(both, { changes }).layers.map(drawn)).toEqual(sceneWith(both, edits).layers.map(drawn));
    expect(unpackRun(packRun(showTask(both, shelf, again, compilePreset)).packed).changes).toEqual(changes);
    const same = showTask(both, shelf, { ...again, recipe }, compilePreset);
    expect([same.hasEdits, same.changes]).toEqual([false, []]);
  });
});

describe('a dry run that brings layers', () => {
  const recipe = { ...createMultiply({ by: 'rule', tag: 'row' }), copies: 7 };
  const task = (run: string | null, copies: number) => ({
    run,
    recipe: { ...recipe, copies },
    context: { runId: run ?? 'made', by: 'T', when: '2026-01-01T00:00:00.000Z' },
  });
  const shelf = createShelf(STARTER_LIBRARY);

  test('is drawn with its copies, new or changed, as applying it gives them', () => {
    const first = unpackRun(packRun(showTask(scene, shelf, task(null, 7), compilePreset)).packed);
    const whole = planTask(scene, shelf, task(null, 7), compilePreset);
    const made = apply(scene, whole.edits);
    if (!made.ok) throw new Error(made.problem.code);
    const ids = ({ layers }: Scene): string[] => layers.map(({ id }) => id);
    const drawn = drawRun(scene, first);
    expect(ids(drawn)).toEqual(ids(made.scene));
    expect(drawn.layers.map(({ rest, span, look }) => [rest, span, look])).toEqual(
      made.scene.layers.map(({ rest, span, look }) => [rest, span, look]),
    );
    for (const copies of [4, 12]) {
      const next = showTask(made.scene, shelf, task('made', copies), compilePreset);
      const changed = apply(made.scene, planTask(made.scene, shelf, task('made', copies), compilePreset).edits);
      expect(changed.ok && ids(changed.scene).sort()).toEqual(ids(drawRun(made.scene, next)).sort());
    }
  });
});
