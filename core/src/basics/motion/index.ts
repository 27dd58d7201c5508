export {
  arrivalSpeed,
  bounceFlights,
  bounceTrouble,
  fallTime,
  flightsEnd,
  MOST_FLIGHTS,
  type BounceLaw,
  type Flight,
} from './bounce';
export { oscillate, oscillatorSettles, oscillatorStep, type Oscillator, type OscillatorStep } from './oscillator';
export { createSway, type SwayFrame, type SwayPart } from './sway';
export { coveringFraming, createCoveringZoom, createZoom, type Framing, type ZoomWay } from './zoom';
export { createEvenPath, evenPathOf, pathPoint, pathProblem, type EvenPath, type PathPoint } from './even-path';
export { READY_FOR, READY_PATHS, type PathFit, type ReadyPath } from './ready-paths';
export {
  boundsOfNodes,
  mapNodes,
  movedNode,
  nodesOfPath,
  pathFromStart,
  pathScaled,
  pathOfNodes,
  withHandle,
  withNodeAfter,
  withoutNode,
  withTurnedCorner,
  type NodePath,
  type PathNode,
} from './path-nodes';
export { cubicTurns } from './cubic';
