/// <reference lib="webworker" />
import { createPresetCompiler, createShelf, plan, type Scene, type Shelf } from '@wexikine/core';
import type { FromPlanner, ToPlanner } from './messages';

const compile = createPresetCompiler();
let shelf: Shelf = new Map();
let scene: Scene | null = null;

function answer(message: FromPlanner): void {
  postMessage(message);
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
      try {
        if (scene)
          answer({ type: 'plan', ticket: data.ticket, plan: plan(scene, shelf, data.recipe, data.context, compile) });
      } catch (error) {
        console.error(error);
        answer({ type: 'failed', ticket: data.ticket });
      }
  }
});
