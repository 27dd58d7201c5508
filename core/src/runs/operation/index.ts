export {
  operationPhase,
  refuse,
  NO_COUNTS,
  type Operated,
  type PlanCounts,
  type RunContext,
  type Surroundings,
  type LayerPlan,
  type LayerValues,
  type OperationEntry,
  type Reads,
  type Replaying,
} from './operation';
