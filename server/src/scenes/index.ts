export { sceneRoutes, type Surroundings } from './routes';
export { createScene, readScene, saveScene } from './scenes';
export { hasScene } from './scenes-table';
