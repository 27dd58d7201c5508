export { planLineUp, replayLineUp, lineUpReads } from './line-up';
export { lineUpWords, lineUpParts } from './words';
export { retime, rolesOf, partsOf, type Retiming, type Roles } from './retime';
