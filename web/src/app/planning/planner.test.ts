import { describe, expect, test } from '@jest/globals';
import {
  createRecipe,
  createShelf,
  plan,
  programmeBoard,
  STARTER_LIBRARY,
  type Recipe,
  type Scene,
} from '@wexikine/core';
import type { FromPlanner, PlanTask, ToPlanner } from './messages';
import { assemblePlan, planMessages } from './plan-task';
import { Planner, type Planned } from './planner';

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
  const counts = { layers: 0, added: 0, replaced: 0, removed: 0, kept: 0 };
  const answer = (ticket: number): void =>
    listener({
      data: { type: 'plan', ticket, parts: 0, plan: { edits: [], findings: [], layers: [], counts, run: null } },
    });
  return { open, sent, answer, ended: () => ended };
}

const CONTEXT = { runId: 'r', by: 'b', when: '2026-01-01T00:00:00.000Z' };
const task = (seed: number): PlanTask => ({ recipe: { seed } as Recipe, context: CONTEXT, run: null });
const scene: Scene = programmeBoard();

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
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'plan']);
    answer(1);
    answer(2);
    expect(seen.map(({ task: planned }) => planned.recipe.seed)).toEqual([1, 4]);
    expect(sent.filter(({ type }) => type === 'scene')).toHaveLength(1);
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
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'plan', 'library', 'scene', 'plan']);
    answer(2);
    expect(seen).toHaveLength(1);
  });

  test('a plan of many layers is the same put together from its parts', () => {
    const [layer] = scene.layers;
    const layers = Array.from({ length: 3_300 }, (_, i) => ({ ...layer, id: `l${i}`, parent: null, locked: false }));
    const many: Scene = { ...scene, layers };
    const recipe = createRecipe('bring-in', 'fade-in', { by: 'rule', name: '*' });
    const whole = plan(many, createShelf(STARTER_LIBRARY), recipe, CONTEXT);
    expect(whole.layers).toHaveLength(3_300);
    const [head, ...parts] = planMessages(3, whole);
    expect(parts).toHaveLength(4);
    if (head.type !== 'plan') throw new Error();
    expect(assemblePlan(head.plan, parts as never, true, many.runs.length)).toEqual(whole);
  });
});
