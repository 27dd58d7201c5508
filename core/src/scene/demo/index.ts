export { programmeBoard } from './programme-board';
export { constellations } from './constellations';
export { speakers } from './speakers';
export { pictureWall } from './picture-wall';
export { gateWipe } from './gate-wipe';
export { sparks } from './sparks';
