import '@angular/compiler';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import {
  compilePreset,
  createShelf,
  programmeBoard,
  STARTER_LIBRARY,
  toItsEnd,
  type Finding,
  type Layer,
  type Scene,
} from '@wexikine/core';
import { BehaviorSubject, NEVER, of } from 'rxjs';
import { ApiService } from '../api/api.service';
import { LibraryService } from '../library/library.service';
import { SceneTrail } from '../planning/trail';
import { LiveNews } from '../live/live-news';
import type { FromPlanner, ToPlanner } from '../planning/messages';
import { packRun } from '../planning/packed';
import { HeldScene } from '../planning/held-scene';
import { checkTask, planMessages, planTask, showTask } from '../planning/plan-task';
import { DraftStore, type Shown } from './draft.store';
import { SceneStore } from './scene.store';

/** Milliseconds that the worker of these tests takes for an answer. */
const THINKS = 40;
/** Milliseconds of rest after which a dry run is looked over. */
const CHECKED_AFTER = 350;

/** The planning worker without a thread: it works with the real planning, and fails when it is told to. */
const worker: {
  fails: boolean;
  shows: number;
  wholes: number;
  finds: Finding[];
  checks: Extract<ToPlanner, { type: 'check' }>[];
} = {
  fails: false,
  shows: 0,
  wholes: 0,
  finds: [],
  checks: [],
};

/** A layer without what it keeps for its runs, which is not drawn. */
function seen({ base: _base, ...layer }: Layer): Layer {
  return layer;
}

function createTestWorker(): Worker {
  const shelf = createShelf(STARTER_LIBRARY);
  const held = new HeldScene();
  let listener: (event: { data: FromPlanner }) => void = () => undefined;
  const answersTo = (message: ToPlanner): FromPlanner[] => {
    const { scene } = held;
    if (held.take(message) || !scene) return [];
    if (message.type === 'check') {
      worker.checks.push(message);
      const findings = [...toItsEnd(checkTask(scene, shelf, message.run)), ...worker.finds];
      return [{ type: 'findings', ticket: message.ticket, findings }];
    }
    if (message.type !== 'show' && message.type !== 'plan') return [];
    const { ticket, task } = message;
    if (worker.fails) return [{ type: 'failed', ticket }];
    if (message.type === 'plan') {
      worker.wholes++;
      const whole = planTask(scene, shelf, task, compilePreset);
      held.keepPlan(ticket, whole.edits);
      return planMessages(ticket, whole);
    }
    worker.shows++;
    return [{ type: 'shown', ticket, packed: packRun(showTask(scene, shelf, task, compilePreset)).packed }];
  };
  return {
    postMessage: (message: ToPlanner) => {
      const answers = answersTo(message);
      setTimeout(() => answers.forEach((data) => listener({ data })), THINKS);
    },
    addEventListener: (_type: string, handler: unknown) => (listener = handler as typeof listener),
    terminate: () => (listener = () => undefined),
  } as never;
}

const settle = (ms = 500): Promise<void> => jest.advanceTimersByTimeAsync(ms);

/** A scene of as many rows as are planned more than once. */
function manyRows(): Scene {
  const board = programmeBoard();
  const row = board.layers.find(({ tags }) => tags.includes('row')) as Layer;
  return { ...board, layers: Array.from({ length: 300 }, (_, i) => ({ ...row, id: `row-${i}`, parent: null })) };
}

async function opened(isTried = true, board = programmeBoard()) {
  const shelf = createShelf(STARTER_LIBRARY);
  const api = { scene: () => of({ scene: board, version: 1 }), saveScene: () => NEVER };
  const library = { items$: new BehaviorSubject(STARTER_LIBRARY), shelf$: new BehaviorSubject(shelf) };
  const injector = Injector.create({
    providers: [
      { provide: ApiService, useValue: api },
      SceneTrail,
      { provide: LiveNews, useValue: { news$: NEVER } },
      { provide: LibraryService, useValue: library },
    ],
  });
  const scenes = runInInjectionContext(injector, () => new SceneStore());
  const inScene = Injector.create({ parent: injector, providers: [{ provide: SceneStore, useValue: scenes }] });
  const draft = runInInjectionContext(inScene, () => new DraftStore());
  let shown: Shown | null = null;
  draft.shown$.subscribe((next) => (shown = next));
  await scenes.open(board.id);
  await settle();
  if (isTried) draft.setLive(true);
  await settle();
  const screen = (): Shown => {
    if (!shown) throw new Error('Nothing is shown.');
    return shown;
  };
  const gap = (text: string): void => {
    const { recipe } = draft;
    if (!recipe || !('spacing' in recipe)) throw new Error('No sentence.');
    draft.change({ ...recipe, spacing: { by: 'gap', gap: text } });
  };
  return { draft, scenes, screen, gap };
}

function rows({ scene }: SceneStore): string[] {
  return (scene?.layers ?? []).filter(({ tags }) => tags.includes('row')).map(({ id }) => id);
}

/** Waits for an application, with the clock going on. */
async function applied(draft: DraftStore): Promise<string> {
  const outcome = draft.apply();
  await settle();
  return outcome;
}

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(worker, { fails: false, shows: 0, wholes: 0, finds: [], checks: [] });
  const Worker = function (): Worker {
    return createTestWorker();
  };
  Object.assign(globalThis, { Worker, localStorage: { getItem: () => 'Me' } });
});
afterEach(() => void jest.useRealTimers());

describe('the sentence of a scene', () => {
  test('waits while the scene is shown as it stands, until a dry run is asked for', async () => {
    const { draft, scenes, screen } = await opened(false);
    expect(draft.recipe?.operation).toBe('bring-in');
    expect(screen()).toMatchObject({ isLive: false, plan: null });
    expect(screen().drawn).toBe(scenes.scene);
    draft.setLive(true);
    await settle();
    expect(screen().plan?.counts.layers).toBe(12);
  });

  test('is drawn as a dry run and not applied', async () => {
    const { draft, scenes, screen } = await opened();
    expect(screen().plan?.counts.layers).toBe(12);
    expect(screen().drawn).not.toBe(screen().standing);
    expect(scenes.scene?.runs).toEqual([]);
    draft.setLive(false);
    expect(screen().drawn).toBe(screen().standing);
    expect(screen().plan).toBeNull();
  });

  test('shows the dry run of before while a newer one is planned, and says so', async () => {
    const { screen, gap } = await opened();
    const before = screen().plan;
    gap('9f');
    expect(screen()).toMatchObject({ isPlanning: true, plan: before });
    await settle();
    expect(screen().isPlanning).toBe(false);
    const [first, second] = screen().plan?.layers ?? [];
    const apart = Math.abs(second.starts - first.starts);
    expect(apart).toBe((screen().standing.rate.den * 705_600_000 * 9) / screen().standing.rate.num);
  });

  test('is looked over in motion as it was planned, once it is planned and left alone', async () => {
    const { draft, gap } = await opened();
    worker.checks = [];
    gap('9f');
    await settle(CHECKED_AFTER - 1);
    expect(worker.checks).toEqual([]);
    gap('2f');
    await settle(CHECKED_AFTER + THINKS + 1);
    expect(worker.checks.map(({ run }) => run?.run?.recipe)).toEqual([draft.recipe]);
    draft.setLive(false);
    await settle();
    expect(worker.checks.map(({ run }) => run?.run?.recipe)).toEqual([draft.recipe, undefined]);
  });

  test('that could not be planned is not looked over, and what was found before it is gone', async () => {
    const { draft, gap } = await opened();
    const found: (readonly Finding[])[] = [];
    draft.motion$.subscribe((findings) => found.push(findings));
    worker.finds = [{ code: 'no-cues', at: 0 }];
    gap('8f');
    await settle(1_000);
    expect(found.at(-1)).toEqual(worker.finds);
    Object.assign(worker, { fails: true, checks: [] });
    gap('9f');
    await settle(1_000);
    expect(worker.checks).toEqual([]);
    expect(found.at(-1)).toEqual([]);
  });

  test('of many layers is planned and drawn again while nobody waits, and looked over once', async () => {
    const { draft, screen, gap } = await opened(false, manyRows());
    draft.setLive(true);
    await settle(THINKS + 1);
    expect(worker.shows).toBe(1);
    const first = screen();
    await settle(200);
    expect(worker.shows).toBe(2);
    expect(screen().drawn).not.toBe(first.drawn);
    expect(screen()).toEqual(first);
    gap('9f');
    await settle(THINKS + 1);
    expect(worker.shows).toBe(3);
    await settle(5_000);
    expect(worker.shows).toBe(8);
    expect(worker.checks.filter(({ run }) => run !== null)).toHaveLength(1);
    expect(await applied(draft)).toBe('done');
    await settle(5_000);
    expect(worker.shows).toBe(8);
  });

  test('of few layers is planned once', async () => {
    await opened();
    await settle(5_000);
    expect([worker.shows, worker.wholes]).toEqual([1, 0]);
  });

  test('of many layers is planned whole while it is looked at, so that applying it waits for nothing', async () => {
    const { draft, scenes, screen, gap } = await opened(true, manyRows());
    await settle(5_000);
    expect(worker.wholes).toBe(1);
    gap('9f');
    await settle(5_000);
    expect(worker.wholes).toBe(2);
    const drawn = screen().drawn.layers;
    const outcome = draft.apply();
    await settle(0);
    expect(await outcome).toBe('done');
    expect(worker.wholes).toBe(2);
    expect(scenes.scene?.layers.map(seen)).toEqual(drawn.map(seen));
    // The worker has done the same step: what is planned next goes by it.
    gap('3f');
    await settle(1_000);
    expect(screen().plan?.run).not.toBeNull();
    expect(screen().drawn.layers).not.toEqual(drawn);
  });

  test('that was planned ahead is planned anew where it was changed, or given up meanwhile', async () => {
    const { draft, scenes, gap } = await opened(true, manyRows());
    await settle(5_000);
    gap('9f');
    expect(await applied(draft)).toBe('done');
    expect(worker.wholes).toBe(2);
    expect(scenes.scene?.runs[0].recipe).toMatchObject({ spacing: { by: 'gap', gap: '9f' } });
    scenes.undo();
    draft.setLive(true);
    // It is given up between being asked for and its coming.
    for (let i = 0; worker.wholes < 3 && i < 5_000; i += 10) await settle(10);
    draft.cancel();
    draft.setLive(true);
    expect(await applied(draft)).toBe('done');
  });

  test('is applied as one step under its own words, as it was shown', async () => {
    const { draft, scenes, screen } = await opened();
    const drawn = screen().drawn.layers;
    expect(await applied(draft)).toBe('done');
    expect(scenes.scene?.layers.map(seen)).toEqual(drawn.map(seen));
    expect(scenes.scene?.runs).toHaveLength(1);
    expect(screen().isLive).toBe(false);
    scenes.undo();
    expect(scenes.scene).toEqual(programmeBoard());
  });

  test('is not applied where it was changed while it was being applied', async () => {
    const { draft, scenes, gap } = await opened();
    const outcome = draft.apply();
    gap('9f');
    await settle();
    expect(await outcome).toBe('changed');
    expect(scenes.scene?.runs).toEqual([]);
    expect(await applied(draft)).toBe('done');
  });

  test('is not applied twice by two presses', async () => {
    const { draft, scenes } = await opened();
    const [first, second] = [draft.apply(), draft.apply()];
    await settle();
    expect(await Promise.all([first, second])).toEqual(['done', 'not']);
    expect(scenes.scene?.runs).toHaveLength(1);
  });

  test('pressed before it is planned, it is applied as soon as that is done, with what was changed last', async () => {
    const { draft, scenes, gap } = await opened();
    gap('3f');
    const { recipe } = draft;
    if (!recipe) throw new Error('No sentence.');
    draft.change({ ...recipe, pick: { by: 'layers', layers: rows(scenes).slice(0, 5) } });
    expect(await applied(draft)).toBe('done');
    // Told is what took part, not what was shown when it was asked for.
    expect(draft.appliedTo).toBe(5);
    expect(scenes.scene?.runs[0].recipe).toMatchObject({ spacing: { by: 'gap', gap: '3f' } });
  });

  test('pressed before it is planned, nothing is applied where it is changed, given up or cannot be planned', async () => {
    const { draft, scenes, gap } = await opened();
    gap('3f');
    const changed = draft.apply();
    gap('5f');
    await settle();
    expect(await changed).toBe('changed');
    gap('6f');
    const cancelled = draft.apply();
    draft.cancel();
    await settle();
    expect(await cancelled).toBe('changed');
    worker.fails = true;
    gap('7f');
    expect(await applied(draft)).toBe('failed');
    expect(scenes.scene).toEqual(programmeBoard());
  });

  test('says where it could not be planned, and changes nothing', async () => {
    const { draft, scenes } = await opened();
    worker.fails = true;
    expect(await applied(draft)).toBe('failed');
    expect(scenes.scene).toEqual(programmeBoard());
  });

  test('opens a run, changes it and leaves nothing of how it was', async () => {
    const { draft, scenes, screen, gap } = await opened();
    await applied(draft);
    const [run] = scenes.scene?.runs ?? [];
    draft.reopen(run, 'used');
    await settle();
    expect(screen().plan?.hasEdits).toBe(false);
    expect(await applied(draft)).toBe('not');
    gap('9f');
    await settle();
    expect(screen().plan?.hasEdits).toBe(true);
    const drawn = screen().drawn.layers;
    expect(await applied(draft)).toBe('done');
    expect(scenes.scene?.layers.map(seen)).toEqual(drawn.map(seen));
    expect(scenes.scene?.runs.map(({ id }) => id)).toEqual([run.id]);
  });

  test('is a new one again where the run that is open goes away', async () => {
    const { draft, scenes } = await opened();
    await applied(draft);
    const [run] = scenes.scene?.runs ?? [];
    draft.reopen(run, 'used');
    scenes.undo();
    expect(draft.run).toBeNull();
  });

  test('given up while it is planned, the scene is shown as it stands', async () => {
    const { draft, screen, gap } = await opened();
    gap('9f');
    draft.cancel();
    await settle();
    expect(screen()).toMatchObject({ isLive: false, isPlanning: false, plan: null });
    gap('5f');
    await settle();
    expect(screen().plan?.counts.layers).toBe(12);
  });
});
