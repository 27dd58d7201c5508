export { peelScene, type Peeled, type Link, type PeeledScene } from './peel';
export { applyHandEdits, countHandEdits, type HandEdits } from './hand';
export { restack, type Restacked } from './restack';
export { removeRun, switchRun, moveRun } from './change';
export { keyIdentities } from './identity';
