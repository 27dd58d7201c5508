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
  if (held.take(data)) return;
  switch (data.type) {
    case 'library':
      shelf = createShelf(data.items);
      return;
    case 'show':
      return attempt(data.ticket, (standing) => {
        const { packed, buffers } = packRun(showTask(standing, shelf, telling(data.ticket, data.task), compile));
        answer({ type: 'shown', ticket: data.ticket, packed }, buffers);
      });
    case 'plan':
      return attempt(data.ticket, (standing) => {
        const whole = planTask(standing, shelf, telling(data.ticket, data.task), compile);
        held.keepPlan(data.ticket, whole.edits);
        for (const message of planMessages(data.ticket, whole)) answer(message);
      });
    case 'check':
      return attempt(data.ticket, (standing) => void lookOver(data.ticket, checkTask(standing, shelf, data.run)));
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
