export { exportPage, leftOut, type PageOptions } from './page';
export { exportSceneJson, canonicalJson } from './json';
