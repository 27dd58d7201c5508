export {
  operationPhase,
  refuse,
  NO_COUNTS,
  type Operated,
  type PlanCounts,
  type RunContext,
  type Surroundings,
} from './operation';
