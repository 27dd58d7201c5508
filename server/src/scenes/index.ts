export { sceneRoutes } from './routes';
export { useCounts, usesOfItem } from './uses';
export { createScene, purgeDeleted, readScene, saveScene } from './scenes';
export { hasScene } from './scenes-table';
