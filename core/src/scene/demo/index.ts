export { programmeBoard } from './programme-board';
export { constellations } from './constellations';
