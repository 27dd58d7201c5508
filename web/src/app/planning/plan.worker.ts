/// <reference lib="webworker" />
import { createPresetCompiler, createShelf, planUpdates, type Finding, type Scene, type Steps } from '@wexikine/core';
import { HeldScene } from './held-scene';
import type { FromPlanner, PlanTask, ToPlanner } from './messages';
import { packRun } from './packed';
import { PatientWork } from './patient-work';
import { checkTask, planMessages, planTask, showTask } from './plan-task';

const compile = createPresetCompiler();
let shelf = createShelf([]);
const held = new HeldScene();
/** Messages that have come. */
let questions = 0;
/** Layers from which planning takes so long that one notices. */
const MANY = 300;
/** How often planning is still to be practised, and how long after an answer: what that changes is drawn first, ms. */
let practice = 6;
const PRACTISE_AFTER = 120;
const looking = new PatientWork();

/** Answers; `buffers` of the message change hands. */
function answer(message: FromPlanner, buffers: ArrayBuffer[] = []): void {
  postMessage(message, buffers);
}

/** Sooner than this nobody wonders how far it has come, and no eye follows more often, ms. */
const [FIRST_TOLD, TOLD_EVERY] = [300, 100];

/** A task that tells how far it has come, as seldom as one looks. */
function telling(ticket: number, task: PlanTask): PlanTask {
  let next = performance.now() + FIRST_TOLD;
  const progress = (share: number): void => {
    if (performance.now() < next) return;
    next = performance.now() + TOLD_EVERY;
    answer({ type: 'progress', ticket, share });
  };
  return { ...task, context: { ...task.context, progress } };
}

/** Answers a request; a bug in planning is told as a failure, so that the page need not wait for ever. */
function attempt(ticket: number, work: (scene: Scene) => void): void {
  try {
    if (!held.scene) throw new Error('The scene is not there.');
    work(held.scene);
  } catch (error) {
    console.error(error);
    answer({ type: 'failed', ticket });
  }
}

/**
 * Plans a task of many layers a few times more after the first answer, while nobody waits: the engine makes code quick
 * only after it has run for a while, and the first change of a sentence is to be shown as soon as the later ones.
 */
function practise(task: PlanTask): void {
  if (practice === 0) return;
  practice--;
  const asked = questions;
  setTimeout(() => {
    if (held.scene === null || asked !== questions) return;
    packRun(showTask(held.scene, shelf, task, compile));
    practise(task);
  }, PRACTISE_AFTER);
}

/** Looks over a scene and answers with what it finds, unless it is stopped meanwhile. */
async function lookOver(ticket: number, steps: Steps<readonly Finding[]>): Promise<void> {
  try {
    const done = await looking.run(steps);
    if (done) answer({ type: 'findings', ticket, findings: done.result });
  } catch (error) {
    console.error(error);
    answer({ type: 'failed', ticket });
  }
}

addEventListener('message', ({ data }: MessageEvent<ToPlanner>) => {
  questions++;
  if (held.take(data)) return;
  switch (data.type) {
    case 'library':
      shelf = createShelf(data.items);
      return;
    case 'show':
      return attempt(data.ticket, (standing) => {
        const shown = showTask(standing, shelf, telling(data.ticket, data.task), compile);
        const { packed, buffers } = packRun(shown);
        answer({ type: 'shown', ticket: data.ticket, packed }, buffers);
        if (shown.layers.length >= MANY) practise(data.task);
      });
    case 'plan':
      return attempt(data.ticket, (standing) => {
        const whole = planTask(standing, shelf, telling(data.ticket, data.task), compile);
        held.keepPlan(data.ticket, whole.edits);
        for (const message of planMessages(data.ticket, whole)) answer(message);
      });
    case 'check':
      return attempt(
        data.ticket,
        (standing) => void lookOver(data.ticket, checkTask(standing, shelf, data.task, compile)),
      );
    case 'stop':
      looking.stop();
      return;
    case 'update':
      return attempt(data.ticket, (standing) => {
        const { runs, context } = data.task;
        const updates = planUpdates(standing, shelf, new Set(runs), context, compile);
        answer({ type: 'updates', ticket: data.ticket, updates });
      });
  }
});
