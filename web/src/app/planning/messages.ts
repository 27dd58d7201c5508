import type {
  Edit,
  Finding,
  LayerPlan,
  LayerStep,
  LibraryItem,
  Plan,
  Recipe,
  RunContext,
  RunUpdate,
  Scene,
} from '@wexikine/core';

/** A recipe to plan, for a new run or for one that is there. */
export interface PlanTask {
  readonly recipe: Recipe;
  readonly context: RunContext;
  /** The run that is to be planned again; null for a new one. */
  readonly run: string | null;
}

/** Runs that are to be brought up to what the library holds now. */
export interface UpdateTask {
  readonly runs: readonly string[];
  readonly context: Pick<RunContext, 'by' | 'when'>;
}

/** What the page tells a planning worker. Scene and library are sent only when they change. */
export type ToPlanner =
  | { readonly type: 'library'; readonly items: readonly LibraryItem[] }
  | { readonly type: 'scene'; readonly scene: Scene }
  | { readonly type: 'plan'; readonly ticket: number; readonly task: PlanTask }
  /** Looks over the scene as it stands, or with a task planned into it. */
  | { readonly type: 'check'; readonly ticket: number; readonly task: PlanTask | null }
  | { readonly type: 'update'; readonly ticket: number; readonly task: UpdateTask };

/**
 * What it answers. A plan of many layers comes in parts, so that the page never waits for long: the plan without its
 * lists first, then the lists piece by piece, then `end`.
 */
export type FromPlanner =
  | { readonly type: 'plan'; readonly ticket: number; readonly plan: Plan; readonly parts: number }
  | {
      readonly type: 'part';
      readonly ticket: number;
      readonly layers: readonly LayerPlan[];
      readonly edits: readonly Edit[];
      readonly steps: readonly LayerStep[];
    }
  | { readonly type: 'findings'; readonly ticket: number; readonly findings: readonly Finding[] }
  | { readonly type: 'updates'; readonly ticket: number; readonly updates: readonly RunUpdate[] }
  | { readonly type: 'failed'; readonly ticket: number };
