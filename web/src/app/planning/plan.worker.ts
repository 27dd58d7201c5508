/// <reference lib="webworker" />
import { createPresetCompiler, createShelf, planUpdates, type Scene } from '@wexikine/core';
import type { FromPlanner, ToPlanner } from './messages';
import { checkTask, planMessages, planTask } from './plan-task';

const compile = createPresetCompiler();
let shelf = createShelf([]);
let scene: Scene | null = null;

function answer(message: FromPlanner): void {
  postMessage(message);
}

/** Answers a request; a bug in planning is told as a failure, so that the page need not wait for ever. */
function attempt(ticket: number, work: (scene: Scene) => void): void {
  try {
    if (scene) work(scene);
  } catch (error) {
    console.error(error);
    answer({ type: 'failed', ticket });
  }
}

addEventListener('message', ({ data }: MessageEvent<ToPlanner>) => {
  switch (data.type) {
    case 'library':
      shelf = createShelf(data.items);
      return;
    case 'scene':
      scene = data.scene;
      return;
    case 'plan':
      return attempt(data.ticket, (standing) => {
        planMessages(data.ticket, planTask(standing, shelf, data.task, compile)).forEach(answer);
      });
    case 'check':
      return attempt(data.ticket, (standing) => {
        answer({ type: 'findings', ticket: data.ticket, findings: checkTask(standing, shelf, data.task, compile) });
      });
    case 'update':
      return attempt(data.ticket, (standing) => {
        const { runs, context } = data.task;
        const updates = planUpdates(standing, shelf, new Set(runs), context, compile);
        answer({ type: 'updates', ticket: data.ticket, updates });
      });
  }
});
