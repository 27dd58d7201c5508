/// <reference lib="webworker" />
import { createPresetCompiler, createShelf, planUpdates, type Scene } from '@wexikine/core';
import type { FromPlanner, ToPlanner } from './messages';
import { packRun } from './packed';
import { checkTask, planMessages, planTask, showTask } from './plan-task';

const compile = createPresetCompiler();
let shelf = createShelf([]);
let scene: Scene | null = null;

/** Answers; `buffers` of the message change hands. */
function answer(message: FromPlanner, buffers: ArrayBuffer[] = []): void {
  postMessage(message, buffers);
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
    case 'show':
      return attempt(data.ticket, (standing) => {
        const { packed, buffers } = packRun(showTask(standing, shelf, data.task, compile));
        answer({ type: 'shown', ticket: data.ticket, packed }, buffers);
      });
    case 'plan':
      return attempt(data.ticket, (standing) => {
        for (const message of planMessages(data.ticket, planTask(standing, shelf, data.task, compile))) answer(message);
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
