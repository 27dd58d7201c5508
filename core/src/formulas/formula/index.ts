export type { Formula, Node, Span } from './ast';
export { parseFormula, MOST_CHARACTERS, type ParseResult } from './parse';
export { checkFormula, type Checked, type CheckResult } from './check';
export { compileFormula, compileChecked, type CompiledFormula, type CompileResult } from './compile';
export { ProgramWriter, type Columns, type Program, type RunRow } from './program';
export { prepareColumns, type RunColumns } from './native';
export { describeFormulaProblem, type FormulaProblem } from './problem';
export { FUNCTIONS, type FormulaFunction } from './functions';
export {
  createScope,
  numberOf,
  SWITCH,
  CURVE,
  CONSTANTS,
  DIMENSIONS,
  RUN_NAMES,
  FRAME_PLACE,
  type Scope,
  type ValueType,
  type CurveProgress,
  ROW_NAME,
  CLOCK_NAME,
  type Past,
  type PastReader,
} from './scope';
export { nameOfDimension, UNITS, type Dimension } from './dimension';
export { parser as formulaParser } from './grammar/parser.generated';
