export { openRuns, openScene, sceneUnder, stateUnder, layersUnder, type Opened } from './opened';
export { restack, runEdits, type Planned, type Restacked } from './restack';
export { removeRun, switchRun, moveRun, without } from './change';
export { createFolding, entryOn, type Entry } from './fold';
export { applyPatch, countPatched } from './patch';
export type { Unfolded } from './unfold';
export { upgradeScene, upgradeRuns } from './upgrade';
