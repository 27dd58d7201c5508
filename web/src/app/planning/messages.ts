import type { LibraryItem, Plan, Recipe, RunContext, Scene } from '@wexikine/core';

/** What the page tells the planning worker. Scene and library are sent only when they change. */
export type ToPlanner =
  | { readonly type: 'library'; readonly items: readonly LibraryItem[] }
  | { readonly type: 'scene'; readonly scene: Scene }
  | { readonly type: 'plan'; readonly ticket: number; readonly recipe: Recipe; readonly context: RunContext };

export type FromPlanner =
  | { readonly type: 'plan'; readonly ticket: number; readonly plan: Plan }
  | { readonly type: 'failed'; readonly ticket: number };
