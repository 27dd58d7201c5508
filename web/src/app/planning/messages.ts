import type { Edit, Finding, Layer, LibraryItem, Plan, Recipe, RunContext, RunUpdate, Scene } from '@wexikine/core';
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

/**
 * What the page tells a planning worker. The scene is handed over once, large ones in parts; from then on the worker does
 * the same edits as the page.
 */
export type ToPlanner =
  | { readonly type: 'library'; readonly items: readonly LibraryItem[] }
  /** A scene whose layers follow in so many parts. */
  | { readonly type: 'scene'; readonly scene: Scene; readonly parts: number }
  | { readonly type: 'layers'; readonly layers: readonly Layer[] }
  /** Part of a step; it is done when the last part is there. */
  | { readonly type: 'edits'; readonly edits: readonly Edit[]; readonly isLast: boolean }
  /** The step that the worker itself planned under a ticket was done. */
  | { readonly type: 'applied'; readonly ticket: number }
  /** Plans what is to be shown. */
  | { readonly type: 'show'; readonly ticket: number; readonly task: PlanTask }
  /** Plans the same with all that applying it takes. */
  | { readonly type: 'plan'; readonly ticket: number; readonly task: PlanTask }
  /** Looks over the scene as it stands, or with a dry run in it that was planned before. */
  | { readonly type: 'check'; readonly ticket: number; readonly run: PackedRun | null }
  /** What is looked over is no longer wanted, and not answered. */
  | { readonly type: 'stop' }
  | { readonly type: 'update'; readonly ticket: number; readonly task: UpdateTask };

/**
 * What it answers. A whole plan of many layers comes in parts, so that the page never waits for long: all but its edits
 * first, then those piece by piece.
 */
export type FromPlanner =
  | { readonly type: 'shown'; readonly ticket: number; readonly packed: PackedRun }
  /** How far what takes long has come, 0 to 1. */
  | { readonly type: 'progress'; readonly ticket: number; readonly share: number }
  | { readonly type: 'plan'; readonly ticket: number; readonly plan: Plan; readonly parts: number }
  | { readonly type: 'plan-part'; readonly ticket: number; readonly edits: readonly Edit[] }
  | { readonly type: 'findings'; readonly ticket: number; readonly findings: readonly Finding[] }
  | { readonly type: 'updates'; readonly ticket: number; readonly updates: readonly RunUpdate[] }
  | { readonly type: 'failed'; readonly ticket: number };
