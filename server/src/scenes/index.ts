export { sceneRoutes } from './routes';
export { useCounts, usesOfItem } from './uses';
export { createScene, keepPart, prepareScene, purgeDeleted, readScene, saveScene } from './scenes';
export { UPGRADES } from './upgrade';
export { hasScene } from './scenes-table';
