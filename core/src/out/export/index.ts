export { exportPage, type PageOptions } from './page';
export { exportSceneJson, canonicalJson } from './json';
