import type { Finding } from '../finding';
import type { CompilePreset, Phase } from '../preset';
import type { Shelf } from '../library';
import type { LayerPlan } from '../run';
import type { LayerStep, RunRecord, Scene } from '../scene';

/** Who applies a run and when; passed in, so that planning stays pure. */
export interface RunContext {
  readonly runId: string;
  readonly by: string;
  /** ISO 8601 date and time. */
  readonly when: string;
  /** The run that is planned again: its preset revision is at hand whatever the library holds. */
  readonly known?: Pick<RunRecord, 'preset'>;
}

/** Layers and keys that a plan touches. */
export interface PlanCounts {
  readonly layers: number;
  /** New keys at times where none stood. */
  readonly added: number;
  /** Old keys that give way to a new one at the same time. */
  readonly replaced: number;
  /** Old keys that go. */
  readonly removed: number;
  /** Old keys on the picked layers that stay. */
  readonly kept: number;
}

/** What an operation would do, worked out for each layer. */
export interface Operated {
  readonly layers: readonly LayerPlan[];
  /** What it does to each layer, for the run's record; worked out when it is asked for, since a dry run needs none. */
  readonly steps: () => readonly LayerStep[];
  readonly findings: readonly Finding[];
  readonly counts: Omit<PlanCounts, 'kept'>;
  /** The preset that was used, as the run's record keeps it. */
  readonly preset?: RunRecord['preset'];
  readonly uses?: RunRecord['uses'];
}

/** What an operation may look at besides its recipe. */
export interface Surroundings {
  readonly scene: Scene;
  readonly shelf: Shelf;
  readonly context: RunContext;
  readonly compile: CompilePreset;
  /** Indices of the layers that take part, from back to front. */
  readonly indices: readonly number[];
}

export const NO_COUNTS: PlanCounts = { layers: 0, added: 0, replaced: 0, removed: 0, kept: 0 };

/** An operation that cannot be done. */
export function refuse(findings: readonly Finding[]): Operated {
  return { layers: [], steps: () => [], findings, counts: NO_COUNTS };
}

const PHASES: Readonly<Record<string, Phase>> = {
  'bring-in': 'entrance',
  'send-out': 'exit',
  accent: 'accent',
  'move-throughout': 'throughout',
};

/** The phase that runs of an operation play in; null for those that put no preset on layers. */
export function operationPhase(operation: unknown): Phase | null {
  return typeof operation === 'string' ? (PHASES[operation] ?? null) : null;
}
