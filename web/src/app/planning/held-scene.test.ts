import { describe, expect, test } from '@jest/globals';
import { apply, programmeBoard, type Edit, type Scene } from '@wexikine/core';
import { HeldScene } from './held-scene';
import type { ToPlanner } from './messages';
import { Planner } from './planner';
import { SceneTrail } from './trail';

const scene: Scene = programmeBoard();
const rename = (layer: string, name: string): Edit[] => [{ type: 'set-layer', layer, fields: { name } }];

function after(standing: Scene, edits: readonly Edit[]): Scene {
  const done = apply(standing, edits);
  if (!done.ok) throw new Error(done.problem.code);
  return done.scene;
}

/** A planner whose worker only holds the scene. */
function holding(trail: SceneTrail) {
  const held = new HeldScene();
  const sent: ToPlanner[] = [];
  const port = {
    postMessage: (message: ToPlanner) => {
      sent.push(message);
      held.take(structuredClone(message));
    },
    addEventListener: () => undefined,
    terminate: () => undefined,
  };
  const planner = new Planner(() => port as never, trail);
  const ask = (of: Scene): void => planner.request({ scene: of, task: {} as never });
  return { held, sent, planner, ask, types: () => sent.map(({ type }) => type) };
}

/** Waits until something holds, at most two seconds. */
async function until(holds: () => boolean): Promise<void> {
  for (let tries = 0; tries < 200 && !holds(); tries++) await new Promise((done) => setTimeout(done, 10));
}

describe('a worker’s scene', () => {
  test('is handed over once and then follows the steps of the page', () => {
    const trail = new SceneTrail();
    const { held, ask, planner, types } = holding(trail);
    ask(scene);
    const edits = rename('moon', 'Full moon');
    const next = after(scene, edits);
    trail.note(scene, edits, next);
    planner.cancel();
    ask(scene);
    expect(types().filter((type) => type === 'scene')).toHaveLength(2);
    void planner.whole({ scene: next, task: {} as never });
    expect(types().slice(-2)).toEqual(['edits', 'plan']);
    expect(held.scene).toEqual(next);
  });

  test('goes back and forth with undo, and several steps at once', () => {
    const trail = new SceneTrail();
    const { held, planner, types } = holding(trail);
    void planner.whole({ scene, task: {} as never });
    let standing = scene;
    for (const name of ['a', 'b', 'c']) {
      const edits = rename('moon', name);
      const next = after(standing, edits);
      trail.note(standing, edits, next);
      standing = next;
    }
    void planner.whole({ scene: standing, task: {} as never });
    expect(types()).toEqual(['scene', 'plan', 'edits', 'edits', 'edits', 'plan']);
    expect(held.scene).toEqual(standing);
  });

  test('is handed over whole again where nobody knows how it came about', () => {
    const trail = new SceneTrail();
    const { held, planner, types } = holding(trail);
    void planner.whole({ scene, task: {} as never });
    const other = { ...scene, name: 'Other' };
    void planner.whole({ scene: other, task: {} as never });
    expect(types()).toEqual(['scene', 'plan', 'scene', 'plan']);
    expect(held.scene).toEqual(other);
  });

  test('comes in parts where it is large, and the question after it', async () => {
    const [layer] = scene.layers;
    const layers = Array.from({ length: 2_500 }, (_, i) => ({ ...layer, id: `l${i}`, parent: null }));
    const many = { ...scene, layers };
    const { held, planner, types } = holding(new SceneTrail());
    void planner.whole({ scene: many, task: {} as never });
    expect(types()).toEqual(['scene']);
    await until(() => types().includes('plan'));
    expect(types()).toEqual(['scene', 'layers', 'layers', 'layers', 'plan']);
    expect(held.scene).toEqual(many);
  });

  test('does the plan that it made last once by itself, and later as any other step', () => {
    const trail = new SceneTrail();
    const { held, planner, sent, types } = holding(trail);
    const steps = ['one', 'two'].map((name) => rename('moon', name));
    const edits = steps.map((step) => [...step]);
    void planner.whole({ scene, task: {} as never });
    held.keepPlan(1, edits[0]);
    planner['remember'](edits[0], 1);
    const first = after(scene, edits[0]);
    trail.note(scene, edits[0], first);
    void planner.whole({ scene: first, task: {} as never });
    expect(types().slice(-2)).toEqual(['applied', 'plan']);
    held.keepPlan(2, edits[1]);
    planner['remember'](edits[1], 2);
    const second = after(first, edits[1]);
    trail.note(first, edits[1], second);
    void planner.whole({ scene: second, task: {} as never });
    // Undone and done again, the first plan is not the last one any more.
    const back = after(second, rename('moon', 'one'));
    trail.note(second, rename('moon', 'one'), back);
    const again = after(back, edits[0]);
    trail.note(back, edits[0], again);
    void planner.whole({ scene: again, task: {} as never });
    expect(sent.slice(-3).map(({ type }) => type)).toEqual(['edits', 'edits', 'plan']);
    expect(held.scene).toEqual(again);
  });

  test('does a plan of its own without being told its edits', () => {
    const held = new HeldScene();
    held.take({ type: 'scene', scene, parts: 0 });
    held.keepPlan(4, rename('moon', 'Planned'));
    held.take({ type: 'applied', ticket: 4 });
    expect(held.scene?.layers.find(({ id }) => id === 'moon')?.name).toBe('Planned');
    held.take({ type: 'applied', ticket: 9 });
    expect(held.scene).toBeNull();
  });
});

describe('the trail of a scene', () => {
  test('knows no way back from a later state, nor from one long ago', () => {
    const trail = new SceneTrail();
    const states = Array.from({ length: 80 }, (_, i) => ({ ...scene, name: `${i}` }));
    states.slice(1).forEach((to, i) => trail.note(states[i], rename('moon', `${i}`), to));
    expect(trail.between(states[79], states[78])).toBeNull();
    expect(trail.between(states[0], states[79])).toBeNull();
    expect(trail.between(states[70], states[79])).toHaveLength(9);
    expect(trail.between(states[79], states[79])).toEqual([]);
  });
});
