export { makeMovement, type MovementContext } from './make';
export { movementEnds, movementTroubles, type MovementTrouble } from './lengths';
export { wayByTurns } from './framing';
