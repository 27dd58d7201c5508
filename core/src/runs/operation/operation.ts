import type { Finding } from '../finding';
import type { CompilePreset, Phase } from '../../formulas/preset';
import type { Shelf } from '../../library/library';
import type { SentenceFacts, SentencePart } from '../sentence';
import type { Ticks } from '../../basics/time';
import type { Layer } from '../../scene/layer';
import type { LayerMade, RunRecord, Scene } from '../../scene/scene';

/** Who applies a run and when; passed in, so that planning stays pure. */
export interface RunContext {
  readonly runId: string;
  readonly by: string;
  /** ISO 8601 date and time. */
  readonly when: string;
  /** The run that is planned again: what it used is at hand whatever the library holds. */
  readonly known?: Pick<RunRecord, 'preset' | 'rig' | 'uses'>;
  /** Hears how far what takes long has come: the share of it, 0 to 1. */
  readonly progress?: (share: number) => void;
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

/** Place, times and values that a run gives to one layer. */
export interface LayerValues {
  readonly layer: string;
  /** Place in the order, 0 first. */
  readonly place: number;
  readonly starts: Ticks;
  readonly lasts: Ticks;
  /** Times of the preset's moments from its start, in their order. */
  readonly moments: readonly Ticks[];
  /** Each parameter's value: a number in base units (px, seconds, degrees; a switch 0 or 1), or text. */
  readonly values: Readonly<Record<string, number | string>>;
}

/** What a run gives to one layer. */
export interface LayerPlan extends LayerValues {
  /** The layer as it will be. */
  readonly after: Layer;
}

/** A layer that an operation adds, in front of all others. */
export interface AddedLayer {
  /** As it is without the run. */
  readonly layer: Layer;
}

/** What an operation would do, worked out for each layer. */
export interface Operated {
  readonly layers: readonly LayerPlan[];
  /** What it makes on each layer, for the run's record; worked out when it is asked for, since a dry run needs none. */
  readonly made: () => readonly LayerMade[];
  readonly findings: readonly Finding[];
  readonly counts: Omit<PlanCounts, 'kept'>;
  /** The preset that was used, as the run's record keeps it. */
  readonly preset?: RunRecord['preset'];
  /** The rig that was used, with its dials. */
  readonly rig?: RunRecord['rig'];
  /** The numbers of an adjustment on its layers. */
  readonly adjust?: RunRecord['adjust'];
  readonly uses?: RunRecord['uses'];
  /** Layers that come with the run, groups before what is in them. */
  readonly added?: readonly AddedLayer[];
  /** Layers that go, what is in groups with them. */
  readonly removed?: readonly string[];
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

/** Counts of what touches nothing. */
export const NO_COUNTS: PlanCounts = { layers: 0, added: 0, replaced: 0, removed: 0, kept: 0 };

/** What of the scene under a run its plan may depend on, besides what is always the same. */
export interface Reads {
  /** In and out points, of its layers or others. */
  readonly spans: boolean;
  /** Rest poses, of its layers or others. */
  readonly rest: boolean;
  /** Looks, of its layers or others. */
  readonly looks?: boolean;
  /** Keys. */
  readonly keys: boolean;
  /** The layer whose keys it goes by though it is not one of its own. */
  readonly keysOf?: string | null;
  /** Whether it may take away whatever it meets, so that what is set by hand after it belongs over it. */
  readonly sweeps: boolean;
}

/** What doing a run once more on a layer needs besides what it made there. */
export interface Replaying {
  readonly run: RunRecord;
  /** The scene with the runs that it is to have. */
  readonly scene: Scene;
}

/**
 * All that an operation is: how it is planned, how what it made is done once more over a layer that has changed
 * underneath, what its plan may depend on there, and how it reads.
 */
export interface OperationEntry<R> {
  readonly plan: (surroundings: Surroundings, recipe: R) => Operated;
  readonly replay: (recipe: R, made: LayerMade, state: Layer, replaying: Replaying) => Layer;
  readonly reads: (recipe: R, run: RunRecord) => Reads;
  /** The layer whose changes it follows; left out where it never follows one. */
  readonly follows?: (recipe: R) => Followed | null;
  /** Its sentence, cut into plain text and fields. */
  readonly parts: (recipe: R, facts: SentenceFacts) => SentencePart[];
  /** The layers that a run of it brought, which go and are hidden with it; left out where it brings none. */
  readonly brought?: (scene: Pick<Scene, 'layers'>, run: Pick<RunRecord, 'id'>) => Brought;
}

/** A layer that a run goes on following: what of it, when it changes, is taken again. */
export interface Followed {
  readonly layer: string;
  readonly fields: readonly (keyof Layer)[];
  readonly keys: boolean;
}

/** Layers that a run brought with it, and the group that holds them. */
export interface Brought {
  readonly layers: readonly string[];
  readonly group: string | null;
}

/** An operation that cannot be done. */
export function refuse(findings: readonly Finding[]): Operated {
  return { layers: [], made: () => [], findings, counts: NO_COUNTS };
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
