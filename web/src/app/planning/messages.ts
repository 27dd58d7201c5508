import type { Edit, Finding, LayerStep, LibraryItem, Plan, Recipe, RunContext, RunUpdate, Scene } from '@wexikine/core';
import type { PackedRun } from './packed';

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
  /** Plans what is to be shown. */
  | { readonly type: 'show'; readonly ticket: number; readonly task: PlanTask }
  /** Plans the same with all that applying it takes. */
  | { readonly type: 'plan'; readonly ticket: number; readonly task: PlanTask }
  /** Looks over the scene as it stands, or with a task planned into it. */
  | { readonly type: 'check'; readonly ticket: number; readonly task: PlanTask | null }
  | { readonly type: 'update'; readonly ticket: number; readonly task: UpdateTask };

/**
 * What it answers. A whole plan of many layers comes in parts, so that the page never waits for long: all but its lists
 * first, then the lists piece by piece.
 */
export type FromPlanner =
  | { readonly type: 'shown'; readonly ticket: number; readonly packed: PackedRun }
  | { readonly type: 'plan'; readonly ticket: number; readonly plan: Plan; readonly parts: number }
  | {
      readonly type: 'plan-part';
      readonly ticket: number;
      readonly edits: readonly Edit[];
      readonly steps: readonly LayerStep[];
    }
  | { readonly type: 'findings'; readonly ticket: number; readonly findings: readonly Finding[] }
  | { readonly type: 'updates'; readonly ticket: number; readonly updates: readonly RunUpdate[] }
  | { readonly type: 'failed'; readonly ticket: number };
