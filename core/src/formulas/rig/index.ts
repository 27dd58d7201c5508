export {
  createRig,
  dialsPreset,
  draftRigSchema,
  freeName,
  KNOWN_ROLES,
  rigChannels,
  rigIn,
  rigProblems,
  rigSchema,
  type Rig,
  type RigFormula,
  type RigRole,
} from './rig';
export { rigScope, unitWords, type RigScope, type RigSource } from './scope';
export { compileRig, type CompiledRig, type CompiledRigFormula, type RigProblem } from './compile';
