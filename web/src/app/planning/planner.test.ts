import { describe, expect, test } from '@jest/globals';
import { programmeBoard, type Recipe, type Scene } from '@wexikine/core';
import type { FromPlanner, ToPlanner } from './messages';
import { Planner, type Planned } from './planner';

/** A worker that answers when it is told to. */
function fakePort() {
  const sent: ToPlanner[] = [];
  let listener: (event: { data: FromPlanner }) => void = () => undefined;
  const port = {
    postMessage: (message: ToPlanner) => void sent.push(message),
    addEventListener: (_type: string, handler: unknown) => (listener = handler as typeof listener),
    terminate: () => undefined,
  };
  const answer = (ticket: number): void =>
    listener({
      data: {
        type: 'plan',
        ticket,
        plan: { edits: [], findings: [], layers: [], counts: { layers: 0, added: 0, removed: 0 }, run: null },
      },
    });
  return { port: port as never, sent, answer };
}

const CONTEXT = { runId: 'r', by: 'b', when: '2026-01-01T00:00:00.000Z' };
const recipe = (seed: number): Recipe => ({ seed }) as Recipe;

describe('the planner', () => {
  test('sends the scene once and skips all but the newest of those that wait', () => {
    const { port, sent, answer } = fakePort();
    const planner = new Planner(port);
    const seen: Planned[] = [];
    planner.planned$.subscribe((planned) => seen.push(planned));
    const scene: Scene = programmeBoard();
    for (const seed of [1, 2, 3, 4]) planner.request({ scene, recipe: recipe(seed), context: CONTEXT });
    expect(sent.map(({ type }) => type)).toEqual(['scene', 'plan']);
    answer(1);
    answer(2);
    expect(seen.map(({ recipe: planned }) => planned.seed)).toEqual([1, 4]);
    expect(sent.filter(({ type }) => type === 'scene')).toHaveLength(1);
  });

  test('an answer that nobody waits for is left out', () => {
    const { port, answer } = fakePort();
    const planner = new Planner(port);
    const seen: Planned[] = [];
    planner.planned$.subscribe((planned) => seen.push(planned));
    answer(7);
    expect(seen).toEqual([]);
  });
});
