export { planLineUp, replayLineUp, lineUpStep } from './line-up';
export { retime, rolesOf, partsOf, type Retiming, type Roles } from './retime';
