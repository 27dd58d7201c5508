import type { ChannelId } from '../../basics/channel';
import { compileFormula, describeFormulaProblem, type CompiledFormula, type FormulaProblem } from '../formula';
import { typeOfChannel, type CurveTable } from '../preset';
import type { Rig } from './rig';
import { rigScope, type RigScope } from './scope';

/** A formula of a rig for one channel, ready to run. */
export interface CompiledRigFormula extends RigScope {
  readonly channel: ChannelId;
  readonly formula: CompiledFormula;
  /** The curves that its inputs count, those of all formulas of the rig. */
  readonly curves: CurveTable;
}

/** What is wrong in a formula of a rig, and where. */
export interface RigProblem {
  /** Which of the rig's formulas. */
  readonly index: number;
  readonly channel: ChannelId;
  readonly message: string;
  readonly problem: FormulaProblem;
}

/** A rig whose formulas are checked; those with problems are left out of `formulas`. */
export interface CompiledRig {
  readonly formulas: readonly CompiledRigFormula[];
  readonly problems: readonly RigProblem[];
}

const known = new WeakMap<Rig, CompiledRig>();

/** Checks and compiles a rig's formulas, one for each channel; the same rig is compiled once. */
export function compileRig(rig: Rig): CompiledRig {
  const before = known.get(rig);
  if (before) return before;
  const formulas: CompiledRigFormula[] = [];
  const problems: RigProblem[] = [];
  const curves: CurveTable = { easings: [], progress: [] };
  rig.formulas.forEach(({ channels, text }, index) => {
    for (const channel of channels) {
      const scope = rigScope(rig, channel, text, curves.progress);
      const result = compileFormula(text, scope.scope, typeOfChannel(channel));
      if (result.ok) formulas.push({ ...scope, channel, formula: result.compiled, curves });
      else {
        for (const problem of result.problems) {
          problems.push({ index, channel, message: describeFormulaProblem(problem), problem });
        }
      }
    }
  });
  const compiled = { formulas, problems };
  known.set(rig, compiled);
  return compiled;
}
