export { exportPage, type PageOptions } from './page';
export { leftOut } from './page-looks';
export { exportSceneJson, canonicalJson } from './json';
